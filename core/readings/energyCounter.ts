import { z } from "zod";
import { ASSUMED } from "#core/assumptions";
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
    meter: z.string().default("meter"),
  }),
  name: "energy counter",
  counted: ["one energy count", "energy counts"],
  evidence: "counter",
  ifOff: "was the counter reset on the way?",
  text: ({ wh }) => `${wh} Wh counted`,
  check: checkSpan,
  says: ({ fromMark, toMark, wh, stepWh, meter }) =>
    energyRow(
      {
        from: fromMark,
        to: toMark,
        wh: () => wh,
        gain: (energy) => energy * ASSUMED.energyGainSd,
        gainUnknown: gainOf(`meter ${meter}`, "meter gain"),
      },
      [{ source: "counter step", sd: stepWh / ROOT12 }],
    ),
});
