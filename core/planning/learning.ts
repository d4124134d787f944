import { worthDoing } from "#core/estimation";
import { sharesOfUnknowns, slopedVariance, type Sloped } from "#core/forecast";
import type { Known, Untold } from "./known.ts";

/** Something to tell of an earlier test, and the forecast's sd once it is told, Wh per metre. */
export interface Learning extends Untold {
  readonly sdLeft: number;
}

/** Least share of the sd that something must take away to be named: telling costs no ride. */
const WORTH_TELLING = 0.02;
const MOST = 3;

/**
 * What would make a forecast surer without another ride: what is still untold of the bike's earlier tests, by what each
 * minute takes off its sd. `[]` when nothing would by a fiftieth.
 *
 * @param energy of the way, Wh, with its slopes; @param sd of its figure now, Wh per metre; @param overM the way, m
 */
export function learningOf(
  { knowledge, untold }: Known,
  energy: Sloped,
  sd: number,
  overM: number,
): readonly Learning[] {
  const now = slopedVariance(energy, knowledge);
  const told = untold.map(({ covariance, ...each }): Learning => {
    const less = (now - slopedVariance(energy, { ...knowledge, covariance })) / (overM * overM);
    return { ...each, sdLeft: Math.sqrt(Math.max(0, sd * sd - less)) };
  });
  return worthDoing(sd, told, WORTH_TELLING).slice(0, MOST);
}

/** What a field of the plan would settle; of all else a test of the bike tells more. */
const SETTLED_BY: ReadonlyMap<string, string> = new Map([
  ["rider", "type the watts, or a heart rate on the rider's line"],
  ["what an effort means", "type the watts, or ride with a heart-rate line"],
  ["wind", "type the wind and where it comes from"],
  ["speed", "type the speed held"],
  ["stops", "type the stops a mile"],
  ["weight", "weigh bike, rider and load"],
]);
/** Parts of a spread that are named: as many, and none smaller. */
const MOST_PARTS = 3;
const LEAST_PART = 0.1;

/** A part of a forecast's spread, as a share of its variance, and what would settle it. */
export interface SpreadPart {
  readonly name: string;
  readonly share: number;
  readonly settledBy: string;
}

/** What most of a forecast's spread is made of beside pack and road, the largest first. */
export const spreadParts = (energy: Sloped, { knowledge }: Known): readonly SpreadPart[] =>
  sharesOfUnknowns(energy, knowledge)
    .filter(({ share }) => share >= LEAST_PART)
    .slice(0, MOST_PARTS)
    .map((part) => ({ ...part, settledBy: SETTLED_BY.get(part.name) ?? "a test of this bike tells more" }));
