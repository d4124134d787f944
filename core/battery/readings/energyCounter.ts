import { text, DEFAULTS } from "#core/base";
import { z } from "zod";
import { readingKind } from "./kind.ts";
import { ROOT12 } from "./row.ts";
import { checkSpan, energyRow, gainOf, spanShape } from "./span.ts";

/** A watt-hour counter between two marks, with a gain its meter shares over all its readings. */
export const energyCounter = readingKind({
  schema: z.object({
    kind: z.literal("energyCounter"),
    ...spanShape,
    /** Negative when more came back, by regeneration, than was spent. */
    wh: z.number({ error: "Wh must be a number." }),
    stepWh: z.number().min(0).default(1),
    meter: text().default("meter"),
    /** The meter's own error, 1 sd as a share, where it is known. */
    gainSd: z.number().positive().max(0.5).optional(),
  }),
  name: "energy counter",
  counted: ["one energy count", "energy counts"],
  evidence: "counter",
  ifOff: "was the counter reset on the way?",
  text: ({ wh }) => `${wh} Wh counted`,
  check: checkSpan,
  says: ({ fromMark, toMark, wh, stepWh, meter, gainSd = DEFAULTS.energyGainSd }) =>
    energyRow(
      {
        from: fromMark,
        to: toMark,
        wh: () => wh,
        gain: (energy) => energy * gainSd,
        gainUnknown: gainOf(`meter ${meter}`, "meter gain"),
      },
      [{ source: "counter step", sd: stepWh / ROOT12 }],
    ),
});
