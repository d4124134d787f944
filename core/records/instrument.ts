import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { named, number, pencil, words } from "./fields.ts";

/** A meter's, logger's or charger's fields in the order a form asks for them. */
export const INSTRUMENT_FIELDS = {
  name: recordField({
    schema: named("instrument"),
    label: "Name",
    hint: "As the log names it.",
    typed: { as: "name" },
  }),
  kind: recordField({
    schema: z
      .enum(["energy meter", "logger", "charger"], {
        error: "An instrument is an energy meter, a logger, a charger.",
      })
      .default("energy meter"),
    label: "Kind",
    typed: { as: "choice" },
  }),
  /** Of the energy it counts, 1 sd as a share. */
  gainSd: recordField({
    schema: number(0.0005, 0.3, "A meter's error is ± 0.1 to 58 %, for example 2 %.").optional(),
    label: "Error of a meter or logger, ± (95 of 100)",
    hint: "Such as 2 %. A meter is assumed to ± 2 %, a logger to ± 3 %.",
    typed: { as: "percent", margin: true },
  }),
  /** What a charger gives. */
  amps: recordField({
    schema: number(0.2, 50, "A charger gives 0.2 to 50 A, for example 2 A.").optional(),
    label: "A charger gives",
    hint: "Such as 3 A, by its label.",
    typed: { as: "quantity", dimension: "current" },
  }),
  /** Wall energy that reaches the pack, of a charger. */
  eta: recordField({
    schema: number(
      0.4,
      1,
      "A charger passes on 40 to 100 % of the wall's energy, for example 86 %.",
    ).optional(),
    label: "Wall energy that reaches the pack",
    hint: "Such as 87 %. Assumed: 86 %.",
    typed: { as: "percent" },
  }),
  etaSd: recordField({
    schema: number(0.001, 0.3, "The doubt of that is ± 0.2 to 58 %, for example 6 %.").optional(),
    label: "± of that (95 of 100)",
    hint: "Such as 4 %. Assumed: 6 %.",
    typed: { as: "percent", margin: true },
  }),
  note: recordField({ schema: words, label: "Remarks", typed: { as: "words" }, wide: true }),
};

/** A meter, logger or charger of the desk, with its errors. What is left out is the assumption of its kind. */
export const instrumentSchema = z.object({
  ...shapeOf(INSTRUMENT_FIELDS),
  /** Names it had before: logs that were written then go on meaning it. */
  formerNames: z.array(named("instrument")).max(100).default([]),
  pencil,
});
export type Instrument = z.infer<typeof instrumentSchema>;

/**
 * The instrument that goes by a name, or else went by it; undefined when the desk has none.
 *
 * @example instrumentNamed([{ name: "blue", formerNames: ["old"] }], "old").name === "blue"
 */
export const instrumentNamed = <T extends Pick<Instrument, "name" | "formerNames">>(
  instruments: readonly T[],
  name: string,
): T | undefined =>
  instruments.find((each) => each.name === name) ??
  instruments.find(({ formerNames }) => formerNames.includes(name));
