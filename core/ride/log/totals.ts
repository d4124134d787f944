import type { TOTAL_FIELDS } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";

/** Something that is said of a whole ride: riding time, mean and top speed, climb, mean heart rate. */
export type TotalField = (typeof TOTAL_FIELDS)[number];

/**
 * A ride's total as it was read last, of the whole ride or so far; a total of the whole ride goes before one on the way.
 *
 * @param entries of one ride
 * @returns SI; null when nobody noted it
 */
export function totalOf(entries: readonly LiveEntry[], field: TotalField): number | null {
  const said = entries.filter(({ struck, body }) => !struck && field in body);
  const whole = said.filter(({ body }) => body.kind === "totals");
  const values = (whole.length ? whole : said).flatMap(({ body }) => {
    const value = (body as Partial<Record<TotalField, number>>)[field];
    return value === undefined ? [] : [value];
  });
  return values.at(-1) ?? null;
}
