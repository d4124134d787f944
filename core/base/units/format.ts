import { forField, IN_THOUSANDS, inReadersDecimal } from "./decimal.ts";
import { boundedSpan, spanOf } from "./bounded.ts";
import { halfWidth95, Z_95, type Estimate } from "./estimate.ts";
import { decimalsOf, fromSi, unitOf, type DimensionName, type System } from "./units.ts";

const MINUS = "\u2212";

/**
 * A number with fixed decimals and a true minus. Example: `fixed(-1.25, 1) === "−1.3"`.
 *
 * @example fixed(-0.04, 1) === "0.0"
 */
export function fixed(value: number, decimals: number): string {
  const text = value.toFixed(Math.max(0, Math.min(10, decimals)));
  const bare = /^-0(\.0+)?$/.test(text) ? text.slice(1) : text;
  return inReadersDecimal(bare.replace("-", MINUS));
}

/**
 * Decimals at which an error keeps two digits when it starts with 1, else one. `errorDecimals(0.144) === 2`, `errorDecimals(0.5) === 1`.
 *
 * @example errorDecimals(0.34) === 1
 */
export function errorDecimals(error: number): number {
  if (!(error > 0) || !Number.isFinite(error)) return 1;
  const power = Math.floor(Math.log10(error) + 1e-9);
  const lead = error / 10 ** power;
  return Math.max(0, (lead < 1.95 ? 1 : 0) - power);
}

export interface Written {
  /** The value, rounded to what its error supports; "under 12" where hardly more is known. */
  readonly value: string;
  /** The plus-or-minus, 95 %, at the same decimals. */
  readonly error: string;
  /** What is written behind the value: "± 1.7", "(4 to 19)" where a plus-or-minus would not do, nothing behind "under 12". */
  readonly spread: string;
  readonly unit: string;
}

/** What is never negative. */
const BOUNDED: ReadonlySet<DimensionName> = new Set(["distance", "speed", "energy", "energyPerDistance"]);

/** Fewest and most decimals a figure may show: beyond two nobody can ride. */
const MOST_DECIMALS = 2;

/**
 * Writes an uncertain SI value in a system's unit: value and 95 % plus-or-minus at the decimals the error supports.
 *
 * @param signed a difference, which may lie on either side of nought
 * @example writeUncertain({ mean: 0.00861, sd: 0.000525 }, "energyPerDistance", "imperial").spread === "± 1.7"
 */
export function writeUncertain(
  value: Estimate,
  name: DimensionName,
  system: System,
  signed = false,
): Written {
  return writeIn(value, name, unitOf(name, system), signed);
}

/** The same in a unit that is named. */
export function writeIn(value: Estimate, name: DimensionName, unit: string, signed = false): Written {
  const zero = fromSi(0, name, unit);
  const shown = fromSi(value.mean, name, unit);
  const error = Math.abs(fromSi(halfWidth95(value), name, unit) - zero);
  const decimals = Math.min(MOST_DECIMALS, errorDecimals(error));
  const written = { error: fixed(error, decimals), unit };
  const floor = fromSi(value.floor ?? 0, name, unit);
  const span = !signed && BOUNDED.has(name) ? boundedSpan({ mean: shown, sd: error / Z_95, floor }) : null;
  if (!span) return { ...written, value: fixed(shown, decimals), spread: `± ${written.error}` };
  if (span.isVague) return { ...written, value: `under ${fixed(span.high, decimals)}`, spread: "" };
  return {
    ...written,
    value: fixed(shown, decimals),
    spread: `(${fixed(span.low, decimals)} to ${fixed(span.high, decimals)})`,
  };
}

/**
 * One line: "13.9 ± 1.7 Wh/mi", "9 (4 to 19) Wh/mi".
 *
 * @param signed a difference, which may lie on either side of nought
 * @example formatUncertain({ mean: 0.00861, sd: 0.000525 }, "energyPerDistance", "imperial") === "13.9 ± 1.7 Wh/mi"
 */
export function formatUncertain(
  value: Estimate,
  name: DimensionName,
  system: System,
  signed = false,
): string {
  const { value: text, spread, unit } = writeUncertain(value, name, system, signed);
  return [text, spread, unit].filter(Boolean).join(" ");
}

/**
 * From and to, the 95 % of an uncertain value: "27 to 33 mi".
 *
 * @example spanText({ mean: 48280, sd: 2463 }, "distance", "imperial") === "27 to 33 mi"
 */
export function spanText(value: Estimate, name: DimensionName, system: System): string {
  const { low, high } = spanOf(value);
  return `${formatBare(low, name, system, 0)} to ${formatQuantity(high, name, system, 0)}`;
}

/**
 * A share of the charge in percent, never below nothing or above all: "46 ± 6", or "98 (91 to 100)".
 *
 * @example writeShare({ mean: 0.46, sd: 0.03 }).spread === "± 6"
 * @example writeShare({ mean: 1.03, sd: 0.04 }).spread === "(95 to 100)"
 */
export function writeShare({ mean, sd }: Estimate): { readonly value: string; readonly spread: string } {
  const half = Z_95 * sd;
  const inside = (share: number) => fixed(100 * Math.min(1, Math.max(0, share)), 0);
  const reaches = mean - half < 0 || mean + half > 1;
  return {
    value: inside(mean),
    spread: reaches ? `(${inside(mean - half)} to ${inside(mean + half)})` : `± ${fixed(100 * half, 0)}`,
  };
}

/**
 * An exact SI value with its unit. Example: `formatQuantity(20000, "distance", "imperial") === "12.4 mi"`.
 *
 * @example formatQuantity(1609.344, "distance", "imperial") === "1.0 mi"
 */
export function formatQuantity(
  value: number,
  name: DimensionName,
  system: System,
  decimals?: number,
): string {
  const unit = unitOf(name, system);
  return `${formatBare(value, name, system, decimals)} ${unit}`.trim();
}

/**
 * The same without the unit, for table cells under a heading that names it.
 *
 * @example formatBare(20_000, "distance", "imperial") === "12.4"
 */
export function formatBare(value: number, name: DimensionName, system: System, decimals?: number): string {
  const unit = unitOf(name, system);
  return fixed(fromSi(value, name, unit), decimals ?? decimalsOf(name, unit));
}

/**
 * What a form shows for an SI value, so that typing it back gives the value again: up to `digits` decimals, no padding.
 *
 * @example formatInput(6.7056, "speed", "mph", 2) === "15 mph"
 */
export function formatInput(value: number, name: DimensionName, unit: string, digits = 3): string {
  const figure = Number(fromSi(value, name, unit).toFixed(digits));
  return `${forField(figure, IN_THOUSANDS.includes(unit))} ${unit}`.trim();
}

/**
 * Two plus-or-minus of which the second is the smaller, at decimals that tell them apart: "± 1.9" and "± 1.5", not both 2.
 *
 * @param now and @param then 95 % half-spans in the unit shown
 * @example writeNarrowing(1.9, 1.5).join(" to ") === "1.9 to 1.5"
 */
export function writeNarrowing(now: number, then: number): readonly [now: string, then: string] {
  let decimals = Math.min(MOST_DECIMALS, Math.max(errorDecimals(now), errorDecimals(then)));
  while (decimals < MOST_DECIMALS && fixed(now, decimals) === fixed(then, decimals)) decimals += 1;
  return [fixed(now, decimals), fixed(then, decimals)];
}
