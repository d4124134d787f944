import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { eq, sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema } from "#core/records";
import { findBike, listBikes, saveBike } from "#db/bikes";
import { dropDatabase, withClient } from "#db/backup/databases";
import { connect, type Connection } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { followLink, newLink, takeBackLink, listLinks } from "#db/people/links";
import { findCode, findPhone, listPhones, newPhone, pairPhone, takeBackPhone } from "#db/people/phones";
import {
  addMember,
  desksOf,
  findInvitation,
  forgetPerson,
  invite,
  listMembers,
  makeDesk,
  ownsAllDesksOf,
  removeMember,
  setRole,
  signInAddress,
  spendInvitation,
} from "#db/people/people";
import { forgetExpired } from "#db/people/expired";
import { invitation, phone, session, shareLink, user } from "#db/people/schema";
import { endSession, sessionsOf } from "#db/people/sessions";
import { changesOf } from "#db/people/trail";
import { bike, FIRST_DESK } from "#db/schema";
import { firstOwner } from "../../command/firstOwner";
import { MIGRATIONS } from "../../command/paths";

const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const name = "shared_desk";
let connection: Connection;

beforeAll(async () => {
  await withClient(`${address}/postgres`, (client) => client.query(`create database ${name}`));
  await migrateDatabase(`${address}/${name}`, MIGRATIONS);
  connection = connect(`${address}/${name}`, 4, true);
});
afterAll(async () => {
  await connection.close();
  await withClient(`${address}/postgres`, (client) => dropDatabase(client, name));
});

const someone = async (who: string) => {
  const id = uuidv7();
  await connection.db.insert(user).values({ id, name: who, email: signInAddress(who) });
  return id;
};
const aBike = (title: string) => bikeSchema.parse({ name: title, levels: ["low"], massKg: 25 });
const at = (deskId: string, actor = "") => connection.at({ deskId, actor });

describe("desks on one database", () => {
  test("see their own rows only, and write into no other, whatever is asked", async () => {
    const owner = await someone("Idris");
    const second = await makeDesk(connection.db, "Second desk", owner);
    const [mine, theirs] = [uuidv7(), uuidv7()];
    await saveBike(at(FIRST_DESK), mine, aBike("first's"));
    await saveBike(at(second), theirs, aBike("second's"));
    expect((await listBikes(at(FIRST_DESK))).map((each) => each.name)).toEqual(["first's"]);
    expect((await listBikes(at(second))).map((each) => each.name)).toEqual(["second's"]);
    expect(await findBike(at(FIRST_DESK), theirs)).toBeNull();
    await at(FIRST_DESK).update(bike).set({ name: "taken" }).where(eq(bike.id, theirs));
    await at(FIRST_DESK).delete(bike).where(eq(bike.id, theirs));
    expect((await findBike(at(second), theirs))?.name).toBe("second's");
    await expect(
      at(FIRST_DESK).execute(
        sql`insert into bike (id, desk_id, name) values (${uuidv7()}, ${second}, 'smuggled')`,
      ),
    ).rejects.toThrow();
  });
  test("a connection that names no desk sees nothing", async () => {
    const nobody = at("00000000-0000-0000-0000-000000000000", "nobody");
    expect(await listBikes(nobody)).toEqual([]);
    await expect(saveBike(nobody, uuidv7(), aBike("nobody's"))).rejects.toThrow();
  });
  test("hashes of passphrases and sessions are out of a desk's reach", async () => {
    for (const table of ["account", "session", "passkey", "verification"])
      await expect(at(FIRST_DESK).execute(sql.raw(`select * from ${table}`))).rejects.toThrow();
  });
  test("two at once on one pool stay each at their own", async () => {
    const owner = await someone("Tove");
    const third = await makeDesk(connection.db, "Third desk", owner);
    await saveBike(at(third), uuidv7(), aBike("third's"));
    const asked = Array.from({ length: 60 }, async (_, i) => {
      const desk = i % 2 ? third : FIRST_DESK;
      const rows = await at(desk, `u${i % 5}`).transaction((tx) =>
        tx.select({ deskId: bike.deskId }).from(bike),
      );
      return rows.length > 0 && rows.every(({ deskId }) => deskId === desk);
    });
    expect(await Promise.all(asked)).not.toContain(false);
  });
});

