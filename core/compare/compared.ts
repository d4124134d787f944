import type { Riding } from "#core/bike";
import { capacityShareOf, dayOfTest, type DeskDay } from "#core/desk";
import type { Test } from "#core/records";
import type { TestResults } from "#core/analysis";

/** A test that has its result, and who rode what. */
export interface RiddenTest extends Riding {
  readonly test: Test;
  readonly results: Pick<
    TestResults,
    | "best"
    | "parts"
    | "meanSpeedMps"
    | "climbM"
    | "slopes"
    | "distance"
    | "noted"
    | "budget"
    | "packLearned"
    | "capacity"
  >;
}

/** A test as comparisons take it. */
export interface Compared {
  readonly id: string;
  readonly bikeId: string;
  /** Null where nobody is named. */
  readonly riderId: string | null;
  readonly packId: string;
  readonly ridden: RiddenTest;
}

/** One part of a test: a level, a ground, or both. */
export type PartOf = (level: string, ground: string) => boolean;

/** Days already made: the same test is the same day, so that a desk that changed is solved from where it stood. */
const DAYS = new WeakMap<Compared, DeskDay | null>();

/** A test as a day of the desk; null where no part of it is known, or no reading bears it. */
export function deskDayOf(compared: Compared): DeskDay | null {
  const known = DAYS.get(compared);
  if (known !== undefined) return known;
  const { id, bikeId, riderId, packId, ridden } = compared;
  const { best } = ridden.results;
  const whPerM = best.value;
  const day = best.pencil
    ? null
    : dayOfTest({
        id,
        bikeId,
        riderId,
        packId,
        ridden,
        whPerM,
        capacityShare: capacityShareOf(ridden.results),
      });
  DAYS.set(compared, day);
  return day;
}
