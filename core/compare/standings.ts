import { normalCdf, type Uncertain } from "#core/quantities";

export interface StandingInput {
  readonly id: string;
  readonly whPerM: Uncertain;
}

export interface Standing<T extends StandingInput> {
  readonly place: number;
  readonly row: T;
}

/** Two neighbours whose order is not sure. */
export interface Swap {
  readonly upper: number;
  readonly lower: number;
  /** Chance that the lower place is really the thriftier, taking the two as independent. */
  readonly chance: number;
}

/** Neighbours with at least this chance of standing the other way round are named. */
const WORTH_SAYING = 0.1;

/** Tests from thriftiest to hungriest, with the neighbouring places that could well be swapped. */
export function standings<T extends StandingInput>(
  rows: readonly T[],
): { readonly places: readonly Standing<T>[]; readonly swaps: readonly Swap[] } {
  const sorted = [...rows].sort((a, b) => a.whPerM.mean - b.whPerM.mean);
  const swaps = sorted.slice(1).flatMap((row, i) => {
    const upper = sorted[i]!.whPerM;
    const sd = Math.hypot(upper.sd, row.whPerM.sd);
    const chance = sd > 0 ? normalCdf(-(row.whPerM.mean - upper.mean) / sd) : 0;
    return chance >= WORTH_SAYING ? [{ upper: i + 1, lower: i + 2, chance }] : [];
  });
  return { places: sorted.map((row, i) => ({ place: i + 1, row })), swaps };
}
