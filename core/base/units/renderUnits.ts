import { withReadersDecimals } from "./decimal.ts";
import type { Estimate } from "./estimate.ts";
import { formatQuantity, formatUncertain } from "./format.ts";
import type { DimensionName, System } from "./units.ts";

/**
 * Sentences are made once and read in either system of units: a quantity stands in them as a token in SI, which is
 * written out when the sentence is spoken.
 */
const TOKEN = /‹(\S+) (\w+)(?: (\d+))?›/g;

/**
 * A quantity inside a sentence. Example: `unitToken(15_000, "distance") === "‹15000 distance›"`.
 *
 * @example unitToken(1609.344, "distance", 1) === "‹1609.344 distance 1›"
 */
export function unitToken(value: number, name: DimensionName, decimals?: number): string {
  return `‹${value} ${name}${decimals === undefined ? "" : ` ${decimals}`}›`;
}

/** A figure with its plus-or-minus inside a sentence. Example: `estimateToken({ mean: 20_000, sd: 500 }, "distance") === "‹20000±500 distance›"`. */
export function estimateToken({ mean, sd }: Estimate, name: DimensionName): string {
  return `‹${mean}±${sd} ${name}›`;
}

/**
 * Writes a sentence out in a system's units. `spoken("at ‹15000 distance›", "metric") === "at 15.0 km"`.
 *
 * @example renderUnits("after ‹1609.344 distance 1›", "imperial") === "after 1.0 mi"
 */
export function renderUnits(sentence: string, system: System): string {
  return sentence
    .split(/(‹[^›]*›)/)
    .map((part) => (part.startsWith("‹") ? part : withReadersDecimals(part)))
    .join("")
    .replace(TOKEN, (_, value: string, name: string, decimals?: string) => {
      const [mean, sd] = value.split("±").map(Number) as [number, number?];
      return sd === undefined
        ? formatQuantity(
            mean,
            name as DimensionName,
            system,
            decimals === undefined ? undefined : Number(decimals),
          )
        : formatUncertain({ mean, sd }, name as DimensionName, system);
    });
}
