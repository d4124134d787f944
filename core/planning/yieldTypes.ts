import type { Estimate } from "#core/base";

/** One thing that would make the figure surer. */
export interface Addition {
  readonly what: string;
  /** A person's time, min. */
  readonly minutes: number;
  /** Sd it would leave, Wh per metre. */
  readonly sdLeft: number;
  readonly gainPerMinute: number;
}

/** What a comparison will tell apart. */
export interface ComparisonYield {
  /** Runs in order, by name. */
  readonly order: readonly string[];
  /** Of the difference, Wh per metre. */
  readonly sd: number;
  readonly wanted: number;
  /** The wanted difference is over two sds. */
  readonly resolved: boolean;
  /** Runs of each that would resolve it on this section; null when one charge does not hold them. */
  readonly pairsNeeded: number | null;
  /** Length of section that would resolve it with these runs, m; null likewise. */
  readonly sectionNeededM: number | null;
}

/** What a plan costs and what it will leave, by the ledger of the readings it would yield. */
export interface PlanYield {
  readonly rideS: number;
  /** Riding, rests and handling, min. */
  readonly minutes: number;
  readonly energyWh: number;
  /** Of the usable energy. */
  readonly chargeShare: number;
  /** Energy per metre with the plus-or-minus left; null where the method measures something else. */
  readonly whPerM: Estimate | null;
  readonly comparison: ComparisonYield | null;
  /** Usable energy with the plus-or-minus a bench leaves, Wh. */
  readonly bench: Estimate | null;
  readonly surer: readonly Addition[];
}
