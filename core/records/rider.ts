import { there } from "#core/base";
import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { named, number, pencil, words } from "./fields.ts";

const bpm = number(40, 220, "A heart beats 40 to 220 times a minute.");
const watts = number(0, 600, "A rider gives 0 to 600 W.");

const EFFORT_LINE = "Effort line";

/** A rider's fields in the order a form asks for them. */
export const RIDER_FIELDS = {
  name: recordField({ schema: named("rider"), label: "Name", typed: { as: "name" }, wide: true }),
  massKg: recordField({
    schema: number(20, 250, "A dressed rider weighs 20 to 250 kg: check the unit.").optional(),
    label: "Weight, dressed",
    hint: "Such as 78 kg or 172 lb.",
    typed: { as: "weight", of: "a dressed rider", leastKg: 38, mostKg: 150 },
    wide: true,
  }),
  note: recordField({ schema: words, label: "Remarks", typed: { as: "words" }, wide: true }),
  lowBpm: recordField({
    schema: bpm.optional(),
    label: "Easy, beats a minute",
    typed: { as: "number", whole: true },
    under: EFFORT_LINE,
  }),
  lowW: recordField({
    schema: watts.optional(),
    label: "Easy, watts",
    typed: { as: "number", whole: true },
    under: EFFORT_LINE,
  }),
  highBpm: recordField({
    schema: bpm.optional(),
    label: "Hard, beats a minute",
    typed: { as: "number", whole: true },
    under: EFFORT_LINE,
  }),
  highW: recordField({
    schema: watts.optional(),
    label: "Hard, watts",
    typed: { as: "number", whole: true },
    under: EFFORT_LINE,
  }),
};

/** A rider, and the line from heart rate to power through two efforts they know. */
export const riderSchema = z
  .object({ ...shapeOf(RIDER_FIELDS), pencil })
  .superRefine(({ lowBpm, lowW, highBpm, highW }, context) => {
    const given = [lowBpm, lowW, highBpm, highW].filter((value) => value !== undefined).length;
    if (given > 0 && given < 4)
      context.addIssue({
        code: "custom",
        path: ["highW"],
        message: "The effort line needs both efforts: beats and watts of an easy one and of a hard one.",
      });
    if (given === 4 && !(there(highBpm) > there(lowBpm) && there(highW) > there(lowW)))
      context.addIssue({
        code: "custom",
        path: ["highBpm"],
        message: "The hard effort has more beats and more watts than the easy one: swap them.",
      });
  });
export type Rider = z.infer<typeof riderSchema>;
