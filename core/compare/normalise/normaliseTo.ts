import { rideEnergy, roadPower, type Reference, type Ride } from "#core/bike";
import {
  capacityShareOf,
  rideUnder,
  kindSpread,
  unknownsOfMount,
  withUnknowns,
  type DeskPosterior,
  type SharedUnknown,
  type Subject,
} from "#core/desk";
import { there, err, ok, type Result, type Estimate, bisect } from "#core/base";
import type { Compared } from "../compared.ts";
import { combine, type ErrorComponents } from "../errorComponents.ts";

/** A bike's figure under a reference, by all that the desk knows. */
export interface Normalised {
  /** Wh per metre under the reference. */
  readonly whPerM: Estimate;
  /** The same with its errors told apart. */
  readonly traced: ErrorComponents;
  /** What carries more than half of its variance: the answer is drawn hollow. */
  readonly beyond: readonly string[];
  /** Share of the variance by source, the largest first. */
  readonly sources: readonly { readonly name: string; readonly share: number }[];
  /** The speed that the motor holds where it does not hold the reference's, m/s; null where it does. */
  readonly heldMps: number | null;
  /** It holds it on the level, and not on the steepest of the reference's hills. */
  readonly heldUphill: boolean;
}

/** Unknowns in words. */
const WORDS: Readonly<Partial<Record<SharedUnknown["kind"], string>>> = {
  rolling: "rolling resistance",
  tyres: "these tyres",
  drag: "drag",
  motor: "motor and drive",
  model: "what the road load does not say of the bike",
  ground: "how hard the ground rolls",
};
/** A source with this share of the variance makes the answer hollow, where the desk has hardly narrowed it. */
const HOLLOW_SHARE = 0.5;
/** An unknown that keeps this share of its spread was not learned. */
const UNLEARNED = 0.9;
const HALVINGS = 40;

/** A test's bike as it is brought to a reference. */
export const subjectOf = ({ bikeId, ridden: { bike, setUp, test } }: Compared): Subject => ({
  bikeId,
  bike,
  setUp,
  drive: test.drive,
});

/** The fastest a motor holds on a slope, up to the speed wanted, m/s. */
function heldOn({ conditions, legs }: Ride, slope: number, wantedMps: number): number {
  const [leg] = legs;
  const limitMps = Math.min(wantedMps, conditions.assistToMps);
  const mostW = conditions.motorW[there(leg).level] ?? Infinity;
  const needs = (speedMps: number) => {
    const { ground } = there(leg);
    return roadPower({ ...conditions, slope, ground, speedMps, assistToMps: Infinity, unevenN: 0 }).motorW;
  };
  if (needs(limitMps) <= mostW) return limitMps;
  return bisect(0, limitMps, HALVINGS, (speedMps) => needs(speedMps) <= mostW)[0];
}

/** What a motor holds where it does not hold the speed wanted: on the level, else on the steepest of the way. */
function heldSpeed(ride: Ride, wantedMps: number): Pick<Normalised, "heldMps" | "heldUphill"> {
  const level = heldOn(ride, 0, wantedMps);
  if (level < wantedMps) return { heldMps: level, heldUphill: false };
  const steepest = Math.max(0, ...ride.slopes.flatMap(({ share, slope }) => (share > 0 ? [slope] : [])));
  const uphill = heldOn(ride, steepest, wantedMps);
  return { heldMps: uphill < wantedMps ? uphill : null, heldUphill: uphill < wantedMps };
}

/** A bike's figure under a reference, as the desk now believes. Source: docs/method.md. */
export function broughtTo(desk: DeskPosterior, subject: Subject, reference: Reference): Normalised {
  const ride = rideUnder(subject, reference);
  const unknowns = unknownsOfMount(
    subject,
    ride.legs.map(({ ground }) => ground),
  );
  const { mean, effects, byUnknown } = desk.figure(unknowns, (z) =>
    rideEnergy(withUnknowns(ride, unknowns, z)),
  );
  const traced = { mean, effects };
  const whole = Object.values(byUnknown).reduce((sum, each) => sum + each, 0);
  const sources = Object.entries(byUnknown)
    .map(([kind, variance]) => ({ kind, share: whole > 0 ? variance / whole : 0 }))
    .sort((a, b) => b.share - a.share);
  const nameOf = (kind: string) => WORDS[kind as SharedUnknown["kind"]] ?? kind;
  const isUnlearned = (kind: string) =>
    unknowns
      .filter((each) => each.kind === kind)
      .some(
        (each) =>
          combine(desk.figure([each], ([z]) => there(z))).sd > UNLEARNED * kindSpread(kind, desk.spreads),
      );
  return {
    whPerM: combine(traced),
    traced,
    beyond: sources
      .filter(({ kind, share }) => share > HOLLOW_SHARE && isUnlearned(kind))
      .map(({ kind }) => nameOf(kind)),
    sources: sources.map(({ kind, share }) => ({ name: nameOf(kind), share })),
    ...heldSpeed(ride, reference.conditions.speedMps),
  };
}

/** A test's bike under a reference; a problem where no figure of it is measured. */
export function normaliseTo(
  desk: DeskPosterior,
  compared: Compared,
  reference: Reference,
): Result<Normalised> {
  const known = desk.days.some(({ day }) => day.home === compared.bikeId);
  if (!known)
    return err(
      "no-reading",
      "test",
      "No figure of this bike is measured: note a percent, volts, bars or a counter on a test.",
    );
  return ok(broughtTo(desk, subjectOf(compared), reference));
}

/**
 * The usable energy of a test's pack at a temperature's own figure, with what the desk has learned of it: a pack that holds
 * more than believed went further on less.
 *
 * @param capacity as the test's ledger has it, Wh
 */
export function capacityUnder(desk: DeskPosterior, compared: Compared, capacity: Estimate): ErrorComponents {
  const share = capacityShareOf(compared.ridden.results);
  const unknown: SharedUnknown = { kind: "capacity", key: `capacity:${compared.packId}` };
  const { mean, effects } = desk.figure([unknown], ([z]) => capacity.mean * Math.exp(share * there(z)));
  const rest = Math.sqrt(Math.max(0, capacity.sd ** 2 - (capacity.mean * share) ** 2));
  return { mean, effects: { ...effects, [unknown.key]: Math.hypot(rest, effects[unknown.key] ?? 0) } };
}
