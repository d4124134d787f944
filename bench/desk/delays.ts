import { setTimeout } from "node:timers/promises";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "#db/client";
import { appendEntries } from "#db/log";
import { listRides, listTests, saveTest, type TestLine } from "#db/tests";
import { longRide, longTrack } from "../inputs.ts";
import { median } from "../measure.ts";
import type { Report } from "../report.ts";
import { LIMIT, page, timed, type Running } from "./running.ts";

/** The longest a light page waits while something heavy goes on, beyond what it takes by itself, ms. */
async function delayOnce({ address }: Running, heavy: () => Promise<unknown>): Promise<number> {
  const light = () => page(address, "/bikes/riders/new");
  const alone = await median(9, light);
  let going = true;
  const over = heavy().finally(() => {
    going = false;
  });
  let longest = 0;
  while (going) {
    longest = Math.max(longest, (await timed(light)) - alone);
    await setTimeout(15);
  }
  await over;
  return longest;
}

/** The same, the middle one of three: a pause of the collector counts once. */
async function delayBy(desk: Running, heavy: () => Promise<unknown>): Promise<number> {
  const delays: number[] = [];
  for (let i = 0; i < 3; i += 1) delays.push(await delayOnce(desk, heavy));
  return delays.sort((a, b) => a - b)[1]!;
}

/** A ride of many marks, put on the desk. */
async function addMarks(db: Database, first: TestLine, marks: number): Promise<string> {
  const record = longRide(marks);
  const id = uuidv7();
  const ride = { id: uuidv7(), zone: "+00:00" };
  await saveTest(db, id, { ...first, secondPackId: null }, record.test, { firstRide: ride });
  await appendEntries(
    db,
    ride.id,
    record.rides[0]!.entries.map((entry) => ({ ...entry, id: uuidv7() })),
  );
  return id;
}

/** Others' work: nothing that one person asks for holds up another. */
export async function benchDelays(report: Report, desk: Running): Promise<readonly boolean[]> {
  const { address, db } = desk;
  const [first] = await listTests(db, { limit: 1 });
  const [ride] = await listRides(db, first!.id);
  const origin = { origin: address };
  const long = await addMarks(db, first!, 5000);
  const strip = async (id: string) => [
    await page(address, `/strip/${id}`),
    await page(address, `/strip/${id}/long`),
  ];
  /** A form with a file, written out before the clock runs: what is measured is the server's work, not the sender's. */
  const upload = (path: string, name: string, text: string) => {
    const edge = "----bench";
    const body = Buffer.from(
      `--${edge}\r\nContent-Disposition: form-data; name="rideId"\r\n\r\n${ride!.id}\r\n--${edge}\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\nContent-Type: text/plain\r\n\r\n${text}\r\n--${edge}--\r\n`,
    );
    const headers = { ...origin, "content-type": `multipart/form-data; boundary=${edge}` };
    return async () => {
      const response = await fetch(address + path, { method: "POST", body, headers, redirect: "manual" });
      await response.text();
      if (response.status >= 500) throw new Error(`${path} answered ${response.status}`);
    };
  };
  const track = longTrack(220_000);
  const rows = `time,volts,amps\n${Array.from({ length: 199_000 }, (_, i) => `${1_760_000_000 + i},50.1,6.2`).join("\n")}`;
  const delays: readonly (readonly [string, () => Promise<unknown>])[] = [
    ["a strip of 5,000 marks", () => strip(long)],
    [`a track of ${(track.length / 1e6).toFixed(0)} MB`, upload(`/strip/${first!.id}/track`, "a.gpx", track)],
    ["a logger's file of 199,000 rows", upload(`/strip/${first!.id}/logger`, "a.csv", rows)],
    [
      "a logger's file of 1,000,000 rows, refused",
      upload(`/strip/${first!.id}/logger`, "b.csv", `time,volts,amps\n${"1,50,6\n".repeat(1_000_000)}`),
    ],
    [
      "16 clients at the standings",
      () =>
        Promise.all(
          Array.from({ length: 16 }, (_, i) => page(address, `/compare?under=House&pack=${300 + i}`)),
        ),
    ],
  ];
  const fine: boolean[] = [];
  for (const [what, heavy] of delays)
    fine.push(report(`delay of another's page by ${what}`, await delayBy(desk, heavy), LIMIT.delay));
  fine.push(report("page of the 5,000-mark strip, reckoned", await median(3, () => strip(long)), 4000));
  return fine;
}
