import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { fractionRow } from "./row.ts";

/** The charger said done before the ride: nothing used yet. */
export const fullStart = readingKind({
  schema: z.object({ kind: z.literal("fullStart"), mark: markSchema }),
  name: "full charge",
  counted: ["a full start", "full starts"],
  evidence: null,
  ifOff: "was the charger really done?",
  text: () => "charger done",
  check: () => [],
  says: ({ mark }) => fractionRow(mark, 0, [{ source: "full at start", sd: DEFAULTS.fullStartSd }]),
});
