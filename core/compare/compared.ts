import type { Knowledge } from "#core/forecast";
import type { Ground } from "#core/log";
import type { RiddenTest } from "#core/plan";

/** What a fit of a bike's own sweeps and climbs says of its road load. */
export interface FittedBike {
  /** Mean and covariance of rolling, drag and motor, in sds of their assumptions. */
  readonly knowledge: Knowledge;
  /** Rolling resistance by ground, where it was ridden; the same the assumptions' way elsewhere. */
  readonly crrBy: Readonly<Partial<Record<Ground, number>>>;
}

/** A test as comparisons take it. */
export interface Compared {
  readonly id: string;
  readonly bikeId: string;
  readonly packId: string;
  readonly ridden: RiddenTest;
  /** The bare bike, kg; assumed where nobody weighed it. */
  readonly bikeKg: number;
  readonly fitted: FittedBike | null;
}

/** One part of a test: a level, a ground, or both. */
export type PartOf = (level: string, ground: string) => boolean;
