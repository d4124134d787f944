import { z } from "zod";
import { named, number, pencil, words } from "./fields.ts";

const bpm = number(40, 220, "A heart beats 40 to 220 times a minute.");
const watts = number(0, 600, "A rider gives 0 to 600 W.");

/** A rider, and the line from heart rate to power through two efforts they know. */
export const riderSchema = z
  .object({
    name: named("rider"),
    massKg: number(20, 250, "A dressed rider weighs 20 to 250 kg: check the unit.").optional(),
    lowBpm: bpm.optional(),
    lowW: watts.optional(),
    highBpm: bpm.optional(),
    highW: watts.optional(),
    note: words,
    pencil,
  })
  .superRefine(({ lowBpm, lowW, highBpm, highW }, context) => {
    const given = [lowBpm, lowW, highBpm, highW].filter((value) => value !== undefined).length;
    if (given > 0 && given < 4)
      context.addIssue({
        code: "custom",
        path: ["highW"],
        message: "The effort line needs both efforts: beats and watts of an easy one and of a hard one.",
      });
    if (given === 4 && !(highBpm! > lowBpm! && highW! > lowW!))
      context.addIssue({
        code: "custom",
        path: ["highBpm"],
        message: "The hard effort has more beats and more watts than the easy one: swap them.",
      });
  });
export type Rider = z.infer<typeof riderSchema>;
