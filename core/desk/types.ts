import type { Estimate } from "#core/base";

/** What a shared unknown is of; the first four have a spread that the desk learns. */
export type UnknownKind =
  "rolling" | "drag" | "motor" | "habit" | "line" | "model" | "tyres" | "capacity" | "ground" | "published";

/** Kinds whose bikes or riders may scatter more, or less, than is assumed. */
export const LEARNED_KINDS = ["rolling", "drag", "motor", "habit"] as const satisfies readonly UnknownKind[];
export type LearnedKind = (typeof LEARNED_KINDS)[number];
export type Spreads = Readonly<Record<LearnedKind, number>>;

/** Something that several days do not know alike, as a normal: of a bike, a rider, a pack, a meter, a ground. */
export interface SharedUnknown {
  /** "rolling:BIKE/city". */
  readonly key: string;
  readonly kind: UnknownKind;
}

/** Values and slopes of a day's observations at a place of its unknowns. */
export interface Linearised {
  /** By observation. */
  readonly value: readonly number[];
  /** By observation, then by unknown, for one sd. */
  readonly byShared: readonly (readonly number[])[];
  readonly byOwn: readonly (readonly number[])[];
}

/**
 * What one day measured: readings that are functions of unknowns it shares with other days, and of its own, all of them
 * standard normals (a shared one times its kind's spread).
 */
export interface DeskDay {
  readonly id: string;
  /** The bike: what only its days share is solved within it. */
  readonly home: string;
  readonly shared: readonly SharedUnknown[];
  /** Names of its own unknowns. */
  readonly own: readonly string[];
  readonly measured: readonly Estimate[];
  readonly linearise: (shared: readonly number[], own: readonly number[]) => Linearised;
}
