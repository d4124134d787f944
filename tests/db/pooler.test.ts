import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { connect as dial } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema } from "#core/records";
import { dropDatabase, withClient } from "#db/backup/databases";
import { listBikes, saveBike } from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { bike, desk, FIRST_DESK } from "#db/schema";
import { needPooler } from "../../command/packages";
import { MIGRATIONS } from "../../command/paths";
import { freePort } from "../../command/ports";
import { isRoot } from "../../command/run";

/** Desks through a pooler that gives each transaction another connection: they are kept apart all the same. */
const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const name = `pooled_${process.pid}`;
const folder = mkdtempSync(join(tmpdir(), "barometron-pooler-"));
const second = uuidv7();
let pooler: ChildProcess;
let connection: Connection;

async function answers(port: number): Promise<void> {
  for (let tries = 0; tries < 100; tries += 1) {
    const socket = dial(port, "127.0.0.1");
    const came = await Promise.race([once(socket, "connect"), once(socket, "error")]).then(
      () => true,
      () => false,
    );
    socket.destroy();
    if (came) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("The pooler does not answer.");
}

beforeAll(async () => {
  await withClient(`${address}/postgres`, (client) => client.query(`create database ${name}`));
  await migrateDatabase(`${address}/${name}`, MIGRATIONS);
  const { hostname, port: to, username, password } = new URL(address);
  const port = await freePort(6440);
  const config = join(folder, "pgbouncer.ini");
  writeFileSync(
    config,
    `[databases]
${name} = host=${hostname} port=${to} user=${username} password=${password}
[pgbouncer]
listen_addr = 127.0.0.1
listen_port = ${port}
unix_socket_dir =
auth_type = any
pool_mode = transaction
default_pool_size = 5
ignore_startup_parameters = extra_float_digits,statement_timeout,idle_in_transaction_session_timeout
`,
  );
  chmodSync(folder, 0o755);
  chmodSync(config, 0o644);
  const [program, args] = isRoot
    ? ["runuser", ["-u", "postgres", "--", needPooler(), config]]
    : [needPooler(), [config]];
  pooler = spawn(program, args, { stdio: "ignore", cwd: "/", detached: true });
  await answers(port);
  connection = connect(`postgres://${username}@127.0.0.1:${port}/${name}`, 8, true);
  await connection.db.insert(desk).values({ id: second, name: "Second" });
  for (const [deskId, title] of [
    [FIRST_DESK, "first's"],
    [second, "second's"],
  ] as const)
    await saveBike(
      connection.at({ deskId, actor: "" }),
      uuidv7(),
      bikeSchema.parse({ name: title, levels: ["low"] }),
    );
});
afterAll(async () => {
  await connection.close();
  const ended = once(pooler, "exit");
  process.kill(-pooler.pid!, "SIGTERM");
  await ended;
  await withClient(`${address}/postgres`, (client) => dropDatabase(client, name));
  rmSync(folder, { recursive: true });
});

describe("desks through a pooler in transaction mode", () => {
  const at = (i: number) => {
    const deskId = i % 2 ? second : FIRST_DESK;
    return { deskId, db: connection.at({ deskId, actor: `u${i % 7}` }) };
  };
  test("800 queries at once are each their own desk's, under the role that sees one", async () => {
    const wrong = await Promise.all(
      Array.from({ length: 800 }, async (_, i) => {
        const { deskId, db } = at(i);
        const { rows } = await db.execute<{ role: string; desk: string; bikes: string }>(
          sql`select current_user as role, desk_now()::text as desk, (select count(*) from bike)::text as bikes`,
        );
        const [row] = rows;
        return row?.role === "barometron_app" && row.desk === deskId && row.bikes === "1" ? [] : [row];
      }),
    );
    expect(wrong.flat()).toEqual([]);
  });
  test("transactions as well, and what is written in them", async () => {
    await Promise.all(
      Array.from({ length: 60 }, async (_, i) => {
        const { deskId, db } = at(i);
        await db.transaction(async (tx) => {
          const rows = await tx.select({ deskId: bike.deskId }).from(bike);
          expect(rows.every((row) => row.deskId === deskId)).toBe(true);
          await tx.insert(bike).values({ id: uuidv7(), name: `${deskId} ${i}`, levels: ["low"] });
        });
      }),
    );
    for (const i of [0, 1]) {
      const { deskId, db } = at(i);
      const names = (await listBikes(db)).map((each) => each.name).filter((each) => / \d+$/.test(each));
      expect([names.length, names.every((each) => each.startsWith(deskId))]).toEqual([30, true]);
    }
  });
  test("a transaction that fails leaves nothing, and its connection is no desk's afterwards", async () => {
    const { db } = at(0);
    const before = (await listBikes(db)).length;
    await expect(
      db.transaction(async (tx) => {
        await tx.insert(bike).values({ id: uuidv7(), name: "half", levels: ["low"] });
        await tx.execute(sql`select 1 / 0`);
      }),
    ).rejects.toThrow();
    await expect(db.execute(sql`select 1 / 0`)).rejects.toThrow();
    expect((await listBikes(db)).length).toBe(before);
    const { rows } = await connection.db.execute<{ role: string }>(sql`select current_user as role`);
    expect(rows[0]!.role).not.toBe("barometron_app");
  });
});
