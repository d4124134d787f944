import { birgeRatio, estimateOf, rideFigure, type Solved } from "#core/estimation";
import { widen, withRelative, type Estimate } from "#core/base";

/** A solved ledger with what turns its figures into the answer's: widened, with the distance's own error. */
export interface Reckoning {
  readonly solved: Solved;
  /** Factor of every sd, where readings disagree. */
  readonly wide: number;
  perMetre(whPerM: Estimate): Estimate;
}

/** @param distanceRelativeSd of the distance ridden */
export function reckoning(solved: Solved, distanceRelativeSd: number): Reckoning {
  const wide = birgeRatio(solved.posterior);
  return {
    solved,
    wide,
    perMetre: (value) => withRelative(widen(value, wide), distanceRelativeSd),
  };
}

/** Energy per distance as the ledger has it, Wh per metre. */
export const bestOf = ({ solved, perMetre }: Reckoning) =>
  perMetre(estimateOf(solved, rideFigure(solved, 0)));
