import { countStale } from "#db/results";
import { saveTelemetry } from "#db/telemetry";
import { listRides, listTests } from "#db/tests";
import { median } from "../measure.ts";
import type { Report } from "../report.ts";
import { LIMIT, page, timed, until, type Running } from "./running.ts";

const HOURS = 10;

/** Ten hours of a logger at one sample a second. */
export async function benchTelemetry(report: Report, desk: Running): Promise<readonly boolean[]> {
  const { address, db, build } = desk;
  const [first] = await listTests(db, { limit: 1 });
  const [ride] = await listRides(db, first!.id);
  const seconds = Array.from({ length: HOURS * 3600 }, (_, i) => i);
  const startS = 1_760_600_000;
  const record = {
    logger: "ten hours",
    timeS: seconds.map((second) => startS + second),
    volts: seconds.map((second) => 54 - second / 4000),
    amps: seconds.map((second) => 5 + 3 * Math.sin(second / 40)),
    speedMps: seconds.map(() => 6),
  };
  const saving = await timed(() => saveTelemetry(db, ride!.id, record, "ten hours"));
  const fine = [report(`${HOURS} h of telemetry kept`, saving, 3000)];
  await page(address, `/strip/${first!.id}`);
  await until(async () => (await countStale(db, build)).stale === 0);
  fine.push(
    report(
      `strip of a test with ${HOURS} h of telemetry`,
      await median(5, () => page(address, `/strip/${first!.id}`)),
      LIMIT.afterOne,
    ),
  );
  return fine;
}
