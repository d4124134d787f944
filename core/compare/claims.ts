import { good, type Result } from "#core/problems";
import { METRES_PER_MILE, MPS_PER_MPH, quantityToken, SDS_95, type Uncertain } from "#core/quantities";
import { auditClaim } from "#core/projection";
import type { Claim } from "#core/records";
import type { CourseConditions, RoadBike } from "#core/roadload";

/** What one end of a claim asks for. */
export interface ClaimEnd {
  readonly claimM: number;
  /** Wh per metre that the label's energy would have to be spent at. */
  readonly impliedWhPerM: number;
  /** Measured over implied. */
  readonly ratio: number;
  readonly riderW: number | null;
  readonly speedMps: number | null;
}

/** A claim against what was measured. */
export interface ClaimReport {
  readonly claim: Claim;
  readonly low: ClaimEnd;
  readonly high: ClaimEnd;
  readonly verdict: "holds" | "within reach" | "short";
  /** For the reader, in sentences. */
  readonly sentences: readonly string[];
}

export interface ClaimInput {
  readonly labelWh: number;
  /** Under the reference, Wh per metre, and the range on the bike's own pack, m. */
  readonly whPerM: Uncertain;
  readonly range: Uncertain;
  /** Measured over modelled. */
  readonly lambda: number;
  readonly reference: string;
  readonly conditions: CourseConditions;
  readonly bike: RoadBike;
}

const distance = (metres: number) => quantityToken(metres, "distance", 0);

function endOf(claimM: number, input: ClaimInput): Result<ClaimEnd> {
  const { labelWh, whPerM, lambda, conditions, bike } = input;
  const audit = auditClaim(
    labelWh,
    claimM / METRES_PER_MILE,
    whPerM.mean * METRES_PER_MILE,
    conditions,
    bike,
    lambda,
  );
  if (!audit.ok) return audit;
  const { impliedWhPerMi, ratio, riderW, speedMph } = audit.value;
  return good({
    claimM,
    impliedWhPerM: impliedWhPerMi / METRES_PER_MILE,
    ratio,
    riderW,
    speedMps: speedMph === null ? null : speedMph * MPS_PER_MPH,
  });
}

/** What an end needs, in a sentence; null when it holds already. */
function needs({ claimM, riderW, speedMps, ratio }: ClaimEnd, { conditions }: ClaimInput): string | null {
  if (ratio <= 1) return null;
  const held = quantityToken(conditions.speedMps, "speed", 0);
  const rider =
    riderW === null
      ? `no rider: even 500 W at ${held} would not do`
      : riderW === 0
        ? "nothing more from the rider"
        : `${riderW.toFixed(0)} W from the rider at ${held}`;
  const slower = speedMps === null ? "" : `, or no more than ${quantityToken(speedMps, "speed", 1)}`;
  return `${distance(claimM)} needs ${rider}${slower}.`;
}

/**
 * A claim against the measured range: what it implies, how far it is off, and what would make it true. Source: docs/method.md.
 */
export function claimReport(claim: Claim, input: ClaimInput): Result<ClaimReport> {
  const low = endOf(claim.lowM, input);
  if (!low.ok) return low;
  const high = endOf(claim.highM, input);
  if (!high.ok) return high;
  const { range, reference } = input;
  const [least, most] = [range.mean - SDS_95 * range.sd, range.mean + SDS_95 * range.sd];
  const span =
    claim.lowM === claim.highM ? distance(claim.lowM) : `${distance(claim.lowM)} to ${distance(claim.highM)}`;
  const measured = `${distance(least)} to ${distance(most)} under ${reference}`;
  const verdict = least >= claim.lowM ? "holds" : most >= claim.lowM ? "within reach" : "short";
  const said = {
    holds: `The claim of ${span} holds: ${measured}.`,
    "within reach": `The claim of ${span} is not ruled out: ${measured}.`,
    short: `The claim of ${span} is not met: ${measured}, ${distance(claim.lowM - range.mean)} short of its lower end.`,
  }[verdict];
  const ends = claim.lowM === claim.highM ? [low.value] : [low.value, high.value];
  return good({
    claim,
    low: low.value,
    high: high.value,
    verdict,
    sentences: [said, ...ends.flatMap((end) => needs(end, input) ?? [])],
  });
}
