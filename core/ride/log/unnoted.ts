import type { LiveEntry } from "./fold.ts";

const FIELDS = ["percent", "bars"] as const;
type Field = (typeof FIELDS)[number];

/** What a place says of the charge, as far as it tells that the pack was charged before it. */
interface Seen extends Readonly<Partial<Record<Field, number>>> {
  /** The charger was done: a start says so. */
  readonly full: boolean;
  /** The first of a later ride. */
  readonly begins: boolean;
  /** A charge that was noted ends it. */
  readonly refilled: boolean;
}

/** A gauge that comes back at rest regains no more: points of percent, and bars. */
const RESTED = { percent: 15, bars: 1 } as const;
/** Of the rise, so much must still be there at the next look: else the higher one was a slip. */
const STAYS = 0.5;

function seen(group: readonly LiveEntry[], begins: boolean, refilled: boolean): Seen {
  const standing = group.filter(({ struck }) => !struck);
  const of = (field: Field) =>
    standing.flatMap(({ body, struckFields }) => {
      const value = field in body ? (body as Partial<Record<Field, number>>)[field] : undefined;
      return value === undefined || struckFields.includes(field) ? [] : [{ [field]: value }];
    })[0];
  const full = standing.some(({ body }) => body.kind === "start" && body.chargerDone === true);
  return { ...of("percent"), ...of("bars"), full, begins, refilled };
}

/** For each place the next look of the same ride, up to a charge that was noted. */
function looksAfter(places: readonly Seen[], field: Field): readonly (number | undefined)[] {
  const after: (number | undefined)[] = [];
  let next: number | undefined;
  for (let at = places.length - 1; at >= 0; at -= 1) {
    const place = places[at];
    if (place?.refilled) next = undefined;
    after[at] = next;
    next = place?.[field] ?? next;
    if (place?.begins) next = undefined;
  }
  return after;
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
  const all = rides.map((groups, ride) =>
    groups.map((group, at) => seen(group, ride > 0 && at === 0, isRefill(group))),
  );
  const places = all.flat();
  const after = { percent: looksAfter(places, "percent"), bars: looksAfter(places, "bars") };
  /** The last two looks since a charge, of each kind. */
  let before: Record<Field, readonly number[]> = { percent: [], bars: [] };
  const rose = (place: Seen, index: number, field: Field): boolean => {
    const here = place[field];
    const last = before[field].at(-1);
    if (here === undefined || last === undefined) return false;
    // Of a single low look the look before tells that it was the slip.
    if (here - Math.max(...before[field]) <= RESTED[field]) return false;
    const next = after[field][index];
    // A later ride begins with a look of its own, which nothing else need bear out.
    if (next === undefined) return place.begins;
    return next - last >= STAYS * (here - last) - RESTED[field] / 2;
  };
  let index = 0;
  let refilled = false;
  return all.map((ride) => {
    const found = new Set<number>();
    ride.forEach((place, at) => {
      const isCharged =
        !refilled &&
        index > 0 &&
        ((place.begins && place.full) || FIELDS.some((each) => rose(place, index, each)));
      if (isCharged) found.add(at);
      if (isCharged || refilled) before = { percent: [], bars: [] };
      for (const field of FIELDS) {
        const value = place[field];
        if (value !== undefined) before = { ...before, [field]: [...before[field].slice(-1), value] };
      }
      refilled = place.refilled;
      index += 1;
    });
    return found;
  });
}

/** What is said of such a charge, and how to have it otherwise. */
export const unnotedSentence = (begins: boolean): string =>
  begins
    ? "A later ride begins with more charge than the one before ended with, and no charge was noted: it is taken as charged in between, or as another pack. Add “charged” where it was, or correct that start."
    : "The gauge rises on the way by more than a rest gives back, and no charge was noted: it is taken as charged there. Add “charged” where it was, or correct the reading.";
