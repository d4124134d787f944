import {
  err,
  ok,
  type Result,
  METRES_PER_MILE,
  type DimensionName,
  type System,
  type Estimate,
  unitOf,
} from "#core/base";
import type { PackOption } from "./options.ts";
import { mapComponents, weightedSum, type ErrorComponents } from "../errorComponents.ts";

interface Spec {
  /** As a person calls it. */
  readonly title: string;
  readonly dimension: DimensionName;
  /** The unit shown, where the measure itself names it; else the reader's own. */
  readonly unit?: string;
  readonly better: "less" | "more";
}

/** What standings can be put in, as a table: a new one is a row here and its arithmetic below. */
const SPECS = {
  whPerMi: { title: "Wh/mi", dimension: "energyPerDistance", unit: "Wh/mi", better: "less" },
  whPerKm: { title: "Wh/km", dimension: "energyPerDistance", unit: "Wh/km", better: "less" },
  milesPerKwh: { title: "mi/kWh", dimension: "distancePerEnergy", unit: "mi/kWh", better: "more" },
  rangeOwn: { title: "range on its own pack", dimension: "distance", better: "more" },
  rangeCommon: { title: "range on a common pack", dimension: "distance", better: "more" },
  whPerClimb: { title: "Wh per vertical metre", dimension: "energyPerClimb", unit: "Wh/m", better: "less" },
  climbCommon: { title: "climb on a common pack", dimension: "climb", better: "more" },
  pricePerMile: { title: "price per added mile", dimension: "pricePerDistance", better: "less" },
} as const satisfies Readonly<Record<string, Spec>>;

export type MeasureName = keyof typeof SPECS;
export const MEASURE: Readonly<Record<MeasureName, Spec>> = SPECS;
export const MEASURES = Object.keys(SPECS) as readonly MeasureName[];

/** The unit a measure is shown in. */
export const unitOfMeasure = (name: MeasureName, system: System) =>
  MEASURE[name].unit ?? unitOf(MEASURE[name].dimension, system);

/** What a figure is put in other measures by. */
export interface MeasureBasis {
  /** Usable energy of its own pack under the same conditions, Wh. */
  readonly capacity: ErrorComponents | null;
  /** Metres climbed for each metre of way; null where nobody measured it. */
  readonly climbPerM: number | null;
  readonly option: Pick<PackOption, "addedWh" | "addedMinor"> | null;
  /** Energy of the common pack, Wh. */
  readonly commonWh: number;
}

/** Least climb that is worth dividing by, m per mile. */
const LEAST_CLIMB_M_PER_MI = 5;

/** A pack's usable energy, whose error figures measured on it share. */
export const onPack = (packId: string, { mean, sd }: Estimate): ErrorComponents => ({
  mean,
  effects: { [`capacity:${packId}`]: sd },
});

/** Range of a pack whose capacity's error the figure shares, m. Source: docs/method.md. */
function rangeOf(whPerM: ErrorComponents, capacity: ErrorComponents): ErrorComponents {
  const { mean } = whPerM;
  const byFigure = mapComponents(whPerM, (x) => capacity.mean / x, -capacity.mean / mean ** 2);
  return weightedSum([
    [byFigure, 1],
    [{ ...capacity, mean: 0 }, 1 / mean],
  ]);
}

/**
 * A figure in Wh per metre put in another measure, its errors carried along: SI, metres per Wh, metres, Wh per metre
 * climbed, minor units per metre.
 *
 * @returns a problem where the measure has nothing to go by
 */
export function inMeasure(
  name: MeasureName,
  whPerM: ErrorComponents,
  basis: MeasureBasis,
): Result<ErrorComponents> {
  const { mean } = whPerM;
  const inverse = (factor: number) => mapComponents(whPerM, (x) => factor / x, -factor / mean ** 2);
  const climb = basis.climbPerM ?? 0;
  const flat = climb * METRES_PER_MILE < LEAST_CLIMB_M_PER_MI;
  const noClimb = err<ErrorComponents>(
    "no-climb",
    "measure",
    basis.climbPerM === null
      ? "Nobody measured its climb: import a track with heights, or choose a reference that climbs."
      : "There is hardly any climb: choose a hillier reference, or Wh/mi.",
  );
  switch (name) {
    case "whPerMi":
    case "whPerKm":
      return ok(whPerM);
    case "milesPerKwh":
      return ok(inverse(1));
    case "rangeOwn":
      return basis.capacity
        ? ok(rangeOf(whPerM, basis.capacity))
        : err("no-capacity", "measure", "Its pack's energy is not known.");
    case "rangeCommon":
      return ok(inverse(basis.commonWh));
    case "whPerClimb":
      return flat ? noClimb : ok(mapComponents(whPerM, (x) => x / climb, 1 / climb));
    case "climbCommon":
      return flat ? noClimb : ok(inverse(basis.commonWh * climb));
    case "pricePerMile": {
      const { option } = basis;
      if (!option || option.addedMinor === null || !(option.addedMinor * option.addedWh > 0))
        return err(
          "no-option",
          "measure",
          "Type the prices of two packs of the bike, or what one costs more than the other.",
        );
      const perWh = option.addedMinor / option.addedWh;
      return ok(mapComponents(whPerM, (x) => x * perWh, perWh));
    }
  }
}
