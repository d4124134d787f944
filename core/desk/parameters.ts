import { there, DEFAULTS, type Estimate } from "#core/base";
import { roadOf, type Riding } from "#core/bike";
import type { DeskPosterior } from "./posterior.ts";
import { kindSpread } from "./spreads.ts";
import type { SharedUnknown } from "./types.ts";
import { unknownsOfMount, type Mount } from "./unknownsOf.ts";

/** Something the desk believes of a bike, in its own unit, against what is assumed of its kind. */
export interface BikeParameter {
  readonly name: string;
  readonly value: Estimate;
  readonly assumed: Estimate;
  /** Its sd as a share of the assumption's: 1 where nothing was learned. */
  readonly left: number;
}

/** What a desk believes of a bike as it is set up: rolling, drag, motor, and what the road load does not say of it. */
export function parametersOf(
  desk: DeskPosterior,
  mount: Mount,
  riding: Pick<Riding, "bike" | "setUp">,
): readonly BikeParameter[] {
  const road = roadOf(riding);
  const of: Partial<Record<SharedUnknown["kind"], readonly [name: string, assumed: number, share: number]>> =
    {
      rolling: ["rolling resistance on asphalt", road.crr, DEFAULTS.rollingSdShare],
      drag: ["drag area, m2", road.cdA, DEFAULTS.dragSdShare],
      motor: ["battery to the motor's shaft", road.etaM, Math.SQRT2 * DEFAULTS.efficiencySdShare],
      model: ["what it takes beside that, times", 1, DEFAULTS.bikeModelSdShare],
    };
  return unknownsOfMount(mount, []).flatMap((unknown): readonly BikeParameter[] => {
    const told = of[unknown.kind];
    if (!told) return [];
    const [name, mean, share] = told;
    const spread = kindSpread(unknown.kind, desk.spreads);
    const { mean: z, effects } = desk.figure([unknown], ([each]) => there(each));
    const sd = Math.hypot(...Object.values(effects));
    const now = mean * Math.exp(share * z);
    return [
      {
        name,
        value: { mean: now, sd: now * share * sd },
        assumed: { mean, sd: mean * share * spread },
        left: sd / spread,
      },
    ];
  });
}
