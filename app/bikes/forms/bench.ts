import { z } from "zod";
import { type System } from "#core/base";
import { benchSchema } from "#core/records";
import { choice, quantityText, readInto, tick, words } from "#app/ui/formText";

export const benchForm = (system: System) =>
  readInto(
    z.object({
      on: choice,
      fromFull: tick,
      startVolts: quantityText("volts", system),
      hours: quantityText("duration", system, "h").transform((s) => (s === undefined ? undefined : s / 3600)),
      wh: quantityText("energy", system),
      sdWh: quantityText("energy", system),
      startTempC: quantityText("temperature", system),
      highestTempC: quantityText("temperature", system),
      instrument: words,
      by: words,
      note: words,
    }),
    benchSchema,
  );
export const BENCH_FIELDS = [
  "on",
  "fromFull",
  "startVolts",
  "hours",
  "wh",
  "sdWh",
  "startTempC",
  "highestTempC",
  "instrument",
  "by",
  "note",
] as const;
