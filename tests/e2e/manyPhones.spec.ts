import { request as https } from "node:https";
import { expect, test, type APIRequestContext } from "@playwright/test";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { withClient } from "#db/backup/databases";
import { connect, type Connection } from "#db/client";
import { newPhone, pairPhone } from "#db/people/phones";
import { FIRST_DESK } from "#db/schema";
import { PHONE_COOKIE } from "#app/services/people/people.server";
import { shareDemo, type SharedDesk } from "./sharedDesk";

/** A shared desk under more than it is made for: forty phones while its database is away, and 400 answers nobody reads. */
test.describe.configure({ mode: "serial" });
test.use({ ignoreHTTPSErrors: true });

const PHONES = 40;
const ENTRIES_EACH = 12;
let desk: SharedDesk;
let connection: Connection;
let testId = "";
let rideId = "";

test.beforeAll(async () => {
  desk = await shareDemo();
  connection = connect(desk.databaseUrl, 2);
  const { rows } = await connection.db.execute<{ test: string; ride: string }>(
    sql`select t.id as test, r.id as ride from test t join ride r on r.test_id = t.id where t.rehearsal is null limit 1`,
  );
  [testId, rideId] = [rows[0]!.test, rows[0]!.ride];
});
test.afterAll(async () => {
  await connection.close();
  await desk.end();
});

async function pairedSecret(name: string): Promise<string> {
  const { code } = await newPhone(connection.db, { deskId: FIRST_DESK, name, tests: [testId] });
  return (await pairPhone(connection.db, code))!.secret;
}

/** Sends an entry until it is kept, as a phone's outbox does; answers how often it was sent. */
async function keptAfter(ask: APIRequestContext, secret: string, id: string, seq: number): Promise<number> {
  for (let tries = 1; ; tries += 1) {
    const answer = await ask
      .post(`${desk.at}/ride/${testId}/entries`, {
        headers: { origin: desk.at, cookie: `${PHONE_COOKIE}=${secret}` },
        data: {
          rideId,
          entries: [
            {
              id,
              seq,
              at: null,
              supersedes: null,
              body: { kind: "note", note: `from ${secret.slice(0, 6)}` },
            },
          ],
        },
        timeout: 30_000,
      })
      .catch(() => null);
    if (answer?.status() === 200) return tries;
    // Away for a moment is all it may be: nothing is refused for good, and nothing is barred.
    if (answer) expect([429, 500, 502, 503, 504]).toContain(answer.status());
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}

test("forty phones whose database goes away twice lose no entry and make none twice", async ({ request }) => {
  test.slow();
  const secrets = await Promise.all(Array.from({ length: PHONES }, (_, i) => pairedSecret(`phone ${i}`)));
  const sent = secrets.map((secret) => ({
    secret,
    ids: Array.from({ length: ENTRIES_EACH }, () => uuidv7()),
  }));
  const name = new URL(desk.databaseUrl).pathname.slice(1);
  const admin = desk.databaseUrl.replace(/[^/]*$/, "postgres");
  const away = async (ms: number) => {
    await withClient(admin, async (client) => {
      await client.query(`alter database "${name}" allow_connections false`);
      await client.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = $1", [name]);
    });
    await new Promise((resolve) => setTimeout(resolve, ms));
    await withClient(admin, (client) => client.query(`alter database "${name}" allow_connections true`));
  };
  const phones = sent.map(async ({ secret, ids }, phone) => {
    let tries = 0;
    for (const [i, id] of ids.entries())
      tries += await keptAfter(request, secret, id, 1000 + phone * 100 + i);
    return tries;
  });
  const outages = (async () => {
    for (const ms of [2000, 4000]) {
      await new Promise((resolve) => setTimeout(resolve, 1500));
      await away(ms);
    }
  })();
  const [tries] = await Promise.all([Promise.all(phones), outages]);
  expect(tries.reduce((sum, each) => sum + each, 0)).toBeGreaterThan(PHONES * ENTRIES_EACH);
  const { rows } = await connection.db.execute<{ id: string }>(
    sql`select id::text as id from entry where ride_id = ${rideId} and body->>'note' like 'from %'`,
  );
  expect(rows.map(({ id }) => id).sort()).toEqual(sent.flatMap(({ ids }) => ids).sort());
});

test("400 answers that nobody reads hold up nobody at another address", async ({ request }) => {
  test.slow();
  const secret = await pairedSecret("reader");
  const { hostname, port } = new URL(desk.at);
  const open = Array.from({ length: 400 }, () => {
    const asked = https({
      ...{ hostname, port, path: `/strip/${testId}/record`, rejectUnauthorized: false, agent: false },
      ...{ family: 4, localAddress: "127.0.0.2" },
      headers: { host: `${hostname}:${port}`, cookie: `${PHONE_COOKIE}=${secret}` },
    });
    // The answer begins and is never read on.
    asked.on("response", (response) => response.pause());
    asked.on("error", () => undefined);
    asked.end();
    return asked;
  });
  await new Promise((resolve) => setTimeout(resolve, 3000));
  const statuses: number[] = [];
  for (let i = 0; i < 10; i += 1) {
    const answer = await request.get(`${desk.at}/ride/${testId}`, {
      headers: { cookie: `${PHONE_COOKIE}=${secret}` },
      timeout: 30_000,
    });
    statuses.push(answer.status());
  }
  open.forEach((asked) => asked.destroy());
  expect(statuses).toEqual(Array(10).fill(200));
});
