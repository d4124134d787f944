import { and, asc, desc, eq, isNull, sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { telemetrySchema, type TelemetryRecord } from "#core/records";
import type { Database } from "./client.ts";
import { ride, telemetryChunk, telemetryImport } from "./schema.ts";
import { restampRide } from "./stamps.ts";
import { readRows, type Unreadable } from "./unreadable.ts";

/** Samples to a row. */
const CHUNK = 4096;

/** What one logger gave of a ride. */
export interface LoggerImport {
  readonly id: string;
  readonly logger: string;
  /** Of its file; null for what a device wrote. */
  readonly sourceHash: string | null;
  readonly samples: number;
  readonly receivedAt: string;
  /** Seconds that are added to its file's times. */
  readonly offsetS: number;
  /** It is the one that counts. */
  readonly counts: boolean;
  /** A corrected file took its place; it can be brought back. */
  readonly replaced: boolean;
}

const CHANNELS = ["speedMps", "distanceM"] as const;

async function writeChunks(db: Database, importId: string, record: TelemetryRecord): Promise<number> {
  let written = 0;
  for (let at = 0; at < record.timeS.length; at += CHUNK) {
    const cut = (column: readonly number[]) => column.slice(at, at + CHUNK);
    const rows = await db
      .insert(telemetryChunk)
      .values({
        importId,
        startsS: record.timeS[at]!,
        timeS: cut(record.timeS),
        volts: cut(record.volts),
        amps: cut(record.amps),
        speedMps: record.speedMps ? cut(record.speedMps) : null,
        distanceM: record.distanceM ? cut(record.distanceM) : null,
      })
      .onConflictDoNothing()
      .returning({ startsS: telemetryChunk.startsS });
    if (rows.length) written += Math.min(CHUNK, record.timeS.length - at);
  }
  return written;
}

/** A ride's imports under its lock; none has two loggers that count. */
const importsOf = (tx: Database, rideId: string) =>
  tx
    .select()
    .from(telemetryImport)
    .where(eq(telemetryImport.rideId, rideId))
    .orderBy(asc(telemetryImport.logger), desc(telemetryImport.receivedAt));

async function locked<T>(db: Database, rideId: string, work: (tx: Database) => Promise<T>): Promise<T> {
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    await tx.select({ id: ride.id }).from(ride).where(eq(ride.id, rideId)).for("no key update");
    const done = await work(tx);
    await restampRide(tx, rideId);
    return done;
  });
}

const channelsOf = (record: TelemetryRecord): string[] =>
  CHANNELS.filter((name) => record[name] !== undefined);

/**
 * Keeps a logger's file of a ride, in one transaction. The same file again changes nothing; another one of the same logger
 * takes the place of the earlier, which stays and can be brought back.
 *
 * @param sourceHash of the file's text; @param offsetS what is added to its times, s
 */
export async function saveTelemetry(
  db: Database,
  rideId: string,
  record: TelemetryRecord,
  sourceHash: string,
  offsetS = 0,
): Promise<void> {
  await locked(db, rideId, async (tx) => {
    const others = (await importsOf(tx, rideId)).filter(({ replacedAt }) => replacedAt === null);
    const earlier = others.filter(({ logger }) => logger === record.logger);
    if (earlier.some((each) => each.sourceHash === sourceHash)) return;
    for (const each of earlier)
      await tx
        .update(telemetryImport)
        .set({ replacedAt: new Date(), counts: false })
        .where(eq(telemetryImport.id, each.id));
    const id = uuidv7();
    await tx.insert(telemetryImport).values({
      id,
      rideId,
      logger: record.logger,
      sourceHash,
      offsetS,
      channels: channelsOf(record),
      samples: record.timeS.length,
      counts: !others.some(({ counts, logger }) => counts && logger !== record.logger),
    });
    await writeChunks(tx, id, record);
  });
}

/** Adds a row of samples that a device wrote to what it gave of the ride before; a row sent again changes nothing. */
export async function addSamples(db: Database, rideId: string, record: TelemetryRecord): Promise<void> {
  await locked(db, rideId, async (tx) => {
    const others = (await importsOf(tx, rideId)).filter(({ replacedAt }) => replacedAt === null);
    let id = others.find(({ logger, sourceHash }) => logger === record.logger && sourceHash === null)?.id;
    if (id === undefined) {
      id = uuidv7();
      await tx.insert(telemetryImport).values({
        id,
        rideId,
        logger: record.logger,
        channels: channelsOf(record),
        counts: !others.some(({ counts }) => counts),
      });
    }
    const written = await writeChunks(tx, id, record);
    await tx
      .update(telemetryImport)
      .set({ samples: sql`${telemetryImport.samples} + ${written}` })
      .where(eq(telemetryImport.id, id));
  });
}

