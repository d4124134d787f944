import { ok, err, type Result, MPS_PER_MPH, bisect, meanOf } from "#core/base";
import { courseEnergy, type CourseConditions, type RoadBike } from "#core/bike";

/** What a claimed range asks for. */
export interface ClaimAudit {
  /** Label energy over the claimed miles, Wh/mi. */
  readonly impliedWhPerMi: number;
  /** Measured over implied: 1.5 is half as much again. */
  readonly ratio: number;
  /** What the rider must give for the claim to hold, other things as in the reference, W; 0 when it holds already; null when not even the most would do. */
  readonly riderW: number | null;
  /** The highest speed at which it holds, mph; null when none does. */
  readonly speedMph: number | null;
}

const MOST_RIDER_W = 500;
const SPEEDS_MPH = [4, 40] as const;
const STEP_MPH = 0.1;
const HALVINGS = 60;

/** Where something that falls meets a level, between two bounds. */
const meets = (low: number, high: number, falls: (x: number) => number, level: number): number =>
  meanOf(bisect(low, high, HALVINGS, (x) => falls(x) > level));

/**
 * Audits a claim: the energy per mile it implies, how far the measured figure is from it, and which rider power or speed,
 * other things as in the reference, makes lambda M meet it. Above the speed at which the motor rests nothing counts as
 * frugal. Source: docs/method.md.
 *
 * @param measuredWhPerMi as published; @param claimMi miles on the whole label; @param lambda measured over modelled of the
 *   bike's own test; 1 where the road load is taken as it is
 * @example 65 mi of 612 Wh against 14.2 Wh/mi under House: implied 9.415, ratio 1.508, 115 W from the rider, 12.1 mph
 */
export function auditClaim(
  labelWh: number,
  claimMi: number,
  measuredWhPerMi: number,
  reference: CourseConditions,
  bike: RoadBike = {},
  lambda = 1,
): Result<ClaimAudit> {
  if (!(courseEnergy(reference, bike) > 0))
    return err("no-motor", "reference", "Under the reference the motor gives nothing: choose another.");
  const impliedWhPerMi = labelWh / claimMi;
  const byRider = (riderW: number) => lambda * courseEnergy({ ...reference, riderW }, bike);
  const bySpeed = (mph: number) => lambda * courseEnergy({ ...reference, speedMps: mph * MPS_PER_MPH }, bike);
  const riderW =
    byRider(0) <= impliedWhPerMi
      ? 0
      : byRider(MOST_RIDER_W) > impliedWhPerMi
        ? null
        : meets(0, MOST_RIDER_W, byRider, impliedWhPerMi);
  const [least, fastest] = SPEEDS_MPH;
  const most = Math.min(fastest, (bike.assistToMps ?? Infinity) / MPS_PER_MPH);
  let speedMph: number | null = null;
  for (let mph = most; mph >= least - 1e-9 && speedMph === null; mph -= STEP_MPH)
    if (bySpeed(mph) <= impliedWhPerMi) {
      const above = Math.min(most, mph + STEP_MPH);
      // It holds here and not a step above: the speed between, where the use has risen to it.
      speedMph = above === mph ? mph : -meets(-above, -mph, (slower) => bySpeed(-slower), impliedWhPerMi);
    }
  return ok({ impliedWhPerMi, ratio: measuredWhPerMi / impliedWhPerMi, riderW, speedMph });
}
