import { text, DEFAULTS } from "#core/base";
import { z } from "zod";
import { packResistance, type CellCurve } from "#core/battery";
import { problemIf, readingKind } from "./kind.ts";
import { ROOT12 } from "./row.ts";
import { checkSpan, energyRow, gainOf, spanShape } from "./span.ts";

/** Mean rest volts of a cell between two fractions used. */
function meanCellVolts(curve: CellCurve, fFrom: number, fTo: number): number {
  const qFrom = curve.chargeAtFraction(fFrom);
  const qTo = curve.chargeAtFraction(fTo);
  const width = qFrom - qTo;
  return Math.abs(width) < 1e-9 ? curve.voltsAt(qFrom) : (curve.phi(qFrom) - curve.phi(qTo)) / width;
}

/** An amp-hour counter between two marks: charge x mean rest volts between them. */
export const chargeCounter = readingKind({
  schema: z.object({
    kind: z.literal("chargeCounter"),
    ...spanShape,
    ah: z.number({ error: "Ah must be a number." }),
    stepAh: z.number().min(0).default(0.01),
    meter: text().default("meter"),
    /** Mean current while it counted, where the time is known. */
    meanA: z.number().positive().max(500).optional(),
  }),
  name: "charge counter",
  counted: ["one charge count", "charge counts"],
  evidence: "counter",
  ifOff: "was the counter reset on the way?",
  text: ({ ah }) => `${ah} Ah counted`,
  check: (reading, { pack }) => [
    ...checkSpan(reading),
    ...problemIf(
      pack.seriesCells === undefined,
      "no-cells",
      "seriesCells",
      "An amp-hour counter needs the pack's series cells: type them on the bike page.",
    ),
  ],
  says: ({ fromMark, toMark, ah, stepAh, meter, meanA }, setting) => {
    const { pack, curve } = setting;
    const cells = pack.seriesCells ?? 1;
    // Energy is told at the terminals: the rest volts less what the current takes of them.
    const ohms = DEFAULTS.sustainedOhms * packResistance(pack);
    const sagV = (meanA ?? DEFAULTS.counterA) * ohms;
    const sagSd = Math.hypot(
      (meanA === undefined ? DEFAULTS.counterASd : 0) * ohms,
      sagV * DEFAULTS.resistanceSdShare,
    );
    return energyRow(
      {
        from: fromMark,
        to: toMark,
        wh: (fFrom, fTo) => ah * (cells * meanCellVolts(curve, fFrom, fTo) - sagV),
        gain: (energy) => energy * DEFAULTS.chargeGainSd,
        gainUnknown: gainOf(`charge meter ${meter}`, "meter gain"),
      },
      [
        { source: "counter step", sd: (stepAh * cells * curve.phi(1)) / ROOT12 },
        ...(sagSd > 0 ? [{ source: "sag under load", sd: ah * sagSd } as const] : []),
      ],
    );
  },
});
