import { courseEnergy, type CourseConditions, type RoadBike } from "#core/bike";
import { auditClaim } from "#core/analysis/projection";
import {
  nth,
  fixed,
  METRES_PER_MILE,
  MPS_PER_MPH,
  certaintyOf,
  type Certainty,
  chanceAbove,
  spanOf,
  unitToken,
  type Estimate,
  LIKELY,
  oddsText,
} from "#core/base";
import type { Claim } from "#core/records";

/** Exceeded: beyond its upper end. Met: its lower end is reached. Each, and not met, with four in five and more. */
export type Verdict = "exceeded" | "met" | "open" | "not met";

/** A claim against a range under some conditions. */
export interface ClaimLine {
  /** "as ridden", "as stated", or the reference's name. */
  readonly under: string;
  readonly range: Estimate;
  /** Chance that the range reaches the claim's lower end, and its upper. */
  readonly chanceLow: number;
  readonly chanceHigh: number;
  readonly verdict: Verdict;
  readonly certainty: Certainty;
  readonly sentence: string;
}

/** What one end of a claim asks for. */
export interface ClaimEnd {
  readonly claimM: number;
  /** Wh per metre that the label's energy would have to be spent at. */
  readonly impliedWhPerM: number;
  /** Measured over implied. */
  readonly ratio: number;
}

/** A claim against what was measured. */
export interface ClaimReport {
  readonly claim: Claim;
  readonly low: ClaimEnd;
  readonly high: ClaimEnd;
  /** As ridden first, then as stated where the claim says how, then under the reference. */
  readonly lines: readonly ClaimLine[];
  /** What would make it true, where that is within reason. */
  readonly needs: readonly string[];
}

/** A range on a pack under some conditions, m. */
export interface RangeUnder {
  readonly under: string;
  readonly range: Estimate;
}

export interface ClaimInput {
  readonly labelWh: number;
  readonly ranges: readonly RangeUnder[];
  /** Under the reference, Wh per metre. */
  readonly whPerM: Estimate;
  readonly conditions: CourseConditions;
  readonly bike: RoadBike;
}

/** A rider or a speed beyond these makes no claim true. */
const SANE = { mostW: 400, leastMps: 4 * MPS_PER_MPH } as const;

const distance = (metres: number) => unitToken(metres, "distance", 0);

/** "45 mi", or "40 mi to 60 mi". */
const claimText = ({ lowM, highM }: Claim) =>
  lowM === highM ? distance(lowM) : `${distance(lowM)} to ${distance(highM)}`;

/** Whether a claim is one for a drive: one without a mode is for every drive. */
export const isClaimFor = ({ mode }: Claim, throttle: boolean): boolean =>
  mode.trim() === "" || /throttle/i.test(mode) === throttle;

/**
 * A verdict in words.
 *
 * @example verdictText({ verdict: "met", certainty: "likely" }) === "likely met"
 */
export const verdictText = ({ verdict, certainty }: Pick<ClaimLine, "verdict" | "certainty">): string =>
  certainty === "likely" ? `likely ${verdict}` : verdict;

/** What is said of a claim against one range: whether it is met, and with what chance. */
export function claimLine(claim: Claim, { under, range }: RangeUnder): ClaimLine {
  const span = spanOf(range);
  const [chanceLow, chanceHigh] = [chanceAbove(range, claim.lowM), chanceAbove(range, claim.highM)];
  const single = claim.lowM === claim.highM;
  const verdict: Verdict =
    !single && chanceHigh >= LIKELY
      ? "exceeded"
      : chanceLow >= LIKELY
        ? "met"
        : chanceLow <= 1 - LIKELY
          ? "not met"
          : "open";
  const measured = `${distance(span.low)} to ${distance(span.high)}`;
  const chances = [
    `${distance(claim.lowM)} is reached with ${oddsText(chanceLow)}`,
    ...(single || verdict === "not met" ? [] : [`${distance(claim.highM)} with ${oddsText(chanceHigh)}`]),
  ];
  return {
    ...{ under, range, chanceLow, chanceHigh, verdict },
    certainty: certaintyOf(verdict === "exceeded" ? chanceHigh : chanceLow),
    sentence: `${nth(under, 0).toUpperCase()}${under.slice(1)}: ${measured}, claimed ${claimText(claim)}. ${chances.join(", ")}.`,
  };
}

/** What an end needs under the reference, in a sentence; null when it holds already, or nothing within reason would do. */
function needs(claimM: number, { labelWh, whPerM, conditions, bike }: ClaimInput): string | null {
  const modelled = courseEnergy(conditions, bike);
  const audit = auditClaim(
    labelWh,
    claimM / METRES_PER_MILE,
    whPerM.mean * METRES_PER_MILE,
    conditions,
    bike,
    (whPerM.mean * METRES_PER_MILE) / modelled,
  );
  if (!audit.ok || audit.value.ratio <= 1) return null;
  const { riderW, speedMph } = audit.value;
  const held = unitToken(conditions.speedMps, "speed", 0);
  const speedMps = speedMph === null ? null : speedMph * MPS_PER_MPH;
  const ways = [
    ...(riderW !== null && riderW > 0 && riderW < SANE.mostW
      ? [`${fixed(riderW, 0)} W from the rider at ${held}`]
      : []),
    ...(speedMps !== null && speedMps >= SANE.leastMps
      ? [`no more than ${unitToken(speedMps, "speed", 1)}`]
      : []),
  ];
  return ways.length ? `${distance(claimM)} needs ${ways.join(", or ")}.` : null;
}

/**
 * A claim against the range as ridden, as its maker states it was, and under the reference; what it implies, and what would
 * make it true. Source: docs/method.md.
 */
export function claimReport(claim: Claim, input: ClaimInput): ClaimReport {
  const endOf = (claimM: number): ClaimEnd => {
    const impliedWhPerM = input.labelWh / claimM;
    return { claimM, impliedWhPerM, ratio: input.whPerM.mean / impliedWhPerM };
  };
  const ends = claim.lowM === claim.highM ? [claim.lowM] : [claim.lowM, claim.highM];
  return {
    claim,
    low: endOf(claim.lowM),
    high: endOf(claim.highM),
    lines: input.ranges.map((range) => claimLine(claim, range)),
    needs: ends.flatMap((claimM) => needs(claimM, input) ?? []),
  };
}
