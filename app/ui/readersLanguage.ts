import type { Decimal, System } from "#core/base";

/** Regions where roads are signed in miles. */
const IN_MILES = ["US", "GB", "LR", "MM"];

/** The language a browser asks for first, with the region where it is likely spoken; undefined where it names none. */
function firstLocale(request: Request): Intl.Locale | undefined {
  const [first = ""] = (request.headers.get("Accept-Language") ?? "").split(/[,;]/);
  try {
    return new Intl.Locale(first.trim()).maximize();
  } catch {
    return undefined;
  }
}

/** The units of a browser's region; miles where it names none. */
export function regionsSystem(request: Request): System {
  const region = firstLocale(request)?.region;
  return region === undefined || IN_MILES.includes(region) ? "imperial" : "metric";
}

/** How a person chose to read numbers: with a point, a comma, or as the browser's language has it. */
export type NumbersChoice = "point" | "comma" | "language";

const NAME = "numbers";

export function numbersChosen(request: Request): NumbersChoice {
  const [, named] =
    new RegExp(`(?:^|; )${NAME}=(point|comma)(?:;|$)`).exec(request.headers.get("Cookie") ?? "") ?? [];
  return named === "point" || named === "comma" ? named : "language";
}

/** The Set-Cookie line for a choice of how numbers are read, kept for a year. */
export function numbersCookie(choice: NumbersChoice): string {
  return `${NAME}=${choice}; Path=/; Max-Age=31536000; SameSite=Lax`;
}

/** The sign before the fraction for whoever asks: as chosen, else as the browser's language writes it. */
export function decimalOf(request: Request): Decimal {
  const chosen = numbersChosen(request);
  if (chosen !== "language") return chosen === "comma" ? "," : ".";
  const locale = firstLocale(request);
  if (!locale) return ".";
  const parts = new Intl.NumberFormat(locale.baseName).formatToParts(0.5);
  return parts.find(({ type }) => type === "decimal")?.value === "," ? "," : ".";
}
