import type { System } from "#core/base";

const NAME = "units";

/** The units a person chose, kept in a cookie; miles until told otherwise. */
export function systemOf(request: Request): System {
  const cookies = request.headers.get("Cookie") ?? "";
  return new RegExp(`(?:^|; )${NAME}=metric`).test(cookies) ? "metric" : "imperial";
}

/** The Set-Cookie line for a choice of units, kept for a year. */
export function systemCookie(system: System): string {
  return `${NAME}=${system}; Path=/; Max-Age=31536000; SameSite=Lax`;
}
