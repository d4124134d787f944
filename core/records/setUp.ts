import { z } from "zod";
import { day, named, number, pencil, words } from "./fields.ts";

export const TYRES = ["city", "knobbly", "fat"] as const;
export const POSTURES = ["upright", "panniers or step-through", "leaning"] as const;

/** A dated variant of one bike: what changes its figure and can be changed. */
export const setUpSchema = z
  .object({
    name: named("set-up"),
    /** Since when it is ridden so. */
    since: day().optional(),
    tyre: words,
    tyreClass: z.enum(TYRES, { error: "Tyres are city, knobbly or fat." }).default("city"),
    tyreWidthM: number(0.015, 0.15, "A tyre is 15 to 150 mm wide, for example 47 mm or 1.75 in.").optional(),
    pressurePa: number(
      30_000,
      1_000_000,
      "Tyre pressure is 0.3 to 10 bar (4 to 145 psi): check the unit.",
    ).optional(),
    maxPressurePa: number(
      30_000,
      1_000_000,
      "A tyre's printed maximum is 0.3 to 10 bar (4 to 145 psi): check the unit.",
    ).optional(),
    posture: z.enum(POSTURES, { error: `The rider sits ${POSTURES.join(", ")}.` }).default("upright"),
    lightsOn: z.boolean().default(false),
    carriedKg: number(0, 300, "The load is 0 to 300 kg.").default(0),
    /** Parts that are not the maker's. */
    changed: words,
    pencil,
  })
  .refine(
    ({ pressurePa, maxPressurePa }) =>
      pressurePa === undefined || maxPressurePa === undefined || pressurePa <= maxPressurePa,
    {
      path: ["pressurePa"],
      message: "That is over the tyre's printed maximum: check both, and their units.",
    },
  );
export type SetUp = z.infer<typeof setUpSchema>;
