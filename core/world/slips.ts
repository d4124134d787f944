import type { Entry, EntryBody } from "#core/ride/log";
import type { Rng } from "./chance.ts";
import type { Kind } from "./kinds.ts";
import { at, MILE_M } from "./units.ts";

/** An entry that was typed wrong, and how. */
export interface Slip {
  readonly entryId: string;
  readonly field: "percent" | "distanceM" | "bar";
  readonly meant: number;
  readonly typed: number;
}

const swapped = (value: number) => Number([...String(value).padStart(2, "0")].reverse().join(""));

/** Swaps the two digits before the point of a distance in miles: 12.4 for 21.4. */
function milesSwapped(metres: number): number {
  const tenths = Math.round((metres / MILE_M) * 10);
  return Math.round(((swapped(Math.floor(tenths / 10)) * 10 + (tenths % 10)) / 10) * MILE_M);
}

const wrongOf = (slip: NonNullable<Kind["slip"]>, meant: number, chance: Rng): number =>
  slip === "tenPoints"
    ? meant + (chance.happens(0.5) ? 10 : -10)
    : slip === "digits"
      ? swapped(meant)
      : slip === "distance"
        ? milesSwapped(meant)
        : Math.max(1, Math.min(5, meant + (chance.happens(0.5) ? 1 : -1)));

/** Types one reading of the middle wrong, in place; what was meant, or null when none would show. */
export function mistypeOne(entries: Entry[], slip: Kind["slip"], chance: Rng): Slip | null {
  if (slip === undefined) return null;
  const field = slip === "bar" ? "bar" : slip === "distance" ? "distanceM" : "percent";
  const shows = (meant: number, typed: number) =>
    slip === "distance"
      ? Math.abs(typed - meant) > 6 * MILE_M
      : Math.abs(typed - meant) >= (slip === "bar" ? 1 : 9);
  const able = entries.flatMap(({ id, body }, i) => {
    const meant = (body as Partial<Record<typeof field, number>>)[field];
    if (meant === undefined || i === 0 || i >= entries.length - 1) return [];
    if (field === "percent" && (meant < 15 || meant > 88)) return [];
    const typed = wrongOf(slip, meant, chance);
    return shows(meant, typed) ? [{ i, slip: { entryId: id, field, meant, typed } as Slip }] : [];
  });
  const pick = able[Math.floor(chance.next() * able.length)];
  if (!pick) return null;
  const entry = at(entries, pick.i);
  entries[pick.i] = { ...entry, body: { ...entry.body, [field]: pick.slip.typed } as EntryBody };
  return pick.slip;
}
