import { isInReach, NO_SUCH_YEAR, text } from "#core/base";
import { z } from "zod";

/** Grounds, each drawn with a hatch and a letter of its own. */
export const GROUNDS = ["asphalt", "brick", "fine gravel", "loose gravel", "grass", "mud", "snow"] as const;
export const groundSchema = z.enum(GROUNDS, { error: `Ground is one of ${GROUNDS.join(", ")}.` });
export type Ground = z.infer<typeof groundSchema>;

/** Two set-ups, riders, tyres or levels put against each other in one log. */
export const SIDES = ["A", "B"] as const;
export type Side = (typeof SIDES)[number];

/** How a test ended. All but the last close the range; "by choice" leaves a projection. */
export const ENDS = ["cutOff", "lowPower", "cannotHoldSpeed", "gaugeZero", "byChoice"] as const;
export type End = (typeof ENDS)[number];
export const END_NAMES: Readonly<Record<End, string>> = {
  cutOff: "the pack cut off",
  lowPower: "low-power mode held",
  cannotHoldSpeed: "it could not hold the set speed",
  gaugeZero: "gauge at zero, no difference between levels",
  byChoice: "stopped by choice",
};

const FARTHEST_M = 1_000_000;
/** A clock can be wrong by decades: after its battery was out it may stand at its first day. */
const FARTHEST_CLOCK_S = 4e9;
/** Places in a log are milliseconds since the epoch, or counted from 0: neither comes near this. */
const LAST_PLACE = 4.2e12;
const distance = z
  .number({ error: "Distance must be a number." })
  .min(0, "Distance cannot be negative: type the miles since the start.")
  .max(FARTHEST_M, "That is over 600 miles: check the unit.");

const speed = z
  .number({ error: "Speed must be a number." })
  .min(0, "Speed cannot be negative.")
  .max(40, "That is over 90 mph: check the unit.");
const HEART = "A heart beats 30 to 230 times a minute.";
const MOST_CLIMB = "That is over 20,000 m of climb: check the unit.";
const MOST_RIDING_S = 4 * 86_400;

/** What a person saw at a moment; nothing is required. SI units. */
export const sightingSchema = z.object({
  /** By recorder, since the ride's start, m. */
  distanceM: distance.optional(),
  /** By the display's trip meter, since the ride's start, m. */
  displayM: distance.optional(),
  percent: z
    .number()
    .min(0, "Percent runs from 0 to 100.")
    .max(100, "Percent runs from 0 to 100.")
    .optional(),
  /** How far the gauge wandered, from the least to the most; `percent` is its middle. */
  percentSpan: z.number().min(0, "A span cannot be negative.").max(100).optional(),
  bars: z.number().int("Bars are whole: type 3, not 3.5.").min(0, "Bars run from 0.").max(40).optional(),
  packVolts: z.number().positive("Volts must be more than zero.").max(1000).optional(),
  /** True when the motor was pulling as the volts were read. */
  underLoad: z.boolean().optional(),
  /** Minutes the load had been off. */
  restMin: z.number().min(0, "Rest cannot be negative.").max(10_000).optional(),
  /** Negative when energy comes back. */
  amps: z.number().min(-200, "Amps under -200 cannot be.").max(500, "Amps over 500 cannot be.").optional(),
  /** How far the amps flickered, from the least to the most; `amps` is their middle. */
  ampsSpan: z.number().min(0, "A span cannot be negative.").max(500).optional(),
  /** Power the display shows. */
  watts: z.number().min(-5000).max(20_000, "That is over 20 kW: check the unit.").optional(),
  /** A running energy counter as it stands. */
  counterWh: z
    .number()
    .min(-100_000)
    .max(1_000_000, "That is over a megawatt-hour: check the unit.")
    .optional(),
  /** A running charge counter as it stands. */
  counterAh: z.number().min(-10_000).max(100_000, "That is over 100,000 Ah: check the unit.").optional(),
  /** Which meter counts; its gain is shared wherever it is used. */
  meter: text().trim().min(1).max(40).optional(),
  speedMps: speed.optional(),
  rangeGuessM: distance.optional(),
  airTempC: z
    .number()
    .min(-60, "Air is -60 to 60 C.")
    .max(60, "Air is -60 to 60 C: check the unit.")
    .optional(),
  /** Wind as felt or as a station says, from wherever. */
  windMps: z
    .number()
    .min(0, "Wind cannot be negative.")
    .max(40, "That is over 90 mph of wind: check the unit.")
    .optional(),
  /** Heart rate. */
  bpm: z.number().min(30, HEART).max(230, HEART).optional(),
  /** Climbed since the ride's start, as the recorder says. */
  climbM: z.number().min(0, "Climb cannot be negative.").max(20_000, MOST_CLIMB).optional(),
  /** Riding time since the ride's start, without what it stood. */
  movingS: z
    .number()
    .min(1, "Riding time is more than nothing, such as 2 h 47 min.")
    .max(MOST_RIDING_S, "That is over four days of riding: check hours and minutes.")
    .optional(),
  /** Mean over the riding time, fastest, and mean heart rate, as the recorder says them since the ride's start. */
  avgSpeedMps: speed.optional(),
  topSpeedMps: speed.optional(),
  avgBpm: z.number().min(30, HEART).max(230, HEART).optional(),
  level: text().trim().min(1).max(40).optional(),
  ground: groundSchema.optional(),
  /** Section of the course that begins here, ridden more than once; empty ends one. */
  section: text().trim().max(40, "A section's name holds 40 characters.").optional(),
  /** Which of two put against each other is ridden from here. */
  side: z.enum(SIDES).optional(),
  note: text().trim().max(2000, "A note holds 2000 characters.").optional(),
});
export type Sighting = z.infer<typeof sightingSchema>;

