import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { readingKind } from "./kind.ts";
import { markShape } from "./mark.ts";
import { pointRow } from "./row.ts";

/** Low-power mode begins: a point of the bike near the end. */
export const lowPower = readingKind({
  schema: z.object({ kind: z.literal("lowPower"), ...markShape }),
  name: "low-power mode",
  counted: ["low-power mode", "low-power modes"],
  evidence: "runDown",
  ifOff: "seen late, or noted at the wrong mile?",
  text: () => "low-power mode",
  check: () => [],
  says: ({ mark }) =>
    pointRow(
      mark,
      {
        key: "low power",
        of: "gauge",
        mean: DEFAULTS.lowPowerAt,
        sd: DEFAULTS.lowPowerSd,
        source: "low-power point",
      },
      [{ source: "low-power sighting", sd: DEFAULTS.lowPowerSightingSd }],
    ),
});
