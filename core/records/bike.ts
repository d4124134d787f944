import { text } from "#core/base";
import { z } from "zod";
import { DRIVES } from "./drive.ts";
import { named, number, pencil, words } from "./fields.ts";

/** A claimed range, in one mode, as a figure or a span, with what the maker says of how. */
const claimSchema = z
  .object({
    /** Assist level or mode; empty when the maker names none. */
    mode: text().trim().max(40).default(""),
    lowM: number(1, 1e6, "A claim is a distance, for example 40 mi."),
    highM: number(1, 1e6, "A claim is a distance, for example 60 mi."),
    conditions: text().trim().max(300).default(""),
  })
  .refine(({ lowM, highM }) => lowM <= highM, {
    path: ["highM"],
    message: "The claim's upper end lies below its lower end: swap them.",
  });
export type Claim = z.infer<typeof claimSchema>;

/** A range that somebody else published of such a bike, on so much energy; how it was ridden is not known. */
const reportedSchema = z.object({
  by: text().trim().max(60).default(""),
  drive: z.enum(DRIVES).default("pedal"),
  distanceM: number(100, 1e6, "A distance, for example 31 mi."),
  energyWh: number(10, 20_000, "The energy it took, for example 460 Wh."),
});
export type Reported = z.infer<typeof reportedSchema>;

export const SENSORS = ["not noted", "cadence", "torque"] as const;
export const BAR_LOOKS = ["bars", "lamp colours"] as const;
export const POWER_DISPLAYS = ["none", "watts", "a bar of power"] as const;

/** What a 23 lb bike typed as kilograms, or a pack's weight typed as the bike's, looks like. */
const WEIGHT = "A bike weighs 5 to 150 kg: check the unit, for example 26 kg or 57 lb.";

export const bikeSchema = z
  .object({
    name: named("bike"),
    what: words,
    massKg: number(5, 150, WEIGHT).optional(),
    massWithoutPackKg: number(4, 150, WEIGHT).optional(),
    motor: z.enum(["hub", "mid"], { error: "The motor is a hub or a mid motor." }).default("hub"),
    /** Most the motor gives at the shaft. */
    motorW: number(50, 5000, "A motor gives 50 to 5000 W, for example 250 W.").optional(),
    sensor: z.enum(SENSORS, { error: "The sensor is for cadence or torque." }).default("not noted"),
    /** Assist levels from least to most, by the bike's own names. */
    levels: z
      .array(text().trim().min(1).max(40))
      .min(1, "Name at least one assist level, for example: low, high.")
      .max(12, "A bike has at most 12 levels.")
      .refine((levels) => new Set(levels).size === levels.length, "Each level has a name of its own."),
    /** Share of the motor's power at each level, 0 to 1; empty when they cannot be set or were not read. */
    levelShares: z.array(number(0, 1, "A level gives 0 to 100 % of the motor's power.")).default([]),
    throttle: z.boolean().default(false),
    /** Speed at which the motor stops helping. */
    assistToMps: number(2, 30, "Assist stops at 5 to 65 mph, for example 20 mph or 25 km/h.").optional(),
    /** Step of the percent display; 0 when it shows none. */
    percentStep: number(
      0,
      50,
      "The percent step is 1, 5 or 10; 0 when the display shows no percent.",
    ).default(1),
    counts: z.enum(["charge", "energy"]).default("charge"),
    bars: z.number().int("Bars are whole.").min(0).max(40, "A display has at most 40 bars.").default(0),
    barsAre: z.enum(BAR_LOOKS, { error: "The steps are bars or lamp colours." }).default("bars"),
    /** Step of the volts shown; 0 when it shows none. */
    meterStepV: number(
      0,
      5,
      "The step of the volts display is 0 to 5 V, usually 0.1; 0 when it shows none.",
    ).default(0.1),
    powerShown: z
      .enum(POWER_DISPLAYS, { error: "The display shows watts, a bar of power or none." })
      .default("none"),
    wheelCircumferenceM: number(
      0.5,
      3,
      "A wheel measures 500 to 3000 mm round, for example 2180 mm.",
    ).optional(),
    brakes: words,
    comfort: words,
    /** In minor units of its currency. */
    priceMinor: number(0, 1e9, "A price is a sum of money, for example 1899 EUR.").optional(),
    currency: text()
      .regex(/^[A-Z]{3}$/, "A currency has three letters, for example EUR.")
      .default("EUR"),
    claims: z.array(claimSchema).max(20, "A bike holds at most 20 claims.").default([]),
    /** Ranges others published of it. */
    reported: z.array(reportedSchema).max(20, "A bike holds at most 20 figures of others.").default([]),
    pencil,
  })
  .superRefine(({ levels, levelShares, massKg, massWithoutPackKg }, context) => {
    if (levelShares.length > 0 && levelShares.length !== levels.length)
      context.addIssue({
        code: "custom",
        path: ["levels"],
        message: "Give a share of power for every level or for none, for example: low 25 %, high 100 %.",
      });
    if (massKg !== undefined && massWithoutPackKg !== undefined && massWithoutPackKg >= massKg)
      context.addIssue({
        code: "custom",
        path: ["massWithoutPackKg"],
        message: "Without its pack the bike must weigh less than with it: check both, and their units.",
      });
  });
export type Bike = z.infer<typeof bikeSchema>;

/** The widest span of a bike's claims; null without any. */
export function claimedSpan({
  claims,
}: Pick<Bike, "claims">): { readonly lowM: number; readonly highM: number } | null {
  if (claims.length === 0) return null;
  return {
    lowM: Math.min(...claims.map(({ lowM }) => lowM)),
    highM: Math.max(...claims.map(({ highM }) => highM)),
  };
}
