import { there, nth } from "#core/base";
import type { Reference } from "#core/bike";
import { dayOfReported, deskPosterior, type DeskPosterior } from "#core/desk";
import type { Drive } from "#core/records";
import { deskDayOf, type Compared } from "../compared.ts";
import { standings, type PossiblePlaces } from "./standings.ts";
import { broughtTo, subjectOf, type Normalised } from "../normalise/normaliseTo.ts";

/** A bike as it is set up, in its place under a reference. */
export interface Ranked {
  readonly place: number;
  readonly possible: PossiblePlaces;
  readonly bike: string;
  readonly setUp: string | null;
  readonly drive: Drive;
  /** Tests it rests on, by id. */
  readonly tests: readonly string[];
  readonly under: Normalised;
  /** Chance that it is truly behind the next; null for the last. */
  readonly behindNext: number | null;
}

export interface RankingUnder {
  readonly desk: DeskPosterior;
  readonly ranked: readonly Ranked[];
}

/** What others published of the bikes of some tests, once for each bike. */
function reportedOf(tests: readonly Compared[]) {
  const bikes = new Map(tests.map(({ bikeId, ridden: { bike } }) => [bikeId, bike]));
  return [...bikes].flatMap(([bikeId, bike]) =>
    bike.reported.flatMap((each, i) => dayOfReported(`reported ${bikeId}/${i}`, bikeId, bike, each) ?? []),
  );
}

/**
 * Bikes in order under a reference, from one posterior over all their tests, the least Wh per metre first.
 *
 * @param referenceFor the reference for a bike; the same for all where it is a set by name
 */
export function rankUnder(
  tests: readonly Compared[],
  referenceFor: (compared: Compared) => Reference,
): RankingUnder {
  const desk = deskPosterior([
    ...tests.flatMap((compared) => deskDayOf(compared) ?? []),
    ...reportedOf(tests),
  ]);
  const groups = new Map<string, Compared[]>();
  for (const compared of tests.filter((each) => deskDayOf(each) !== null)) {
    const { bikeId, ridden } = compared;
    const { tyreClass, posture, tyre, pressurePa } = ridden.setUp ?? {};
    const key = JSON.stringify([bikeId, tyreClass, posture, tyre, pressurePa, ridden.test.drive]);
    groups.set(key, [...(groups.get(key) ?? []), compared]);
  }
  const rows = [...groups].map(([id, group]) => {
    const [first] = group;
    const under = broughtTo(desk, subjectOf(there(first)), referenceFor(there(first)));
    return { id, figure: under.traced, under, group };
  });
  const { places, swaps } = standings(rows, "less", Infinity, 0);
  const ranked = places.map(({ place, possible, row: { under, group } }): Ranked => {
    const { bike, setUp, test } = nth(group, 0).ridden;
    return {
      ...{ place, possible, under, bike: bike.name, setUp: setUp?.name ?? null, drive: test.drive },
      tests: group.map(({ id }) => id),
      behindNext: swaps.find(({ upper }) => upper === place)?.chance ?? null,
    };
  });
  return { desk, ranked };
}