/** What loggers gave of a ride, replaced files among it. */
export async function listImports(db: Database, rideId: string): Promise<readonly LoggerImport[]> {
  return (await importsOf(db, rideId)).map(
    ({ id, logger, sourceHash, samples, receivedAt, offsetS, counts, replacedAt }) => ({
      id,
      logger,
      sourceHash,
      samples,
      receivedAt: receivedAt.toISOString(),
      offsetS,
      counts,
      replaced: replacedAt !== null,
    }),
  );
}

/** Puts a logger's clock by so many seconds from the times of its file. */
export async function setImportOffset(
  db: Database,
  rideId: string,
  importId: string,
  offsetS: number,
): Promise<void> {
  await locked(db, rideId, (tx) =>
    tx
      .update(telemetryImport)
      .set({ offsetS })
      .where(and(eq(telemetryImport.id, importId), eq(telemetryImport.rideId, rideId))),
  );
}

/** Lets an import count for its ride, in place of any other; a replaced one comes back. False when there is none. */
export async function chooseImport(db: Database, rideId: string, importId: string): Promise<boolean> {
  return locked(db, rideId, async (tx) => {
    const imports = await importsOf(tx, rideId);
    const chosen = imports.find(({ id }) => id === importId);
    if (!chosen) return false;
    for (const { id, logger, replacedAt } of imports) {
      const counts = id === importId;
      const gone = !counts && (replacedAt !== null || logger === chosen.logger);
      await tx
        .update(telemetryImport)
        .set({ counts, replacedAt: gone ? (replacedAt ?? new Date()) : null })
        .where(eq(telemetryImport.id, id));
    }
    return true;
  });
}

/**
 * A ride's samples, of the logger that counts; null when nothing was logged, or when it cannot be read.
 *
 * @param unreadable is told what cannot be read
 */
export async function readTelemetry(
  db: Database,
  rideId: string,
  unreadable?: Unreadable[],
): Promise<TelemetryRecord | null> {
  const [chosen] = await db
    .select()
    .from(telemetryImport)
    .where(and(eq(telemetryImport.rideId, rideId), isNull(telemetryImport.replacedAt)))
    .orderBy(desc(telemetryImport.counts), asc(telemetryImport.logger))
    .limit(1);
  if (!chosen) return null;
  const chunks = await db
    .select()
    .from(telemetryChunk)
    .where(eq(telemetryChunk.importId, chosen.id))
    .orderBy(asc(telemetryChunk.startsS));
  if (!chunks.length) return null;
  const [record] = readRows(
    "telemetry_import",
    [chosen],
    ({ logger, offsetS }) => telemetrySchema.parse(joined(logger, offsetS, chunks)),
    unreadable,
  );
  return record ?? null;
}

type Chunk = typeof telemetryChunk.$inferSelect;

/** Chunks end to end as columns; where two browsers kept the same moments, each counts once. */
function joined(logger: string, offsetS: number, chunks: readonly Chunk[]) {
  const column = (name: "timeS" | "volts" | "amps" | "speedMps" | "distanceM") =>
    chunks.every((chunk) => chunk[name] !== null) ? chunks.flatMap((chunk) => chunk[name]!) : undefined;
  const timeS = column("timeS") ?? [];
  let latest = -Infinity;
  const rising = timeS.flatMap((time, i) => {
    if (time < latest) return [];
    latest = time;
    return [i];
  });
  const kept = (values: readonly number[]) =>
    rising.length === timeS.length ? [...values] : rising.map((i) => values[i]!);
  const [speedMps, distanceM] = [column("speedMps"), column("distanceM")];
  return {
    logger,
    timeS: kept(timeS).map((time) => time + offsetS),
    volts: kept(column("volts") ?? []),
    amps: kept(column("amps") ?? []),
    ...(speedMps && { speedMps: kept(speedMps) }),
    ...(distanceM && { distanceM: kept(distanceM) }),
  };
}
