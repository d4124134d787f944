import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { fractionRow } from "./row.ts";

/** The pack shut down: all used. */
export const cutOff = readingKind({
  schema: z.object({ kind: z.literal("cutOff"), mark: markSchema }),
  name: "cut-off",
  counted: ["the cut-off", "cut-offs"],
  evidence: "runDown",
  ifOff: "did it cut off for another reason, such as cold or heat?",
  text: () => "cut-off",
  check: () => [],
  says: ({ mark }) => fractionRow(mark, 1, [{ source: "cut-off", sd: DEFAULTS.cutOffSd }]),
});
