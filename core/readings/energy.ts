import { z } from "zod";
import { ASSUMED } from "#core/assumptions";
import { problemIf, readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { ROOT12, type Row, type RowError, type Unknown } from "./row.ts";

const gainOf = (device: string, what: string): Unknown => ({
  key: `gain ${device}`,
  mean: 0,
  sd: 1,
  source: what,
});

function energyRow(
  from: number | undefined,
  to: number,
  wh: (fFrom: number, fTo: number) => number,
  gain: (wh: number) => number,
  gainUnknown: Unknown,
  errors: readonly RowError[],
): Row {
  return { fractions: [], unknowns: [], value: 0, errors, energy: { from, to, wh, gain, gainUnknown } };
}

const span = { fromMark: markSchema, toMark: markSchema };
const backward = (reading: { fromMark: number; toMark: number }) =>
  problemIf(
    reading.toMark <= reading.fromMark,
    "span-order",
    "toMark",
    "The second mark must come after the first.",
  );

/** A watt-hour counter between two marks, with a gain its meter shares over all its readings. */
export const energyCounter = readingKind({
  schema: z.object({
    kind: z.literal("energyCounter"),
    ...span,
    wh: z.number({ error: "Wh must be a number." }),
    stepWh: z.number().min(0).default(1),
    meter: z.string().default("meter"),
  }),
  name: "energy counter",
  check: backward,
  says: ({ fromMark, toMark, wh, stepWh, meter }) =>
    energyRow(
      fromMark,
      toMark,
      () => wh,
      (energy) => energy * ASSUMED.energyGainSd,
      gainOf(`meter ${meter}`, "meter gain"),
      [{ source: "counter step", sd: stepWh / ROOT12 }],
    ),
});

/** An amp-hour counter between two marks: charge x mean rest volts between them. */
export const chargeCounter = readingKind({
  schema: z.object({
    kind: z.literal("chargeCounter"),
    ...span,
    ah: z.number({ error: "Ah must be a number." }),
    stepAh: z.number().min(0).default(0.01),
    meter: z.string().default("meter"),
  }),
  name: "charge counter",
  check: (reading, { pack }) => [
    ...backward(reading),
    ...problemIf(
      pack.seriesCells === undefined,
      "no-cells",
      "seriesCells",
      "An amp-hour counter needs the pack's series cells: type them on the bike page.",
    ),
  ],
  says: ({ fromMark, toMark, ah, stepAh, meter }, { pack, curve }) => {
    const cells = pack.seriesCells ?? 1;
    const meanVolts = (fFrom: number, fTo: number) => {
      const qFrom = curve.chargeAtFraction(fFrom);
      const qTo = curve.chargeAtFraction(fTo);
      const width = qFrom - qTo;
      const cell =
        Math.abs(width) < 1e-9 ? curve.voltsAt(qFrom) : (curve.phi(qFrom) - curve.phi(qTo)) / width;
      return cells * cell;
    };
    return energyRow(
      fromMark,
      toMark,
      (fFrom, fTo) => ah * meanVolts(fFrom, fTo),
      (energy) => energy * ASSUMED.chargeGainSd,
      gainOf(`charge meter ${meter}`, "meter gain"),
      [{ source: "counter step", sd: (stepAh * cells * curve.phi(1)) / ROOT12 }],
    );
  },
});

/** Sampled volts and amps, summed by the logger to Wh with an sd of its own. */
export const telemetry = readingKind({
  schema: z.object({
    kind: z.literal("telemetry"),
    ...span,
    wh: z.number({ error: "Wh must be a number." }),
    sdWh: z.number().min(0).default(0),
    logger: z.string().default("logger"),
  }),
  name: "telemetry",
  check: backward,
  says: ({ fromMark, toMark, wh, sdWh, logger }) =>
    energyRow(
      fromMark,
      toMark,
      () => wh,
      (energy) => energy * ASSUMED.shuntGainSd,
      gainOf(`logger ${logger}`, "logger gain"),
      [{ source: "telemetry gaps", sd: sdWh }],
    ),
});

/** Wall energy to fill the pack again: what was used since full, over the charger's efficiency. */
export const wallRefill = readingKind({
  schema: z.object({
    kind: z.literal("wallRefill"),
    mark: markSchema,
    wallWh: z.number({ error: "Wall Wh must be a number." }).positive("Wall Wh must be more than zero."),
    stepWh: z.number().min(0).default(1),
    charger: z.string().default("charger"),
  }),
  name: "refill",
  check: () => [],
  says: ({ mark, wallWh, stepWh, charger }) =>
    energyRow(
      undefined,
      mark,
      () => wallWh * ASSUMED.chargerEta,
      () => wallWh * ASSUMED.chargerEtaSd,
      gainOf(`charger ${charger}`, "charger efficiency"),
      [{ source: "counter step", sd: (stepWh * ASSUMED.chargerEta) / ROOT12 }],
    ),
});
