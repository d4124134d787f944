import { and, asc, eq } from "drizzle-orm";
import { TRACK_CHANNELS, trackSchema, type TrackRecord } from "#core/records";
import type { Database } from "./client.ts";
import { track } from "./schema.ts";
import { restampRide } from "./stamps.ts";
import { readRows, type Unreadable } from "./unreadable.ts";

type TrackRow = Pick<
  typeof track.$inferSelect,
  "name" | "timeS" | "lat" | "lon" | "eleM" | "bpm" | "riderW" | "cadence" | "tempC" | "sums" | "offsetS"
>;

const orNull = (values: readonly number[]) => values.map((value) => (Number.isNaN(value) ? null : value));
const orNaN = (values: readonly (number | null)[]) => values.map((value) => value ?? NaN);

/** A stored track as the core has it, by the ride's clock. @throws ZodError for a row that is none */
export const trackOfRow = ({
  name,
  timeS,
  lat,
  lon,
  eleM,
  sums,
  offsetS,
  ...beside
}: TrackRow): TrackRecord =>
  trackSchema.parse({
    name,
    timeS: offsetS ? timeS.map((each) => each + offsetS) : timeS,
    lat,
    lon,
    eleM: orNull(eleM),
    ...Object.fromEntries(
      TRACK_CHANNELS.flatMap((channel) => {
        const values = beside[channel];
        return values ? [[channel, orNull(values)]] : [];
      }),
    ),
    ...(sums && { sums }),
  });

/** A track by its id, by the ride's clock; null where it cannot be read. */
export async function readTrack(
  db: Database,
  id: string,
  unreadable?: Unreadable[],
): Promise<TrackRecord | null> {
  const rows = await db.select().from(track).where(eq(track.id, id));
  return readRows("track", rows, trackOfRow, unreadable)[0] ?? null;
}

/** The track of a ride that counts: its id, and what was added to its file's times, s. */
export async function trackOfRide(
  db: Database,
  rideId: string,
): Promise<{ readonly id: string; readonly offsetS: number; readonly sourceHash: string | null } | null> {
  const { id, offsetS, sourceHash } = track;
  const rows = await db
    .select({ id, offsetS, sourceHash })
    .from(track)
    .where(eq(track.rideId, rideId))
    .orderBy(asc(track.receivedAt));
  return rows.at(-1) ?? null;
}

/** How a track came: the hash of its file, and what is added to its times, s. */
export interface TrackSource {
  readonly sourceHash?: string;
  readonly offsetS?: number;
}

/**
 * Keeps a track beside a ride; an earlier one stays in the database and no longer counts.
 *
 * @param value its times as the recorder's clock had them
 */
export async function saveTrack(
  db: Database,
  id: string,
  rideId: string,
  value: TrackRecord,
  { sourceHash, offsetS = 0 }: TrackSource = {},
): Promise<void> {
  const { name, timeS, lat, lon, eleM, bpm, riderW, cadence, tempC, sums } = value;
  const channel = (values: readonly (number | null)[] | undefined) => (values ? orNaN(values) : null);
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    await tx
      .insert(track)
      .values({
        ...{ id, rideId, name, offsetS },
        timeS: [...timeS],
        lat: [...lat],
        lon: [...lon],
        eleM: orNaN(eleM),
        bpm: channel(bpm),
        riderW: channel(riderW),
        cadence: channel(cadence),
        tempC: channel(tempC),
        sums: sums ?? null,
        sourceHash: sourceHash ?? null,
      })
      .onConflictDoNothing();
    await restampRide(tx, rideId);
  });
}

/** Puts a track's clock by so many seconds from the times of its file. */
export async function setTrackOffset(
  db: Database,
  rideId: string,
  trackId: string,
  offsetS: number,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    await tx
      .update(track)
      .set({ offsetS })
      .where(and(eq(track.id, trackId), eq(track.rideId, rideId)));
    await restampRide(tx, rideId);
  });
}
