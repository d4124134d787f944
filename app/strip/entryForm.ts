import { z } from "zod";
import { entryBodySchema, type EntryBody, type LiveEntry } from "#core/ride/log";
import { formatInput, unitOf, type DimensionName, type System } from "#core/base";
import { choice, quantityText, tick, words } from "#app/ui/formText";

/** What a check-in can be, in the order of a ride. Ends carry their reason. */
export const WHAT = [
  { value: "checkIn", label: "check-in" },
  { value: "start", label: "start" },
  { value: "barLost", label: "bar lost" },
  { value: "lastBar", label: "last bar blinking" },
  { value: "lowPower", label: "low-power mode began" },
  { value: "fullPowerEnd", label: "full power ended" },
  { value: "refill", label: "charged" },
  { value: "end:cutOff", label: "end: the pack cut off" },
  { value: "end:lowPower", label: "end: low-power mode held" },
  { value: "end:cannotHoldSpeed", label: "end: could not hold the speed" },
  { value: "end:gaugeZero", label: "end: gauge zero, no difference between levels" },
  { value: "end:byChoice", label: "end: stopped by choice" },
  { value: "stop", label: "stop" },
  { value: "go", label: "riding on" },
  { value: "note", label: "note only" },
] as const;

export const ENTRY_FIELDS = [
  "what",
  "distanceM",
  "displayM",
  "time",
  "percent",
  "bars",
  "bar",
  "packVolts",
  "underLoad",
  "restMin",
  "amps",
  "speedMps",
  "rangeGuessM",
  "level",
  "ground",
  "note",
  "chargerDone",
  "counterWh",
  "counterAh",
  "meter",
  "wallWh",
  "charger",
  "toFull",
] as const;
export type EntryField = (typeof ENTRY_FIELDS)[number];

export interface TypedEntry {
  /** "10:41", or empty. */
  readonly time: string;
  readonly body: EntryBody;
}

/** Reads the check-in form: quantities with units, then the entry's own schema, each sentence at its field. */
export const entryForm = (system: System) =>
  z
    .object({
      what: choice.transform((what) => what ?? "checkIn"),
      distanceM: quantityText("distance", system),
      displayM: quantityText("distance", system),
      time: words,
      percent: quantityText("percent", system),
      bars: quantityText("count", system),
      bar: quantityText("count", system),
      packVolts: quantityText("volts", system),
      underLoad: tick,
      restMin: quantityText("duration", system),
      amps: quantityText("current", system),
      speedMps: quantityText("speed", system),
      rangeGuessM: quantityText("distance", system),
      level: choice,
      ground: choice,
      note: choice,
      chargerDone: tick,
      counterWh: quantityText("energy", system),
      counterAh: quantityText("charge", system),
      meter: choice,
      wallWh: quantityText("energy", system),
      charger: choice,
      toFull: tick,
    })
    .transform(
      ({ what, time, restMin, underLoad, chargerDone, toFull, bar, ...seen }, context): TypedEntry => {
        const [kind, reason] = what.split(":");
        const parsed = entryBodySchema.safeParse({
          kind,
          ...(reason && { reason }),
          ...(bar !== undefined && kind === "barLost" && { bar }),
          ...(chargerDone && kind === "start" && { chargerDone }),
          ...(toFull && kind === "refill" && { toFull }),
          ...(underLoad && { underLoad }),
          ...(restMin !== undefined && { restMin: restMin / 60 }),
          ...seen,
        });
        if (!parsed.success) {
          for (const issue of parsed.error.issues)
            context.addIssue({
              code: "custom",
              path: [...issue.path],
              message:
                issue.path[0] === "bar" ? "Type which bar went, counted from the last: 4." : issue.message,
            });
          return z.NEVER;
        }
        const placed =
          "distanceM" in parsed.data &&
          (parsed.data.distanceM !== undefined || parsed.data.displayM !== undefined);
        if (!placed && time === "" && kind !== "start" && kind !== "note" && kind !== "refill") {
          context.addIssue({
            code: "custom",
            path: ["distanceM"],
            message: "Type the distance, such as 12.4 mi, or the time it was read.",
          });
          return z.NEVER;
        }
        return { time, body: parsed.data };
      },
    );

const DIMENSION: Readonly<Partial<Record<EntryField, DimensionName>>> = {
  distanceM: "distance",
  displayM: "distance",
  percent: "percent",
  bars: "count",
  bar: "count",
  packVolts: "volts",
  amps: "current",
  speedMps: "speed",
  rangeGuessM: "distance",
  counterWh: "energy",
  counterAh: "charge",
  wallWh: "energy",
};

/** An entry written back as the texts of its form, for a correction. */
export function entryTexts(
  entry: LiveEntry,
  time: string,
  system: System,
): Partial<Record<EntryField, string>> {
  const { body } = entry;
  const values = body as Readonly<Record<string, unknown>>;
  const texts: Partial<Record<EntryField, string>> = {
    what: body.kind === "end" ? `end:${body.reason}` : body.kind,
    time,
  };
  for (const field of ENTRY_FIELDS) {
    const value = values[field];
    const dimension = DIMENSION[field];
    if (typeof value === "number")
      texts[field] = dimension ? formatInput(value, dimension, unitOf(dimension, system)) : String(value);
    else if (typeof value === "string") texts[field] = value;
    else if (value === true) texts[field] = "on";
  }
  if (typeof values["restMin"] === "number") texts.restMin = `${values["restMin"]} min`;
  return texts;
}
