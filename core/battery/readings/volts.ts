import { z } from "zod";
import { DEFAULTS, type Problem, fixed } from "#core/base";
import { fractionFromVolts, packResistance, voltsLimits } from "#core/battery";
import { problemIf, readingKind } from "./kind.ts";
import { markShape } from "./mark.ts";
import { fractionRow, ROOT12, type Row, type Setting } from "./row.ts";

function checkVolts(packVolts: number, { pack }: Setting): readonly Problem[] {
  const limits = voltsLimits(pack);
  if (!limits)
    return problemIf(
      true,
      "no-cells",
      "seriesCells",
      "Volts say nothing until the pack's series cells are known: type them on the bike page.",
    );
  const { low, high } = limits;
  return problemIf(
    packVolts < low || packVolts > high,
    "volts-range",
    "packVolts",
    `${packVolts} V cannot be for ${pack.seriesCells} ${pack.chemistry} cells in series: type ${fixed(low, 0)} to ${fixed(high, 0)} V.`,
  );
}

function voltsRow(mark: number, restPackVolts: number, readSdCell: number, setting: Setting): Row {
  const { pack, curve } = setting;
  // A measured curve is the pack's own; a table's is not, and on a flat stretch some millivolts are much of the charge.
  const ownSd = pack.ocv ? 0 : DEFAULTS.curveVoltsSd;
  const sdCell = Math.hypot(readSdCell, ownSd);
  const { f, sd } = fractionFromVolts(curve, restPackVolts / (pack.seriesCells ?? 1), sdCell);
  return fractionRow(mark, f, [{ source: "volts reading", sd }], { process: "curve", f });
}

const stepSchema = z.number().min(0).default(0.1);

/** Volts with the load off, surer after ten minutes of rest. */
export const restVolts = readingKind({
  schema: z.object({
    kind: z.literal("restVolts"),
    ...markShape,
    packVolts: z.number({ error: "Volts must be a number." }),
    /** Minutes since the load came off. */
    restMin: z.number().min(0).default(0),
    meterStepV: stepSchema,
  }),
  name: "rest volts",
  counted: ["one voltage reading at rest", "voltage readings at rest"],
  evidence: "volts",
  ifOff: "was the load off?",
  text: ({ packVolts }) => `${packVolts} V at rest`,
  check: ({ packVolts }, setting) => checkVolts(packVolts, setting),
  says: ({ mark, packVolts, restMin, meterStepV }, setting) => {
    const rest = restMin >= DEFAULTS.restedMinutes ? DEFAULTS.restedVoltsSd : DEFAULTS.unrestedVoltsSd;
    const step = meterStepV / ROOT12 / (setting.pack.seriesCells ?? 1);
    return voltsRow(mark, packVolts, Math.hypot(step, rest), setting);
  },
});

/** Volts while amps flow, corrected to rest through the pack's resistance: Voc = V + I R. */
export const loadedVolts = readingKind({
  schema: z.object({
    kind: z.literal("loadedVolts"),
    ...markShape,
    packVolts: z.number({ error: "Volts must be a number." }),
    amps: z.number({ error: "Amps must be a number." }),
    resistanceOhm: z.number().positive().optional(),
    meterStepV: stepSchema,
  }),
  name: "loaded volts",
  counted: ["one voltage reading under load", "voltage readings under load"],
  evidence: "volts",
  ifOff: "were the amps read at the same moment?",
  text: ({ packVolts, amps }) => `${packVolts} V at ${amps} A`,
  check: ({ packVolts }, setting) => checkVolts(packVolts, setting),
  says: ({ mark, packVolts, amps, resistanceOhm, meterStepV }, setting) => {
    const cells = setting.pack.seriesCells ?? 1;
    const sag = amps * (resistanceOhm ?? packResistance(setting.pack));
    const sd = Math.hypot(
      meterStepV / ROOT12 / cells,
      DEFAULTS.unrestedVoltsSd,
      (Math.abs(sag) * DEFAULTS.resistanceSdShare) / cells,
    );
    return voltsRow(mark, packVolts + sag, sd, setting);
  },
});
