import { z } from "zod";
import { choice, numberText, quantityText, readInto, words } from "#app/ui/formText";
import { formatInput, stopwatchAt, stopwatchText, unitOf, type DimensionName, type System } from "#core/base";
import { climbSchema, type ClimbRecord } from "#core/records";

/** The time of a climb: as a stopwatch shows it, "3:24", or with a unit. */
const stopwatch = (system: System) =>
  z.preprocess(
    (text) => {
      const seconds = typeof text === "string" ? stopwatchAt(text) : null;
      return seconds === null ? text : `${seconds} s`;
    },
    quantityText("duration", system, "s"),
  );

/** A climb's form: texts as typed, read into the record it becomes. */
export const climbForm = (system: System) =>
  readInto(
    z.object({
      hill: choice,
      day: choice,
      lengthM: quantityText("distance", system),
      gainM: quantityText("climb", system),
      timeS: stopwatch(system),
      drive: choice,
      level: words,
      ground: choice,
      entrySpeedMps: quantityText("speed", system),
      energyWh: quantityText("energy", system),
      startPercent: numberText,
      endPercent: numberText,
      effort: choice,
      airTempC: quantityText("temperature", system),
      note: words,
    }),
    climbSchema,
  );

export const CLIMB_FIELDS = [
  "hill",
  "day",
  "lengthM",
  "gainM",
  "timeS",
  "drive",
  "level",
  "ground",
  "entrySpeedMps",
  "energyWh",
  "startPercent",
  "endPercent",
  "effort",
  "airTempC",
  "note",
] as const;

/** A climb as its form's texts; what is not known yet is empty. */
export function climbTexts(climb: Partial<ClimbRecord>, system: System): Readonly<Record<string, string>> {
  const shown = (value: number | undefined, name: DimensionName, unit = unitOf(name, system)) =>
    value === undefined ? "" : formatInput(value, name, unit, 2);
  const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
  return {
    hill: climb.hill ?? "",
    day: climb.day ?? "",
    lengthM: shown(climb.lengthM, "distance"),
    gainM: shown(climb.gainM, "climb"),
    timeS: climb.timeS === undefined ? "" : stopwatchText(climb.timeS),
    drive: climb.drive ?? "pedal",
    level: climb.level ?? "",
    ground: climb.ground ?? "asphalt",
    entrySpeedMps: shown(climb.entrySpeedMps, "speed"),
    energyWh: shown(climb.energyWh, "energy"),
    startPercent: plain(climb.startPercent),
    endPercent: plain(climb.endPercent),
    effort: climb.effort ?? "easy",
    airTempC: shown(climb.airTempC, "temperature"),
    note: climb.note ?? "",
  };
}
