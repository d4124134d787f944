import { lastOf } from "#core/base";
import type { LiveEntry } from "./fold.ts";

/** What a place says of the charge, as far as it tells that the pack was charged before it. */
interface Seen {
  readonly percent: number | undefined;
  readonly bars: number | undefined;
  /** The charger was done: a start says so. */
  readonly full: boolean;
  /** The first of a later ride. */
  readonly begins: boolean;
  /** A charge that was noted ends before it. */
  readonly charged: boolean;
}

/** A gauge that comes back at rest regains no more: points of percent, and bars. */
const RESTED = { percent: 15, bars: 1 } as const;
/** Of the rise, so much must still be there at the next look: else the higher one was a slip. */
const STAYS = 0.5;

function seen(group: readonly LiveEntry[], begins: boolean, charged: boolean): Seen {
  const standing = group.filter(({ struck }) => !struck);
  const of = (field: "percent" | "bars") =>
    standing.flatMap(({ body, struckFields }) => {
      const value = field in body ? (body as Partial<Record<typeof field, number>>)[field] : undefined;
      return value === undefined || struckFields.includes(field) ? [] : [value];
    });
  const full = standing.some(({ body }) => body.kind === "start" && body.chargerDone === true);
  return { percent: of("percent")[0], bars: of("bars")[0], full, begins, charged };
}

/** Whether one kind of look rose by more than a rest gives back, and stays there at the look after. */
function rose(places: readonly Seen[], at: number, field: "percent" | "bars"): boolean {
  const here = places[at]?.[field];
  const before = places.slice(0, at).flatMap((place) => place[field] ?? []);
  if (here === undefined || before.length === 0) return false;
  const last = lastOf(before);
  // Of a single low look the look before tells that it was the slip.
  if (here - Math.max(...before.slice(-2)) <= RESTED[field]) return false;
  const after = places.slice(at + 1).find((place) => place[field] !== undefined)?.[field];
  // A later ride begins with a look of its own, which nothing else need bear out.
  if (after === undefined) return places[at]?.begins === true;
  return after - last >= STAYS * (here - last) - RESTED[field] / 2;
}

/**
 * Places before which the pack was charged and nobody noted it: a later ride that begins full, or a gauge that rises by more than a rest
 * gives back and stays there.
 *
 * @param rides groups of entries at one place, ride by ride, in order
 * @param isRefill whether a group ends with a charge that was noted
 * @returns for each ride the places, by their number, that follow such a charge
 */
export function unnotedCharges(
  rides: readonly (readonly (readonly LiveEntry[])[])[],
  isRefill: (group: readonly LiveEntry[]) => boolean,
): readonly ReadonlySet<number>[] {
  let since: Seen[] = [];
  let ridden = false;
  let noted = false;
  return rides.map((groups, ride) => {
    const found = new Set<number>();
    groups.forEach((group, at) => {
      const begins = ride > 0 && at === 0;
      const later = [...groups.slice(at + 1).map((each) => seen(each, false, isRefill(each)))];
      const until = later.findIndex(({ charged }) => charged);
      const place = seen(group, begins, noted);
      const places = [...since, place, ...(until < 0 ? later : later.slice(0, until))];
      const by = since.length;
      const isCharged =
        !noted &&
        ridden &&
        ((begins && place.full) || rose(places, by, "percent") || rose(places, by, "bars"));
      if (isCharged) found.add(at);
      if (isCharged || noted) since = [];
      since.push(place);
      noted = isRefill(group);
      ridden = true;
    });
    return found;
  });
}

/** What is said of such a charge, and how to have it otherwise. */
export const unnotedSentence = (begins: boolean): string =>
  begins
    ? "A later ride begins with more charge than the one before ended with, and no charge was noted: it is taken as charged in between, or as another pack. Add “charged” where it was, or correct that start."
    : "The gauge rises on the way by more than a rest gives back, and no charge was noted: it is taken as charged there. Add “charged” where it was, or correct the reading.";
