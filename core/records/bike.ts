import { text } from "#core/base";
import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { DRIVES } from "./drive.ts";
import { named, number, pencil, words } from "./fields.ts";
import { displayLearned } from "./learned.ts";

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

/** What somebody else published of such a bike on so much energy, a range or a climb; how it was ridden is not known. */
const reportedSchema = z.object({
  by: text().trim().max(60).default(""),
  drive: z.enum(DRIVES).default("pedal"),
  /** A range, or the metres climbed. */
  of: z.enum(["range", "climb"]).default("range"),
  distanceM: number(100, 1e6, "A distance, for example 31 mi."),
  energyWh: number(10, 20_000, "The energy it took, for example 460 Wh."),
});
export type Reported = z.infer<typeof reportedSchema>;

/** What a 23 lb bike typed as kilograms, or a pack's weight typed as the bike's, looks like. */
const WEIGHT = "A bike weighs 5 to 150 kg: check the unit, for example 26 kg or 57 lb.";
const LIGHTEST_KG = 12;
const HEAVIEST_KG = 70;

const MOTOR = "Motor and levels";
const DISPLAY = "Display";
const CLAIMS = "The maker's claims";

/** A bike's fields in the order a form asks for them. */
export const BIKE_FIELDS = {
  name: recordField({ schema: named("bike"), label: "Name", typed: { as: "name" }, wide: true }),
  what: recordField({
    schema: words,
    label: "What it is",
    hint: "Frame, wheels, drive, for whom.",
    typed: { as: "words" },
    wide: true,
  }),
  massKg: recordField({
    schema: number(5, 150, WEIGHT).optional(),
    label: "Weight with its pack",
    hint: "Such as 26 kg or 57 lb. Empty when not weighed.",
    typed: { as: "weight", of: "an e-bike", leastKg: LIGHTEST_KG, mostKg: HEAVIEST_KG },
  }),
  massWithoutPackKg: recordField({
    schema: number(4, 150, WEIGHT).optional(),
    label: "Weight without it",
    hint: "Tells what the pack weighs, and what a larger one would.",
    typed: { as: "weight", of: "an e-bike", leastKg: LIGHTEST_KG - 3, mostKg: HEAVIEST_KG },
  }),
  brakes: recordField({ schema: words, label: "Brakes", typed: { as: "words" } }),
  comfort: recordField({
    schema: words,
    label: "Comfort parts",
    hint: "Seat-post, fork, bars, child seat.",
    typed: { as: "words" },
  }),
  /** In minor units of its currency. */
  priceMinor: recordField({
    schema: number(0, 1e9, "A price is a sum of money, for example 1899 EUR.").optional(),
    label: "Price",
    hint: "Such as 1899 EUR.",
    typed: { as: "own" },
  }),
  motor: recordField({
    schema: z.enum(["hub", "mid"], { error: "The motor is a hub or a mid motor." }).default("hub"),
    label: "Motor",
    typed: { as: "choice", says: { hub: "hub motor", mid: "mid motor" } },
    under: MOTOR,
  }),
  /** Most the motor gives at the shaft. */
  motorW: recordField({
    schema: number(50, 5000, "A motor gives 50 to 5000 W, for example 250 W.").optional(),
    label: "Most power it gives, W",
    hint: "By its label. With it, hills slow the forecast as they slow the bike.",
    typed: { as: "number" },
    under: MOTOR,
  }),
  sensor: recordField({
    schema: z
      .enum(["not noted", "cadence", "torque"], { error: "The sensor is for cadence or torque." })
      .default("not noted"),
    label: "Pedal sensor",
    typed: { as: "choice" },
    under: MOTOR,
  }),
  /** Speed at which the motor stops helping. */
  assistToMps: recordField({
    schema: number(2, 30, "Assist stops at 5 to 65 mph, for example 20 mph or 25 km/h.").optional(),
    label: "Assist stops at",
    hint: "The motor rests above it.",
    typed: { as: "quantity", dimension: "speed", digits: 1 },
    under: MOTOR,
  }),
  /** Assist levels from least to most, by the bike's own names. */
  levels: recordField({
    schema: z
      .array(text().trim().min(1).max(40))
      .min(1, "Name at least one assist level, for example: low, high.")
      .max(12, "A bike has at most 12 levels.")
      .refine((levels) => new Set(levels).size === levels.length, "Each level has a name of its own."),
    label: "Assist levels, least first",
    hint: "Their own names, with commas; with shares of power if known: low 40 %, mid 70 %, high 100 %.",
    typed: { as: "own" },
    under: MOTOR,
    wide: true,
  }),
  throttle: recordField({
    schema: z.boolean().default(false),
    label: "It has a throttle",
    typed: { as: "tick" },
    under: MOTOR,
  }),
  wheelCircumferenceM: recordField({
    schema: number(0.5, 3, "A wheel measures 500 to 3000 mm round, for example 2180 mm.").optional(),
    label: "Wheel setting",
    hint: "Circumference in the display's menu, such as 2180 mm.",
    typed: { as: "quantity", dimension: "length" },
    under: MOTOR,
  }),
  /** Step of the percent display; 0 when it shows none. */
  percentStep: recordField({
    schema: number(0, 50, "The percent step is 1, 5 or 10; 0 when the display shows no percent.").default(1),
    label: "Percent shown in steps of",
    hint: "1, 5 or 10; 0 when it shows none.",
    typed: { as: "number", empty: 0 },
    under: DISPLAY,
  }),
  counts: recordField({
    schema: z.enum(["charge", "energy", "volts"]).default("charge"),
    label: "The percent follows",
    typed: {
      as: "choice",
      says: {
        charge: "amp-hours (most gauges)",
        energy: "watt-hours",
        volts: "volts: it drops under load and climbs back at rest",
      },
    },
    under: DISPLAY,
  }),
  bars: recordField({
    schema: z.number().int("Bars are whole.").min(0).max(40, "A display has at most 40 bars.").default(0),
    label: "Bars",
    hint: "How many; 0 when it shows none.",
    typed: { as: "number", whole: true, empty: 0 },
    under: DISPLAY,
  }),
  barsAre: recordField({
    schema: z
      .enum(["bars", "lamp colours"], { error: "The steps are bars or lamp colours." })
      .default("bars"),
    label: "They are",
    typed: { as: "choice" },
    under: DISPLAY,
  }),
  /** Step of the volts shown; 0 when it shows none. */
  meterStepV: recordField({
    schema: number(
      0,
      5,
      "The step of the volts display is 0 to 5 V, usually 0.1; 0 when it shows none.",
    ).default(0.1),
    label: "Volts shown in steps of",
    hint: "Usually 0.1 V, perhaps in a menu; 0 when it shows none.",
    typed: { as: "quantity", dimension: "volts" },
    under: DISPLAY,
  }),
  powerShown: recordField({
    schema: z
      .enum(["none", "watts", "a bar of power"], {
        error: "The display shows watts, a bar of power or none.",
      })
      .default("none"),
    label: "Power shown",
    typed: { as: "choice" },
    under: DISPLAY,
  }),
  claims: recordField({
    schema: z.array(claimSchema).max(20, "A bike holds at most 20 claims.").default([]),
    label: "Range claimed, one a line",
    hint: "Mode, figure or span, and the conditions if they are stated. Such as: eco: 40 to 60 mi, level road.",
    typed: { as: "own", lines: 3 },
    under: CLAIMS,
    wide: true,
  }),
  /** Ranges others published of it. */
  reported: recordField({
    schema: z.array(reportedSchema).max(20, "A bike holds at most 20 figures of others.").default([]),
    label: "What other testers found, one a line",
    hint: "Whose, how far, on how much energy. Such as: Quay notes: 31 mi on 460 Wh. It counts for little, since nobody knows how it was ridden, until tests of your own are there.",
    typed: { as: "own", lines: 3 },
    under: CLAIMS,
    wide: true,
  }),
};

export const bikeSchema = z
  .object({
    ...shapeOf(BIKE_FIELDS),
    /** Share of the motor's power at each level, 0 to 1; empty when they cannot be set or were not read. */
    levelShares: z.array(number(0, 1, "A level gives 0 to 100 % of the motor's power.")).default([]),
    currency: text()
      .regex(/^[A-Z]{3}$/, "A currency has three letters, for example EUR.")
      .default("EUR"),
    learned: displayLearned,
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
