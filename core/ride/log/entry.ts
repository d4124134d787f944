import { isInReach, NO_SUCH_YEAR, text } from "#core/base";
import { ENDS, sightingSchema } from "#core/fields";
import { z } from "zod";

/** A clock can be wrong by decades: after its battery was out it may stand at its first day. */
const FARTHEST_CLOCK_S = 4e9;
/** A film of a day. */
const LONGEST_FILM_S = 86_400;
/** Places in a log are milliseconds since the epoch, or counted from 0: neither comes near this. */
const LAST_PLACE = 4.2e12;

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
    /** Where it was taken from, when nobody typed it: what was said, and where in the film, s. */
    source: z
      .object({
        kind: z.literal("narration"),
        filmS: z.number().min(0).max(LONGEST_FILM_S).nullable(),
        words: text().trim().max(400),
      })
      .optional(),
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