describe("people", () => {
  test("a desk keeps an owner", async () => {
    const [first, second] = [await someone("Odile"), await someone("Wim")];
    const desk = await makeDesk(connection.db, "Kept", first);
    expect(await setRole(connection.db, desk, first, "viewer")).toContain("at least one owner");
    expect(await removeMember(connection.db, desk, first)).toContain("at least one owner");
    await addMember(connection.db, desk, second, "owner");
    expect(await setRole(connection.db, desk, first, "viewer")).toBeNull();
    expect((await desksOf(connection.db, first)).map(({ role }) => role)).toEqual(["viewer"]);
    expect(await removeMember(connection.db, desk, first)).toBeNull();
    expect((await listMembers(connection.db, desk)).map((each) => each.name)).toEqual(["Wim"]);
  });
  test("an invitation lets one in, once, in its time", async () => {
    const secret = await invite(connection.db, { deskId: FIRST_DESK, role: "editor", name: "Wim" });
    const found = await findInvitation(connection.db, secret);
    expect(found).toMatchObject({ role: "editor", name: "Wim", reset: null });
    expect(await findInvitation(connection.db, `${secret}x`)).toBeNull();
    const used = await Promise.all([
      spendInvitation(connection.db, found!),
      spendInvitation(connection.db, found!),
    ]);
    expect(used.sort()).toEqual([false, true]);
    expect(await findInvitation(connection.db, secret)).toBeNull();
    const late = await invite(connection.db, { deskId: FIRST_DESK, role: "viewer", hours: -1 });
    expect(await findInvitation(connection.db, late)).toBeNull();
    const [row] = await connection.db.select().from(invitation).limit(1);
    expect(JSON.stringify(row)).not.toContain(secret);
  });
  describe("a new passphrase", () => {
    const { deskOf, open } = {
      deskOf: (title: string, owner: string) => makeDesk(connection.db, title, owner),
      open: (resetOf: string, deskId: string) =>
        invite(connection.db, { deskId, role: "viewer" as const, resetOf, hours: 2 }),
    };
    test("is set by an owner of all of somebody's desks, never by one of another desk only", async () => {
      const [host, guest, both] = [await someone("Host"), await someone("Guest"), await someone("Both")];
      await addMember(connection.db, FIRST_DESK, host, "owner");
      const second = await deskOf("Beside", host);
      await addMember(connection.db, second, guest, "owner");
      await addMember(connection.db, second, both, "viewer");
      expect(await ownsAllDesksOf(connection.db, guest, host)).toBe(false);
      expect(await ownsAllDesksOf(connection.db, host, guest)).toBe(true);
      expect(await ownsAllDesksOf(connection.db, guest, both)).toBe(true);
      await addMember(connection.db, FIRST_DESK, both, "viewer");
      expect(await ownsAllDesksOf(connection.db, guest, both)).toBe(false);
      expect(await ownsAllDesksOf(connection.db, host, both)).toBe(true);
      expect(await ownsAllDesksOf(connection.db, host, await someone("Nowhere"))).toBe(false);
    });
    test("goes by the newest link; a role, a desk more and a removal void what was sent before", async () => {
      const [owner, other] = [await someone("Owner of links"), await someone("Other of links")];
      const [desk, elsewhere] = [await deskOf("Links", owner), await deskOf("Elsewhere", owner)];
      await addMember(connection.db, desk, other, "editor");
      const holds = async (secret: string) => (await findInvitation(connection.db, secret)) !== null;
      const first = await open(other, desk);
      const second = await open(other, desk);
      expect([await holds(first), await holds(second)]).toEqual([false, true]);
      for (const change of [
        () => setRole(connection.db, desk, other, "owner"),
        () => addMember(connection.db, elsewhere, other, "viewer"),
        () => removeMember(connection.db, desk, other),
      ]) {
        const secret = await open(other, desk);
        await change();
        expect(await holds(secret)).toBe(false);
      }
    });
    test("somebody taken off one desk stays signed in for another, and off the last is signed out", async () => {
      const [owner, leaving] = [await someone("Owner of two"), await someone("Leaving")];
      const desks = [await deskOf("One", owner), await deskOf("Two", owner)];
      for (const desk of desks) await addMember(connection.db, desk, leaving, "editor");
      const expiresAt = new Date(Date.now() + 3_600_000);
      await connection.db
        .insert(session)
        .values({ id: uuidv7(), userId: leaving, expiresAt, token: uuidv7() });
      await removeMember(connection.db, desks[0]!, leaving);
      expect(await sessionsOf(connection.db, leaving)).toHaveLength(1);
      await removeMember(connection.db, desks[1]!, leaving);
      expect(await sessionsOf(connection.db, leaving)).toHaveLength(0);
    });
  });
  test("one name is one address, however it is written, and the address shows no name", () => {
    expect(signInAddress(" Maren  Holt ")).toBe(signInAddress("maren holt"));
    expect(signInAddress("Maren")).not.toBe(signInAddress("Idris"));
    expect(signInAddress("Maren").toLowerCase()).not.toContain("maren");
  });
});

