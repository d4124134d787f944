import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import type { Entry } from "#core/ride/log";
import { bikeSchema, packRecordSchema, testSchema } from "#core/records";
import { keepBackup, listBackups } from "#db/backup/keeping";
import { saveBike, savePack } from "#db/bikes";
import { connect } from "#db/client";
import { appendEntries, listEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { saveTest } from "#db/tests";
import { startCluster, type Cluster } from "../../command/cluster";
import { MIGRATIONS } from "../../command/paths";
import { isRoot } from "../../command/run";

/**
 * A disk that fills up under the desk: entries are written until no more goes in. Every one that was acknowledged is there
 * afterwards, and with room again the desk goes on. Needs a disk of its own, which only root may mount; elsewhere the drill
 * says that it was not made.
 */
const mount = mkdtempSync(join(tmpdir(), "barometron-disk-"));
const mounted = isRoot && spawnSync("mount", ["-t", "tmpfs", "-o", "size=120m", "tmpfs", mount]).status === 0;
const drill = mounted ? test : test.skip;
let cluster: Cluster | null = null;
const ballast = join(mount, "ballast");

beforeAll(async () => {
  if (!mounted) return;
  chmodSync(mount, 0o755);
  const folder = join(mount, "desk");
  mkdirSync(folder);
  cluster = await startCluster({ folder, port: 55_600 + (process.pid % 200) });
  await migrateDatabase(cluster.url, MIGRATIONS);
});
afterAll(() => {
  cluster?.stop();
  if (mounted) spawnSync("umount", [mount]);
  rmSync(mount, { recursive: true, force: true });
});

describe("a full disk", () => {
  drill("loses no acknowledged entry, leaves no half backup, and goes on when there is room", async () => {
    const { url } = cluster!;
    const { db, close } = connect(url, 2);
    const ids = { bike: uuidv7(), pack: uuidv7(), test: uuidv7(), ride: uuidv7() };
    await saveBike(db, ids.bike, bikeSchema.parse({ name: "full", levels: ["low"] }));
    await savePack(db, ids.pack, ids.bike, packRecordSchema.parse({ name: "p", labelWh: 500 }));
    await saveTest(
      db,
      ids.test,
      { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null },
      testSchema.parse({ title: "full", day: "2026-10-18" }),
      { firstRide: { id: ids.ride, zone: "+00:00" } },
    );
    const note = (): Entry => ({
      id: uuidv7(),
      seq: 0,
      at: null,
      supersedes: null,
      // Words that do not compress to nothing.
      body: { kind: "note", note: Array.from({ length: 40 }, () => uuidv7()).join(" ") },
    });
    // Most of the room goes first, so that the rest is soon full.
    spawnSync("sh", ["-c", `head -c 34m /dev/urandom > ${ballast} || true`]);
    const acknowledged: string[] = [];
    let refused = 0;
    for (let batch = 0; batch < 400 && refused < 3; batch += 1) {
      const entries = Array.from({ length: 50 }, note);
      try {
        for (const { id } of await appendEntries(db, ids.ride, entries)) acknowledged.push(id);
      } catch {
        refused += 1;
      }
    }
    expect(refused).toBeGreaterThan(0);
    const backups = join(mount, "backups");
    expect((await keepBackup(url, backups, MIGRATIONS)).ok).toBe(false);
    expect(listBackups(backups)).toEqual([]);

    // Room again: the database may have ended itself, and is started again as the start command does.
    rmSync(ballast);
    await close().catch(() => undefined);
    if (!cluster!.lives()) cluster = await startCluster({ folder: join(mount, "desk"), port: 55_600 });
    const again = connect(cluster!.url, 2);
    const read = async (): Promise<readonly Entry[]> =>
      // It may still be going through what it wrote last.
      listEntries(again.db, ids.ride).catch(async () => {
        await new Promise((resolve) => setTimeout(resolve, 200));
        return read();
      });
    const held = new Set((await read()).map(({ id }) => id));
    expect(acknowledged.filter((id) => !held.has(id))).toEqual([]);
    expect(await appendEntries(again.db, ids.ride, [note()])).toMatchObject([{ told: "kept" }]);
    await again.close();
    process.stdout.write(
      `  ${acknowledged.length} entries acknowledged before the disk was full, all held\n`,
    );
  });
});
