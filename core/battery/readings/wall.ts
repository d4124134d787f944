import { text, DEFAULTS } from "#core/base";
import { z } from "zod";
import { readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { ROOT12 } from "./row.ts";
import { checkSpan, energyRow, gainOf, spanShape } from "./span.ts";

/** Energy drawn from the wall by a charger, whose efficiency all its readings share. */
const wall = {
  wallWh: z.number({ error: "Wall Wh must be a number." }).positive("Wall Wh must be more than zero."),
  stepWh: z.number().min(0).default(1),
  charger: text().default("charger"),
  /** The charger's own efficiency and its doubt, where they were measured. */
  eta: z.number().positive().max(1).optional(),
  etaSd: z.number().positive().max(0.5).optional(),
};
const efficiencyOf = (charger: string) => gainOf(`charger ${charger}`, "charger efficiency");
const stepOf = (stepWh: number, eta: number) =>
  [{ source: "counter step", sd: (stepWh * eta) / ROOT12 }] as const;

/** Wall energy to fill the pack again: what was used since full, over the charger's efficiency. */
export const wallRefill = readingKind({
  schema: z.object({ kind: z.literal("wallRefill"), mark: markSchema, ...wall }),
  name: "refill",
  counted: ["one refill", "refills"],
  evidence: "refill",
  ifOff: "did the charger finish?",
  text: ({ wallWh }) => `${wallWh} Wh at the wall`,
  check: () => [],
  says: ({ mark, wallWh, stepWh, charger, eta = DEFAULTS.chargerEta, etaSd = DEFAULTS.chargerEtaSd }) =>
    energyRow(
      {
        from: undefined,
        to: mark,
        wh: () => wallWh * eta,
        gain: () => wallWh * etaSd,
        gainUnknown: efficiencyOf(charger),
      },
      stepOf(stepWh, eta),
    ),
});

/** Wall energy of a charge in between, from one mark to the next: energy that came back into the pack. */
export const wallCharge = readingKind({
  schema: z.object({ kind: z.literal("wallCharge"), ...spanShape, ...wall }),
  name: "charge in between",
  counted: ["one charge in between", "charges in between"],
  evidence: "refill",
  ifOff: "was all of it for this pack?",
  text: ({ wallWh }) => `${wallWh} Wh charged at the wall`,
  check: checkSpan,
  says: ({
    fromMark,
    toMark,
    wallWh,
    stepWh,
    charger,
    eta = DEFAULTS.chargerEta,
    etaSd = DEFAULTS.chargerEtaSd,
  }) =>
    energyRow(
      {
        from: fromMark,
        to: toMark,
        charging: true,
        wh: () => -wallWh * eta,
        gain: () => -wallWh * etaSd,
        gainUnknown: efficiencyOf(charger),
      },
      stepOf(stepWh, eta),
    ),
});
