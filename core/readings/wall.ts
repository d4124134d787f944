import { z } from "zod";
import { ASSUMED } from "#core/assumptions";
import { readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { ROOT12 } from "./row.ts";
import { checkSpan, energyRow, gainOf, spanShape } from "./span.ts";

/** Energy drawn from the wall by a charger, whose efficiency all its readings share. */
const wall = {
  wallWh: z.number({ error: "Wall Wh must be a number." }).positive("Wall Wh must be more than zero."),
  stepWh: z.number().min(0).default(1),
  charger: z.string().default("charger"),
};
const efficiencyOf = (charger: string) => gainOf(`charger ${charger}`, "charger efficiency");
const stepOf = (stepWh: number) => [{ source: "counter step", sd: (stepWh * ASSUMED.chargerEta) / ROOT12 }];

/** Wall energy to fill the pack again: what was used since full, over the charger's efficiency. */
export const wallRefill = readingKind({
  schema: z.object({ kind: z.literal("wallRefill"), mark: markSchema, ...wall }),
  name: "refill",
  counted: ["one refill", "refills"],
  evidence: "refill",
  ifOff: "did the charger finish?",
  text: ({ wallWh }) => `${wallWh} Wh at the wall`,
  check: () => [],
  says: ({ mark, wallWh, stepWh, charger }) =>
    energyRow(
      {
        from: undefined,
        to: mark,
        wh: () => wallWh * ASSUMED.chargerEta,
        gain: () => wallWh * ASSUMED.chargerEtaSd,
        gainUnknown: efficiencyOf(charger),
      },
      stepOf(stepWh),
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
  says: ({ fromMark, toMark, wallWh, stepWh, charger }) =>
    energyRow(
      {
        from: fromMark,
        to: toMark,
        charging: true,
        wh: () => -wallWh * ASSUMED.chargerEta,
        gain: () => -wallWh * ASSUMED.chargerEtaSd,
        gainUnknown: efficiencyOf(charger),
      },
      stepOf(stepWh),
    ),
});