describe("what runs out", () => {
  test("is dropped: what has ended a month ago, and nothing that holds", async () => {
    const later = (days: number) => new Date(Date.now() + days * 86_400_000);
    const held = await invite(connection.db, {
      deskId: FIRST_DESK,
      role: "viewer",
      name: "held",
      hours: 24 * 90,
    });
    await invite(connection.db, { deskId: FIRST_DESK, role: "viewer", name: "run out", hours: 1 });
    const names = async () =>
      (await connection.db.select({ name: invitation.name }).from(invitation)).map((each) => each.name);
    await forgetExpired(connection.db, later(20));
    expect(await names()).toEqual(expect.arrayContaining(["held", "run out"]));
    await forgetExpired(connection.db, later(40));
    expect(await names()).toContain("held");
    expect(await names()).not.toContain("run out");
    expect(await findInvitation(connection.db, held)).not.toBeNull();
  });
  test("somebody is forgotten: their name goes, what they wrote stays, and a desk keeps an owner", async () => {
    const [owner, leaving] = [await someone("Benno"), await someone("Ida of the mill")];
    const mill = await makeDesk(connection.db, "Mill", owner);
    await addMember(connection.db, mill, leaving, "editor");
    const id = uuidv7();
    await saveBike(at(mill, leaving), id, aBike("mill's"));
    expect(await forgetPerson(connection.db, owner)).toContain("at least one owner");
    expect(await forgetPerson(connection.db, leaving)).toBeNull();
    expect((await listBikes(at(mill))).map((each) => each.name)).toEqual(["mill's"]);
    expect((await changesOf(at(mill), "bike", id)).changes[0]!.by).toBe("somebody who is gone");
    expect(await desksOf(connection.db, leaving)).toEqual([]);
  });
  test("one ends one's own sessions, and nobody else's", async () => {
    const [one, other] = [await someone("One of two"), await someone("Other of two")];
    const open = async (userId: string) => {
      const sessionId = uuidv7();
      const expiresAt = new Date(Date.now() + 3_600_000);
      await connection.db.insert(session).values({ id: sessionId, userId, expiresAt, token: uuidv7() });
      return sessionId;
    };
    const [kept, ended] = [await open(one), await open(one)];
    await endSession(connection.db, other, ended);
    expect(await sessionsOf(connection.db, one)).toHaveLength(2);
    await endSession(connection.db, one, ended);
    expect((await sessionsOf(connection.db, one)).map(({ id }) => id)).toEqual([kept]);
  });
});

describe("the first owner", () => {
  const shared = { PUBLIC_URL: "https://desk.example", BAROMETRON_SECRET: "s".repeat(40) };
  const before = { ...process.env };
  const own = "first_owner";
  const folder = mkdtempSync(join(tmpdir(), "barometron-first-"));
  const letIn = join(folder, "first-owner");
  beforeAll(async () => {
    await withClient(`${address}/postgres`, (client) => client.query(`create database ${own}`));
    await migrateDatabase(`${address}/${own}`, MIGRATIONS);
    Object.assign(process.env, shared);
  });
  afterAll(async () => {
    process.env = before;
    rmSync(folder, { recursive: true });
    await withClient(`${address}/postgres`, (client) => dropDatabase(client, own));
  });
  test("is let in by the newest link only, which nobody else reads, and which voids the others", async () => {
    const { db, close } = connect(`${address}/${own}`, 1);
    try {
      const linked = async () => {
        await firstOwner(`${address}/${own}`, shared.PUBLIC_URL, null, letIn);
        return readFileSync(letIn, "utf8").trim().split("/").at(-1)!;
      };
      const older = await linked();
      const newer = await linked();
      expect(statSync(letIn).mode & 0o077).toBe(0);
      expect(await findInvitation(db, older)).toBeNull();
      const byMachine = await invite(db, { deskId: FIRST_DESK, role: "owner" });
      const found = await findInvitation(db, newer);
      expect(await spendInvitation(db, found!)).toBe(true);
      expect(await findInvitation(db, byMachine)).toBeNull();
    } finally {
      await close();
    }
  });
  test("is asked on the terminal until name and passphrase will do, and only once", async () => {
    const asked: (string | null)[] = [];
    const answers = (lines: readonly string[]) => async (problem: (typed: string) => string | null) => {
      for (const line of lines) {
        asked.push(problem(line));
        if (problem(line) === null) return line;
      }
      throw new Error("asked once more than expected");
    };
    const ask = {
      name: answers([" ", "Maren"]),
      passphrase: answers(["short", "password1234", "four quiet levee words"]),
    };
    await firstOwner(`${address}/${own}`, shared.PUBLIC_URL, ask, letIn);
    expect(asked.map((problem) => problem !== null)).toEqual([true, false, true, true, false]);
    const again = {
      name: () => Promise.reject(new Error("asked again")),
      passphrase: () => Promise.reject(new Error("asked again")),
    };
    await firstOwner(`${address}/${own}`, shared.PUBLIC_URL, again, letIn);
    expect(existsSync(letIn)).toBe(false);
    const { db, close } = connect(`${address}/${own}`, 1);
    const members = await listMembers(db, FIRST_DESK).finally(close);
    expect(members).toMatchObject([{ name: "Maren", role: "owner" }]);
  });
});

