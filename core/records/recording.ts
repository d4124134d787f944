import { EARLIEST_S, LATEST_S, NO_SUCH_YEAR, text } from "#core/base";
import { z } from "zod";
import { number, words } from "./fields.ts";

/** Most points of a track and samples of a logger: two days and more at one a second. */
export const MOST_POINTS = 500_000;
export const MOST_SAMPLES = 200_000;

const column = (least: number, most: number, sentence: string) =>
  z.array(number(least, most, sentence)).max(MOST_POINTS, "A recording holds at most 500,000 points.");
const times = column(EARLIEST_S, LATEST_S, NO_SUCH_YEAR);
const HEIGHT = "Heights run from -500 to 9,000 m: the recorder's are broken, export the track again.";
const height = number(-500, 9000, HEIGHT).nullable();

const isRising = (values: readonly number[]) =>
  values.every((value, i) => i === 0 || value >= values[i - 1]!);

const now = (least: number, most: number, sentence: string) =>
  z
    .array(number(least, most, sentence).nullable())
    .max(MOST_POINTS)
    .optional();

/** What a recorder may keep beside the place, each with null where it had none. */
const CHANNELS = {
  /** Beats a minute. */
  bpm: now(25, 240, "A heart beats 25 to 240 times a minute."),
  /** Power at the cranks, W. */
  riderW: now(0, 2500, "Power at the cranks is 0 to 2,500 W."),
  /** Turns a minute. */
  cadence: now(0, 254, "Cranks turn 0 to 254 times a minute."),
  /** Of the recorder, which the sun warms, C. */
  tempC: now(-60, 90, "A recorder's temperature is -60 to 90 C."),
};
export type TrackChannel = keyof typeof CHANNELS;
export const TRACK_CHANNELS = Object.keys(CHANNELS) as readonly TrackChannel[];

const sum = (most: number) => z.number().min(0).max(most).optional();
/** What a recorder says of the whole, by its own reckoning. */
const sumsSchema = z.object({
  distanceM: sum(2_000_000),
  movingS: sum(4 * 86_400),
  elapsedS: sum(30 * 86_400),
  gainM: sum(60_000),
  meanBpm: sum(240),
  meanRiderW: sum(2500),
});
export type TrackSums = z.infer<typeof sumsSchema>;

/** A recorder's track of a ride, as columns: seconds since the epoch, degrees, metres. */
export const trackSchema = z
  .object({
    name: words,
    timeS: times,
    lat: column(-90, 90, "Latitude runs from -90 to 90 degrees."),
    lon: column(-180, 180, "Longitude runs from -180 to 180 degrees."),
    eleM: z.array(height).max(MOST_POINTS),
    ...CHANNELS,
    sums: sumsSchema.optional(),
  })
  .refine(
    ({ timeS, lat, lon, eleM, ...beside }) =>
      [lat, lon, eleM, ...TRACK_CHANNELS.map((name) => beside[name] ?? timeS)].every(
        (other) => other.length === timeS.length,
      ),
    "The track's columns differ in length.",
  )
  .refine(({ timeS }) => isRising(timeS), {
    path: ["timeS"],
    error: "The track's times must not run backward.",
  });
export type TrackRecord = z.infer<typeof trackSchema>;

/** Samples of a logger, as columns; amps negative when energy comes back. */
export const telemetrySchema = z
  .object({
    logger: text().trim().min(1).max(40).default("logger"),
    timeS: times.max(MOST_SAMPLES, "A logger's file holds at most 200,000 samples."),
    volts: column(1, 300, "A pack's volts lie between 1 and 300."),
    amps: column(-200, 500, "Amps lie between -200 and 500."),
    speedMps: column(0, 40, "Speed lies between 0 and 90 mph.").optional(),
    /** Since the ride's start, m. */
    distanceM: column(0, 1_000_000, "Distance lies between 0 and 600 miles.").optional(),
  })
  .refine(
    ({ timeS, volts, amps, speedMps, distanceM }) =>
      [volts, amps, speedMps ?? timeS, distanceM ?? timeS].every((other) => other.length === timeS.length),
    "The telemetry's columns differ in length.",
  )
  .refine(({ timeS }) => timeS.length > 0, { path: ["timeS"], error: "There is no sample in this." })
  .refine(({ timeS }) => isRising(timeS), {
    path: ["timeS"],
    error: "The telemetry's times must not run backward.",
  })
  .refine(({ distanceM }) => !distanceM || isRising(distanceM), {
    path: ["distanceM"],
    error: "The telemetry's distance must not run backward.",
  });
export type TelemetryRecord = z.infer<typeof telemetrySchema>;
