import { regionsSystem } from "#app/ui/readersLanguage";
import type { System } from "#core/base";

const NAME = "units";

/** The units a person chose, kept in a cookie; those of the browser's region until told otherwise. */
export function systemOf(request: Request): System {
  const cookies = request.headers.get("Cookie") ?? "";
  const [, chosen] = new RegExp(`(?:^|; )${NAME}=(metric|imperial)`).exec(cookies) ?? [];
  return chosen === "metric" || chosen === "imperial" ? chosen : regionsSystem(request);
}

/** The Set-Cookie line for a choice of units, kept for a year. */
export function systemCookie(system: System): string {
  return `${NAME}=${system}; Path=/; Max-Age=31536000; SameSite=Lax`;
}