describe("phones", () => {
  test("a code pairs one phone, once, in its time; a phone taken back is a stranger", async () => {
    const testId = uuidv7();
    const { id, code } = await newPhone(connection.db, {
      deskId: FIRST_DESK,
      name: "Levee phone",
      tests: [testId],
    });
    expect(await findCode(connection.db, code)).toMatchObject({ name: "Levee phone" });
    const paired = await pairPhone(connection.db, code);
    expect(paired?.tests).toEqual([testId]);
    expect(await pairPhone(connection.db, code)).toBeNull();
    expect(await findPhone(connection.db, code)).toBeNull();
    expect(await findPhone(connection.db, paired!.secret)).toMatchObject({ id, deskId: FIRST_DESK });
    await takeBackPhone(at(FIRST_DESK), id);
    expect(await findPhone(connection.db, paired!.secret)).toBeNull();
    expect((await listPhones(at(FIRST_DESK))).map((each) => each.id)).not.toContain(id);
  });
  test("a code that is too old pairs nothing", async () => {
    const { id, code } = await newPhone(connection.db, { deskId: FIRST_DESK, name: "late", tests: [] });
    await connection.db
      .update(phone)
      .set({ codeUntil: new Date(Date.now() - 1000) })
      .where(eq(phone.id, id));
    expect(await pairPhone(connection.db, code)).toBeNull();
  });
  test("another desk takes no phone back", async () => {
    const owner = await someone("Bram");
    const other = await makeDesk(connection.db, "Other", owner);
    const { id, code } = await newPhone(connection.db, { deskId: FIRST_DESK, name: "kept", tests: [] });
    await takeBackPhone(at(other), id);
    expect(await pairPhone(connection.db, code)).not.toBeNull();
  });
});

describe("links", () => {
  const make = (days = 30) =>
    newLink(connection.db, { deskId: FIRST_DESK, kind: "sheet", targetId: uuidv7(), days, note: "a reader" });
  test("lead where they were made for, are counted, and end", async () => {
    const secret = await make();
    expect(await followLink(connection.db, secret)).toMatchObject({ deskId: FIRST_DESK, kind: "sheet" });
    expect(await followLink(connection.db, "guessed")).toBeNull();
    const [line] = await listLinks(at(FIRST_DESK));
    expect(line!.reads).toBe(1);
    await takeBackLink(at(FIRST_DESK), line!.id);
    expect(await followLink(connection.db, secret)).toBeNull();
  });
  test("expire", async () => {
    const secret = await make();
    await connection.db.update(shareLink).set({ expiresAt: new Date(Date.now() - 1000) });
    expect(await followLink(connection.db, secret)).toBeNull();
  });
});

describe("the trail", () => {
  test("says who changed what, before and after, and is never changed", async () => {
    const id = uuidv7();
    const maren = await someone("Maren");
    await saveBike(at(FIRST_DESK), id, aBike("trailed"));
    await saveBike(at(FIRST_DESK, maren), id, { ...aBike("trailed"), massKg: 27 });
    const { changes, more } = await changesOf(at(FIRST_DESK), "bike", id);
    expect(more).toBe(false);
    expect(changes.map(({ by, what }) => [by, what])).toEqual([
      ["Maren", "update"],
      ["this machine", "insert"],
    ]);
    expect([changes[0]!.before, changes[0]!.after]).toEqual([{ mass_kg: 25 }, { mass_kg: 27 }]);
    for (const statement of ["update trail set actor = 'x'", "delete from trail"]) {
      await expect(at(FIRST_DESK).execute(sql.raw(statement))).rejects.toThrow();
      await expect(connection.db.execute(sql.raw(statement))).rejects.toThrow();
    }
  });
  test("goes on naming somebody who has left, and one desk sees not another's", async () => {
    const wim = await someone("Wim of the ferry");
    const desk = await makeDesk(connection.db, "Ferry", await someone("Ferry owner"));
    await addMember(connection.db, desk, wim, "editor");
    const id = uuidv7();
    await saveBike(at(desk, wim), id, aBike("ferry's"));
    await removeMember(connection.db, desk, wim);
    expect((await changesOf(at(desk), "bike", id)).changes[0]!.by).toBe("Wim of the ferry");
    expect((await changesOf(at(FIRST_DESK), "bike", id)).changes).toEqual([]);
  });
});
