import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { day, named, number, pencil, words } from "./fields.ts";

/** A set-up's fields in the order a form asks for them. */
export const SET_UP_FIELDS = {
  name: recordField({
    schema: named("set-up"),
    label: "Name",
    hint: "Such as: slick tyres.",
    typed: { as: "name" },
  }),
  /** Since when it is ridden so. */
  since: recordField({ schema: day().optional(), label: "Ridden so since", typed: { as: "day" } }),
  tyre: recordField({
    schema: words,
    label: "Tyres",
    hint: "Model class, as on the sidewall.",
    typed: { as: "words" },
  }),
  tyreClass: recordField({
    schema: z.enum(["city", "knobbly", "fat"], { error: "Tyres are city, knobbly or fat." }).default("city"),
    label: "They roll like",
    typed: { as: "choice", says: { city: "city tyres", knobbly: "knobbly tyres", fat: "fat tyres" } },
  }),
  tyreWidthM: recordField({
    schema: number(0.015, 0.15, "A tyre is 15 to 150 mm wide, for example 47 mm or 1.75 in.").optional(),
    label: "Width",
    hint: "Such as 47 mm or 1.75 in.",
    typed: { as: "quantity", dimension: "length" },
  }),
  pressurePa: recordField({
    schema: number(
      30_000,
      1_000_000,
      "Tyre pressure is 0.3 to 10 bar (4 to 145 psi): check the unit.",
    ).optional(),
    label: "Pressure",
    hint: "Such as 31 psi or 2.1 bar.",
    typed: { as: "quantity", dimension: "pressure" },
  }),
  maxPressurePa: recordField({
    schema: number(
      30_000,
      1_000_000,
      "A tyre's printed maximum is 0.3 to 10 bar (4 to 145 psi): check the unit.",
    ).optional(),
    label: "Its printed maximum",
    typed: { as: "quantity", dimension: "pressure" },
  }),
  posture: recordField({
    schema: z
      .enum(["upright", "panniers or step-through", "leaning"], {
        error: "The rider sits upright, panniers or step-through, leaning.",
      })
      .default("upright"),
    label: "Rider and luggage",
    hint: "For the drag.",
    typed: { as: "choice" },
  }),
  carriedKg: recordField({
    schema: number(0, 300, "The load is 0 to 300 kg.").default(0),
    label: "Load carried",
    hint: "Panniers, child, camera; without the rider.",
    typed: { as: "quantity", dimension: "mass", empty: 0 },
  }),
  /** Parts that are not the maker's. */
  changed: recordField({
    schema: words,
    label: "Changed parts",
    hint: "What is not the maker's: bars, seat, second pack.",
    typed: { as: "words" },
    wide: true,
  }),
  lightsOn: recordField({ schema: z.boolean().default(false), label: "Lights on", typed: { as: "tick" } }),
};

/** A dated variant of one bike: what changes its figure and can be changed. */
export const setUpSchema = z
  .object({ ...shapeOf(SET_UP_FIELDS), pencil })
  .refine(
    ({ pressurePa, maxPressurePa }) =>
      pressurePa === undefined || maxPressurePa === undefined || pressurePa <= maxPressurePa,
    {
      path: ["pressurePa"],
      message: "That is over the tyre's printed maximum: check both, and their units.",
    },
  );
export type SetUp = z.infer<typeof setUpSchema>;
