import { err, nth, ok, parseQuantity, there, type Result } from "#core/base";
import { SIGHTING, type Sighting, type SightingField } from "./sighting.ts";
import type { Field } from "./field.ts";

/** Two figures with a stroke between them, and perhaps a unit: "6-7 A", "21–22 mph", "2 to 3". */
const SPAN = /^\s*([+\-−]?\d+(?:[.,]\d+)?)\s*(?:-|–|\bto\b)\s*(\d+(?:[.,]\d+)?)\s*(\D*)$/iu;

/**
 * A span of a field as it is kept: the middle and the width; of bars, which are whole, the more and how many fewer.
 *
 * @returns null where the field holds no span
 * @example spanned("bars", 2, 3)?.bars === 3
 */
export function spanned(name: SightingField, low: number, high: number): Partial<Sighting> | null {
  const { span, dimension }: Field = SIGHTING[name];
  if (!span) return null;
  return { [name]: dimension === "count" ? high : (low + high) / 2, [span]: high - low };
}

/**
 * The ends of what is kept of a figure: both the same where it is no span.
 *
 * @example endsOf("bars", { bars: 3, barsSpan: 1 })[0] === 2
 */
export function endsOf(name: SightingField, seen: Partial<Sighting>): readonly [low: number, high: number] {
  const { span, dimension }: Field = SIGHTING[name];
  const [value, wide] = [seen[name] as number, (span && (seen[span as SightingField] as number)) || 0];
  return dimension === "count" ? [value - wide, value] : [value - wide / 2, value + wide / 2];
}

/**
 * Reads what was typed for a quantity of a check-in, whatever the door: a figure with or without its unit, or a span where the
 * field holds one.
 *
 * @param text "12.4 mi", "6-7 A", "61"
 * @param unit of a figure without one, such as "mi"
 * @param path where it stands, for the problem
 * @param column it stands in a column of a file
 * @returns the fields it fills, in the units they are kept in; else what to type
 * @example readTyped("amps", "6-7", "A").value.amps === 6.5
 */
export function readTyped(
  name: SightingField,
  text: string,
  unit: string,
  path = "",
  column = false,
): Result<Partial<Sighting>> {
  const { dimension, siPerStored = 1, span }: Field = SIGHTING[name];
  const read = (figure: string) => parseQuantity(figure, there(dimension), unit, path, column);
  const found = span ? SPAN.exec(text) : null;
  if (!found) {
    const value = read(text);
    return value.ok ? ok({ [name]: value.value / siPerStored }) : value;
  }
  const [low, high] = [read(`${nth(found, 1)}${nth(found, 3)}`), read(`${nth(found, 2)}${nth(found, 3)}`)];
  if (!low.ok) return low;
  if (!high.ok) return high;
  if (high.value < low.value)
    return err("backward", path, `“${text.trim()}” runs backward: type the smaller figure first.`);
  return ok(there(spanned(name, low.value / siPerStored, high.value / siPerStored)));
}