/** Fields of a sighting that are readings. */
export const READING_FIELDS = ["percent", "bars", "packVolts", "counterWh", "counterAh"] as const;
export type ReadingField = (typeof READING_FIELDS)[number];
/** What of an entry can be set aside: a reading, or its distance, which is then placed between its neighbours. */
export const STRIKE_FIELDS = [...READING_FIELDS, "distanceM"] as const;
export type StrikeField = (typeof STRIKE_FIELDS)[number];

const body = sightingSchema.shape;
const totals = {
  movingS: body.movingS,
  avgSpeedMps: body.avgSpeedMps,
  topSpeedMps: body.topSpeedMps,
  climbM: body.climbM,
  avgBpm: body.avgBpm,
};
/** What is said of a whole ride. */
export const TOTAL_FIELDS = Object.keys(totals) as readonly (keyof typeof totals)[];
const place = { distanceM: body.distanceM, displayM: body.displayM };
const barNumber = z.number().int().min(1, "Bars run from 1.").max(40);

/** What an entry says, by kind. Level and ground hold from the entry on. */
export const entryBodySchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("start"), ...body, chargerDone: z.boolean().optional() }),
  z.object({ kind: z.literal("checkIn"), ...body }),
  z.object({ kind: z.literal("barLost"), ...body, bar: barNumber }),
  z.object({ kind: z.literal("lastBar"), ...body }),
  z.object({ kind: z.literal("lowPower"), ...body }),
  /** Full power ended here, by hand: levels no longer differ, or the set speed is no longer held. */
  z.object({ kind: z.literal("fullPowerEnd"), ...place, note: body.note }),
  /** A charge: at the end, or in between. */
  z.object({
    kind: z.literal("refill"),
    ...place,
    note: body.note,
    /** The charger said done. */
    toFull: z.boolean().default(false),
    wallWh: z
      .number()
      .positive("Wall energy must be more than zero.")
      .max(100_000, "That is over 100 kWh: check the unit.")
      .optional(),
    /** Which charger; its efficiency is shared wherever it is used. */
    charger: text().trim().min(1).max(40).optional(),
  }),
  z.object({ kind: z.literal("stop"), ...body }),
  z.object({ kind: z.literal("go"), ...body }),
  /** What a recorder says of the whole ride, read once; of no place. */
  z.object({ kind: z.literal("totals"), ...totals, note: body.note }),
  z.object({ kind: z.literal("note"), ...place, note: text().trim().min(1, "Type the note.").max(2000) }),
  z.object({ kind: z.literal("end"), ...body, reason: z.enum(ENDS) }),
  z.object({ kind: z.literal("strike"), target: z.uuid(), field: z.enum(STRIKE_FIELDS).optional() }),
  z.object({ kind: z.literal("restore"), target: z.uuid(), field: z.enum(STRIKE_FIELDS).optional() }),
]);
export type EntryBody = z.infer<typeof entryBodySchema>;

/** One line of the append-only log. A correction is a new entry that supersedes another; nothing is changed or removed. */
export const entrySchema = z
  .object({
    /** UUIDv7 made by the client: a repeated send changes nothing. */
    id: z.uuid({ error: "An entry's id is a UUID." }),
    /** Place in the ride's log. The server gives it; until then it is where the client shows the entry. */
    seq: z
      .number()
      .int("A place in the log is a whole number.")
      .min(0, "A place in the log is not negative.")
      .max(LAST_PLACE, "No log has such a place."),
    /** When it was seen, ISO 8601 with offset; null when nobody noted the time. */
    at: z.iso
      .datetime({ offset: true, error: "Times are ISO 8601, for example 2026-10-18T09:30:00Z." })
      .nullable()
      .default(null),
    body: entryBodySchema,
    supersedes: z.uuid().nullable().default(null),
    /** Seconds to add to `at`, where the clock it was read from was checked; absent where nobody checked. */
    clockOffsetS: z.number().min(-FARTHEST_CLOCK_S).max(FARTHEST_CLOCK_S).optional(),
    /** Which browser noted it, by a short name of its own; absent when typed at the desk or brought in. */
    device: text().trim().min(1).max(16).optional(),
  })
  .refine((entry) => entry.clockOffsetS === undefined || isTimely(entry), {
    path: ["at"],
    error: NO_SUCH_YEAR,
  });
export type Entry = z.infer<typeof entrySchema>;

/** Whether an entry's moment, put right by what its clock is off, lies in the years that are kept; one without is. */
export function isTimely({
  at,
  clockOffsetS = 0,
}: {
  readonly at: string | null;
  readonly clockOffsetS?: number | undefined;
}): boolean {
  return at === null || isInReach(Date.parse(at) / 1000 + clockOffsetS);
}
