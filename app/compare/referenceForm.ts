import { z } from "zod";
import { choice, numberText, quantityText, readInto, tick } from "#app/ui/formText";
import { formatInput, unitOf, type DimensionName, type System } from "#core/base";
import { referenceSchema } from "#core/records";
import type { Reference } from "#core/bike";

/** A reference's form: texts as typed, read into the record it becomes. */
export const referenceForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      carriedKg: quantityText("mass", system),
      speedMps: quantityText("speed", system),
      ground: choice,
      headwindMps: quantityText("speed", system),
      gainMPerMi: numberText,
      stopsPerMi: numberText,
      tempC: quantityText("temperature", system),
      altitudeM: quantityText("climb", system),
      lightsOn: tick,
      riderW: numberText,
    }),
    referenceSchema,
  );

export const REFERENCE_FIELDS = [
  "name",
  "carriedKg",
  "speedMps",
  "ground",
  "headwindMps",
  "gainMPerMi",
  "stopsPerMi",
  "tempC",
  "altitudeM",
  "lightsOn",
  "riderW",
] as const;

/** A reference as its form's texts. */
export function referenceTexts(
  { name, carriedKg, conditions }: Reference,
  system: System,
): Readonly<Record<string, string>> {
  const shown = (value: number | undefined, dimension: DimensionName) =>
    value === undefined ? "" : formatInput(value, dimension, unitOf(dimension, system), 1);
  return {
    name,
    carriedKg: shown(carriedKg, "mass"),
    speedMps: shown(conditions.speedMps, "speed"),
    ground: conditions.ground ?? "asphalt",
    headwindMps: shown(conditions.headwindMps, "speed"),
    gainMPerMi: String(conditions.gainMPerMi ?? 0),
    stopsPerMi: String(conditions.stopsPerMi ?? 0),
    tempC: shown(conditions.tempC, "temperature"),
    altitudeM: shown(conditions.altitudeM, "climb"),
    lightsOn: conditions.lightsOn ? "on" : "",
    riderW: String(conditions.riderW ?? 0),
  };
}
