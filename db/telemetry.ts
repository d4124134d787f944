import { asc, eq, sql } from "drizzle-orm";
import type { TelemetryRecord } from "#core/records";
import type { Database } from "./client.ts";
import { telemetry } from "./schema.ts";

/** Samples to a row. */
const CHUNK = 4096;

/** Makes the partition of a month if it is not there yet. */
async function needMonth(db: Database, moment: Date): Promise<void> {
  const [year, month] = [moment.getUTCFullYear(), moment.getUTCMonth()];
  const [from, to] = [month, month + 1].map((each) => new Date(Date.UTC(year, each)).toISOString());
  const name = `${year}_${String(month + 1).padStart(2, "0")}`;
  await db.execute(
    sql.raw(
      `create table if not exists telemetry_${name} partition of telemetry for values from ('${from}') to ('${to}')`,
    ),
  );
}

/** Keeps a logger's samples of a ride; a chunk sent again changes nothing. */
export async function saveTelemetry(db: Database, rideId: string, record: TelemetryRecord): Promise<void> {
  const { logger, timeS, volts, amps, speedMps, distanceM } = record;
  for (let at = 0; at < timeS.length; at += CHUNK) {
    const cut = (column: readonly number[]) => column.slice(at, at + CHUNK);
    const startsAt = new Date(timeS[at]! * 1000);
    await needMonth(db, startsAt);
    await db
      .insert(telemetry)
      .values({
        rideId,
        logger,
        startsAt: startsAt.toISOString(),
        timeS: cut(timeS),
        volts: cut(volts),
        amps: cut(amps),
        speedMps: speedMps ? cut(speedMps) : null,
        distanceM: distanceM ? cut(distanceM) : null,
      })
      .onConflictDoNothing();
  }
}

/** A ride's samples, of the logger that comes first by name; null when nothing was logged. */
export async function readTelemetry(db: Database, rideId: string): Promise<TelemetryRecord | null> {
  const chunks = await db
    .select()
    .from(telemetry)
    .where(eq(telemetry.rideId, rideId))
    .orderBy(asc(telemetry.logger), asc(telemetry.startsAt));
  const own = chunks.filter(({ logger }) => logger === chunks[0]?.logger);
  if (!own.length) return null;
  const column = (name: "timeS" | "volts" | "amps" | "speedMps" | "distanceM") =>
    own.every((chunk) => chunk[name] !== null) ? own.flatMap((chunk) => chunk[name]!) : undefined;
  const timeS = column("timeS")!;
  // Two browsers may have kept the same moments: each counts once.
  let latest = -Infinity;
  const rising = timeS.flatMap((time, i) => {
    if (time < latest) return [];
    latest = time;
    return [i];
  });
  const kept = (values: readonly number[]) =>
    rising.length === timeS.length ? values : rising.map((i) => values[i]!);
  const [speedMps, distanceM] = [column("speedMps"), column("distanceM")];
  return {
    logger: own[0]!.logger,
    timeS: [...kept(timeS)],
    volts: [...kept(column("volts")!)],
    amps: [...kept(column("amps")!)],
    ...(speedMps && { speedMps: [...kept(speedMps)] }),
    ...(distanceM && { distanceM: [...kept(distanceM)] }),
  };
}
