import { rideEnergy, shapleySplit, type Reference, type Ride, type RideConditions } from "#core/bike";
import { rideUnder, unknownsOfMount, withUnknowns, type DeskPosterior } from "#core/desk";
import type { Compared } from "../compared.ts";
import { subjectOf } from "../normalise/normaliseTo.ts";

/** What of two bikes makes them differ under one reference, and by how much, Wh per metre: A less B. */
export interface Why {
  readonly what: "weight" | "rolling" | "drag" | "motor and drive" | "assist" | "other";
  readonly whPerM: number;
}

/** What of a bike's conditions each part is. */
const PARTS: Readonly<Record<Why["what"], readonly (keyof RideConditions)[]>> = {
  weight: ["massKg"],
  rolling: ["crr", "crrBy"],
  drag: ["cdA"],
  "motor and drive": ["etaM", "etaD", "motorW"],
  assist: ["assistToMps", "riderW"],
  other: ["energyFactor"],
};
const NAMES = Object.keys(PARTS) as readonly Why["what"][];
/** Less than this share of a figure is not worth a word. */
const WORTH_SAYING = 0.01;

/** A bike under a reference, as the desk now believes it. */
function believed(desk: DeskPosterior, compared: Compared, reference: Reference): Ride {
  const subject = subjectOf(compared);
  const ride = rideUnder(subject, reference);
  const unknowns = unknownsOfMount(
    subject,
    ride.legs.map(({ ground }) => ground),
  );
  return withUnknowns(
    ride,
    unknowns,
    unknowns.map(({ key }) => desk.valueOf(key)),
  );
}

/**
 * Why two bikes differ under a reference: their difference split among weight, rolling, drag, motor and what is left, after
 * Shapley, the largest first. What is worth less than a hundredth of the figure is left out.
 */
export function whyUnder(
  desk: DeskPosterior,
  a: Compared,
  b: Compared,
  reference: Reference,
): readonly Why[] {
  const [first, second] = [believed(desk, a, reference), believed(desk, b, reference)];
  const base = rideEnergy(second);
  const split = shapleySplit(NAMES, (changed) => {
    const own = Object.fromEntries(
      [...changed].flatMap((name) => PARTS[name].map((key) => [key, first.conditions[key]] as const)),
    );
    return rideEnergy({ ...second, conditions: { ...second.conditions, ...own } });
  });
  return split
    .map(([what, whPerM]): Why => ({ what, whPerM }))
    .filter(({ whPerM }) => Math.abs(whPerM) > WORTH_SAYING * base)
    .sort((x, y) => Math.abs(y.whPerM) - Math.abs(x.whPerM));
}
