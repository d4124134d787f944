import { DEFAULTS, err, ok, type Result } from "#core/base";
import type { Ground } from "#core/fields";
import { courseEnergy, type CourseConditions, type RoadBike } from "./course.ts";
import { shapleySplit } from "./shapley.ts";

/** What may differ between two rides, each with the conditions that belong to it. */
export const FACTORS = {
  mass: ["massKg"],
  wind: ["headwindMps"],
  climb: ["gainMPerMi", "lossMPerMi"],
  air: ["tempC", "altitudeM"],
  speed: ["speedMps"],
  ground: ["ground"],
  rider: ["riderW"],
  stops: ["stopsPerMi"],
  lights: ["lightsOn"],
} as const satisfies Record<string, readonly (keyof CourseConditions)[]>;
export type Factor = keyof typeof FACTORS;
const NAMES = Object.keys(FACTORS) as readonly Factor[];

/** A factor that changes the figure by more than this share was never tested: the answer is drawn hollow. */
const FAR_SHARE = 0.25;

type Whole = { readonly [Key in keyof CourseConditions]-?: NonNullable<CourseConditions[Key]> };

/** Conditions with nothing left open. */
function whole(conditions: CourseConditions): Whole {
  const { gainMPerMi = 0 } = conditions;
  return {
    massKg: conditions.massKg,
    speedMps: conditions.speedMps,
    ground: conditions.ground ?? ("asphalt" satisfies Ground),
    headwindMps: conditions.headwindMps ?? 0,
    gainMPerMi,
    lossMPerMi: conditions.lossMPerMi ?? gainMPerMi,
    stopsPerMi: conditions.stopsPerMi ?? 0,
    tempC: conditions.tempC ?? DEFAULTS.packTempC,
    altitudeM: conditions.altitudeM ?? 0,
    lightsOn: conditions.lightsOn ?? false,
    riderW: conditions.riderW ?? 0,
  };
}

export interface Normalised {
  /** Modelled Wh/mi under the test's conditions and under the reference. */
  readonly modelTest: number;
  readonly modelReference: number;
  /** Measured over modelled. */
  readonly lambda: number;
  /** Wh/mi under the reference. */
  readonly normalised: number;
  /** What each differing factor adds, Wh/mi: sums to normalised less measured. */
  readonly bridge: Readonly<Partial<Record<Factor, number>>>;
  /** Factors that change the figure by so much that the answer lies outside what was tested. */
  readonly beyond: readonly Factor[];
}

/**
 * Brings a measured figure from its test's conditions to a reference: lambda = measured / M(test), normalised =
 * lambda M(reference), where M is the road load's energy per mile; and splits the way between them over what differs.
 * Source: docs/method.md.
 *
 * @param measuredWhPerMi Wh/mi; @param test and reference: masses in kg, speeds and winds in m/s, climb in m per mile
 * @returns a problem when the motor gives nothing under the test's conditions, since no share of nothing can be taken
 * @example 18.4 Wh/mi at 121 kg, 16.5 mph in wind and cold is 11.62 Wh/mi under House
 */
export function normalise(
  measuredWhPerMi: number,
  test: CourseConditions,
  reference: CourseConditions,
  bike: RoadBike = {},
): Result<Normalised> {
  const [from, to] = [whole(test), whole(reference)];
  const { assistToMps = Infinity } = bike;
  if (from.speedMps > assistToMps)
    return err(
      "unassisted-test",
      "test.speedMps",
      "The test was ridden above the speed at which the motor rests: nothing of it can be brought to other conditions.",
    );
  if (to.speedMps > assistToMps)
    return err(
      "unassisted-reference",
      "reference.speedMps",
      `The bike cannot hold the reference's speed with its motor: it rests above ${assistToMps.toFixed(2)} m/s. Choose a slower reference.`,
    );
  const modelTest = courseEnergy(from, bike);
  if (!(modelTest > 0))
    return err(
      "no-motor",
      "test",
      "By the road load the motor gave nothing on this test: check rider power and speed.",
    );
  const differing = NAMES.filter((name) => FACTORS[name].some((key) => from[key] !== to[key]));
  const lambda = measuredWhPerMi / modelTest;
  const model = (changed: ReadonlySet<Factor>) => {
    const mixed: Record<string, unknown> = { ...from };
    for (const name of changed) for (const key of FACTORS[name]) mixed[key] = to[key];
    return courseEnergy(mixed as unknown as CourseConditions, bike);
  };
  const bars = shapleySplit(differing, model).map(([name, change]) => [name, lambda * change] as const);
  const modelReference = courseEnergy(to, bike);
  return ok({
    modelTest,
    modelReference,
    lambda,
    normalised: lambda * modelReference,
    bridge: Object.fromEntries(bars),
    beyond: bars.filter(([, bar]) => Math.abs(bar) > FAR_SHARE * measuredWhPerMi).map(([name]) => name),
  });
}
