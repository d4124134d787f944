import { connect as dialTls } from "node:tls";
import { request as http } from "node:http";
import { expect, test, type APIRequestContext, type Browser, type BrowserContext } from "@playwright/test";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema } from "#core/records";
import { connect, type Connection } from "#db/client";
import { addMember, invite, makeDesk, type Role } from "#db/people/people";
import { bike, FIRST_DESK, test as testTable } from "#db/schema";
import { saveBike } from "#db/bikes";
import { listTests } from "#db/tests";
import { CHROMIUM_FLAGS } from "../../command/throwaway";
import { formDoors, type Ids } from "../hostile/doors";
import { everyPage } from "./everyPage";
import { shareDemo, type SharedDesk } from "./sharedDesk";

/**
 * Whoever means ill at a shared desk: an owner of another desk of the machine, roles that ask for more than they may, slow and half
 * sent requests, guesses, and scripts in whatever can be typed.
 */
let desk: SharedDesk;
let connection: Connection;
const PASSPHRASE = "four quiet levee words";
test.describe.configure({ mode: "serial" });
test.use({
  ignoreHTTPSErrors: true,
  launchOptions: {
    executablePath: process.env["CHROMIUM"] ?? "/usr/bin/chromium",
    args: [...CHROMIUM_FLAGS, "--ignore-certificate-errors"],
  },
});

interface Person {
  readonly context: BrowserContext;
  readonly ask: APIRequestContext;
  readonly userId: string;
}

async function post(ask: APIRequestContext, path: string, form: Record<string, string>) {
  const answer = await ask.post(path, { form, headers: { origin: desk.at }, maxRedirects: 0 });
  return { status: answer.status(), body: await answer.text() };
}

/** Somebody who comes in by a link to a desk. */
async function comeIn(browser: Browser, name: string, deskId: string, role: Role): Promise<Person> {
  const context = await browser.newContext({ ignoreHTTPSErrors: true, baseURL: desk.at });
  const secret = await invite(connection.db, { deskId, role });
  const { status } = await post(context.request, `/invited/${secret}`, {
    ...{ name, passphrase: PASSPHRASE, again: PASSPHRASE },
  });
  expect(status).toBe(302);
  const { rows } = await connection.db.execute<{ id: string }>(
    sql`select id from "user" where name = ${name}`,
  );
  return { context, ask: context.request, userId: rows[0]!.id };
}

let host: Person;
let guest: Person;
let second = "";
let ids: Ids;

test.beforeAll(async ({ browser }) => {
  desk = await shareDemo();
  connection = connect(desk.databaseUrl, 4, true);
  host = await comeIn(browser, "Maren", FIRST_DESK, "owner");
  second = await makeDesk(connection.db, "Dogwood", host.userId);
  guest = await comeIn(browser, "Odile", second, "owner");
  const { rows } = await connection.db.execute<Record<keyof Ids, string>>(sql`select
    (select id from bike order by id limit 1) as bike, (select id from rider limit 1) as rider,
    (select id from instrument limit 1) as instrument, (select id from course limit 1) as course,
    (select id from plan limit 1) as plan, (select id from sweep limit 1) as sweep, (select id from climb limit 1) as climb,
    (select id from sheet limit 1) as sheet, (select id from pack where bike_id = (select id from bike order by id limit 1) limit 1) as pack,
    (select id from set_up limit 1) as "setUp", (select id from test limit 1) as test, (select id from ride limit 1) as ride`);
  ids = { ...rows[0]!, rehearsal: null };
});
test.afterAll(async () => {
  await connection.close();
  await desk.end();
});

/** What every page says, the machine's own words left out. */
async function everyWord({ context }: Person): Promise<ReadonlyMap<string, string>> {
  const page = await context.newPage();
  const pages = new Map<string, string>();
  for (const path of await everyPage(page))
    await expect
      .poll(
        async () => {
          const answer = await page.request.get(path);
          pages.set(path, await answer.text());
          return answer.status();
        },
        { timeout: 120_000 },
      )
      .not.toBe(202);
  await page.close();
  return pages;
}

test("two desks of one process: no page of one has a word of the other's, empty or full", async () => {
  const words = async (deskId: string) => {
    const db = connection.at({ deskId, actor: "" });
    const bikes = await db.select({ name: bike.name }).from(bike);
    const tests = await db.select({ id: testTable.id, title: testTable.title }).from(testTable);
    return [...bikes.map(({ name }) => name), ...tests.flatMap(({ id, title }) => [id, title])].filter(
      (word) => word.length > 5,
    );
  };
  const clean = (pages: ReadonlyMap<string, string>, others: readonly string[]) =>
    [...pages].flatMap(([path, text]) =>
      others.filter((word) => text.includes(word)).map((word) => [path, word]),
    );
  const full = await everyWord(host);
  expect(full.size).toBeGreaterThan(40);
  const first = await words(FIRST_DESK);
  expect(clean(full, first).length).toBeGreaterThan(20);
  expect(clean(await everyWord(guest), first)).toEqual([]);
  const own = "Bike of Dogwood only";
  await saveBike(
    connection.at({ deskId: second, actor: guest.userId }),
    uuidv7(),
    bikeSchema.parse({ name: own, levels: ["low"] }),
  );
  const [pagesOfGuest, pagesOfHost] = [await everyWord(guest), await everyWord(host)];
  expect(clean(pagesOfGuest, first)).toEqual([]);
  expect(clean(pagesOfGuest, [own]).length).toBeGreaterThan(0);
  expect(clean(pagesOfHost, [own])).toEqual([]);
});

test("an owner of a second desk sets no host's passphrase, takes no backup, and makes no desk", async ({
  browser,
}) => {
  const reset = await post(guest.ask, "/settings/people", { intent: "reset", userId: host.userId });
  expect(reset.status).toBe(400);
  expect(reset.body).toContain("a desk that you do not own");
  expect(reset.body).not.toContain("/invited/");
  expect((await post(guest.ask, "/settings", { intent: "backup" })).status).toBe(403);
  expect((await guest.ask.get("/settings/backups/desk.backup")).status()).toBe(403);
  expect((await post(guest.ask, "/settings/people", { intent: "desk", name: "Third" })).status).toBe(400);
  // Taken off the second desk, the host goes on at the first.
  expect((await post(guest.ask, "/settings/people", { intent: "remove", userId: host.userId })).status).toBe(
    200,
  );
  expect((await host.ask.get("/bikes")).status()).toBe(200);
  // Their own person, of this desk only, they may.
  const own = await comeIn(browser, "Bram", second, "editor");
  const allowed = await post(guest.ask, "/settings/people", { intent: "reset", userId: own.userId });
  const link = /\/invited\/[\w-]+/.exec(allowed.body)![0];
  // A second link voids the first; one that was sent before they joined another desk is void too.
  const newer = await post(guest.ask, "/settings/people", { intent: "reset", userId: own.userId });
  expect((await guest.ask.get(link)).status()).toBe(404);
  const last = /\/invited\/[\w-]+/.exec(newer.body)![0];
  expect((await guest.ask.get(last)).status()).toBe(200);
  await addMember(connection.db, FIRST_DESK, own.userId, "viewer");
  expect((await guest.ask.get(last)).status()).toBe(404);
  await own.context.close();
});

test("every form refuses a viewer and a stranger, and no form breaks for an editor", async ({ browser }) => {
  const [viewer, editor] = [
    await comeIn(browser, "Tove", FIRST_DESK, "viewer"),
    await comeIn(browser, "Idris", FIRST_DESK, "editor"),
  ];
  const stranger = await browser.newContext({ ignoreHTTPSErrors: true, baseURL: desk.at });
  const wrong: string[] = [];
  for (const { path, fields } of formDoors(ids)) {
    const say = (who: string, status: number) =>
      wrong.push(`${who} ${path} ${fields["intent"] ?? ""}: ${status}`);
    // Units are each reader's own.
    if (path !== "/units") {
      const [seen, unknown] = [
        await post(viewer.ask, path, fields),
        await post(stranger.request, path, fields),
      ];
      if (seen.status !== 403) say("viewer", seen.status);
      if (unknown.status !== 401) say("stranger", unknown.status);
    }
    const { status } = await post(editor.ask, path, fields);
    if (status >= 500 || (status === 403 && !path.startsWith("/settings"))) say("editor", status);
  }
  expect(wrong).toEqual([]);
  await Promise.all([viewer.context.close(), editor.context.close(), stranger.close()]);
});

test("a household opens its invitations as often as it likes; guesses at one are slowed", async ({
  browser,
}) => {
  const stranger = await browser.newContext({ ignoreHTTPSErrors: true, baseURL: desk.at });
  const links = await Promise.all(
    Array.from({ length: 10 }, () => invite(connection.db, { deskId: second, role: "viewer" })),
  );
  for (const secret of [...links, ...links, ...links])
    expect((await stranger.request.get(`/invited/${secret}`)).status()).toBe(200);
  const guessed: number[] = [];
  for (let i = 0; i < 12; i += 1)
    guessed.push((await stranger.request.get(`/invited/${"x".repeat(31)}${i}`)).status());
  expect(guessed.slice(0, 5)).toEqual(Array(5).fill(404));
  expect(guessed.at(-1)).toBe(429);
  expect((await stranger.request.get(`/invited/${links[0]}`)).status()).toBe(200);
  await stranger.close();
});

test("strangers learn nothing from what monitors ask, and send no large bodies", async ({ browser }) => {
  const stranger = await browser.newContext({ ignoreHTTPSErrors: true, baseURL: desk.at });
  for (const path of ["/metrics", "/ready", "/health", "/live"])
    expect([path, (await stranger.request.get(path)).status()]).toEqual([path, 404]);
  const large = await stranger.request.post("/sign-in", {
    headers: { origin: desk.at },
    form: { name: "x".repeat(100_000), passphrase: "y" },
  });
  expect(large.status()).toBe(401);
  await stranger.close();
});

test("a proxy that does not say HTTPS breaks no form", async () => {
  const { hostname, port } = new URL(desk.inner);
  const body = "name=Nobody&passphrase=nothing+at+all";
  const status = await new Promise<number>((resolve, reject) => {
    const asked = http(
      {
        ...{ host: hostname, port, path: "/sign-in", method: "POST" },
        headers: {
          ...{ host: new URL(desk.at).host, origin: desk.at, "content-length": body.length },
          "content-type": "application/x-www-form-urlencoded",
        },
      },
      (answer) => {
        answer.resume();
        resolve(answer.statusCode!);
      },
    );
    asked.on("error", reject).end(body);
  });
  expect(status).toBe(401);
});

/** Connections that begin a request and do not end it. */
async function holding(count: number, begin: string): Promise<() => void> {
  const { hostname, port } = new URL(desk.at);
  const sockets = await Promise.all(
    Array.from(
      { length: count },
      () =>
        new Promise<ReturnType<typeof dialTls>>((resolve) => {
          const socket = dialTls({
            host: hostname,
            port: Number(port),
            rejectUnauthorized: false,
            servername: hostname,
          });
          socket.on("error", () => resolve(socket));
          socket.once("secureConnect", () => {
            socket.write(begin);
            resolve(socket);
          });
        }),
    ),
  );
  return () => sockets.forEach((socket) => socket.destroy());
}

test("420 bodies that never come, and 450 half sent headers, hold nobody up", async () => {
  const { host: name } = new URL(desk.at);
  for (const [count, begin] of [
    [
      420,
      `POST /sign-in HTTP/1.1\r\nHost: ${name}\r\nOrigin: ${desk.at}\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 1000\r\n\r\nname=`,
    ],
    [450, `GET /bikes HTTP/1.1\r\nHost: ${name}\r\nX-Half: `],
  ] as const) {
    const letGo = await holding(count, begin);
    const statuses: number[] = [];
    for (let i = 0; i < 10; i += 1) statuses.push((await host.ask.get("/bikes")).status());
    letGo();
    expect(statuses).toEqual(Array(10).fill(200));
  }
});

const SCRIPT = `"'><img src=x onerror="window.hit=1"><script>window.hit=1</script>`;

test("a script in every text there is runs on no page and in no file that leaves", async () => {
  test.slow();
  const { rows } = await connection.db.execute<{ t: string; c: string }>(sql`
    select table_name as t, column_name as c from information_schema.columns
    where table_schema = 'public' and data_type = 'text' and column_default is not null or
      (table_schema = 'public' and column_name in ('name', 'title', 'what', 'note', 'caption', 'brakes', 'comfort', 'storage', 'tyre', 'changed'))`);
  const free = rows.filter(
    ({ t, c }) =>
      /^(bike|pack|rider|instrument|set_up|test|sheet|photograph)$/.test(t) &&
      /^(name|title|what|note|caption|brakes|comfort|storage|tyre|changed|course)$/.test(c),
  );
  expect(free.length).toBeGreaterThan(10);
  for (const { t, c } of free)
    await connection.db.execute(sql.raw(`update "${t}" set "${c}" = left("${c}", 20) || $$${SCRIPT}$$`));
  for (const [table, path] of [
    ["sheet", "words"],
    ["sheet", "title"],
    ["sweep", "title"],
    ["climb", "hill"],
    ["course", "name"],
    ["plan", "title"],
  ])
    await connection.db.execute(
      sql.raw(`update "${table}" set body = jsonb_set(body, '{${path}}', to_jsonb($$${SCRIPT}$$::text))`),
    );
  const page = await host.context.newPage();
  const paths = await everyPage(page);
  const [line] = await listTests(connection.at({ deskId: FIRST_DESK, actor: "" }));
  for (const path of [...paths, `/sheet/${ids.sheet}/html`, `/strip/${line!.id}`]) {
    const answer = await page.request.get(path);
    const type = answer.headers()["content-type"] ?? "";
    if (!/html|svg/.test(type)) continue;
    const text = await answer.text();
    expect([path, text.includes("<script>window.hit"), text.includes("<img src=x")]).toEqual([
      path,
      false,
      false,
    ]);
  }
  for (const path of paths.slice(0, 25)) {
    await page.goto(path);
    expect([path, await page.evaluate(() => "hit" in window)]).toEqual([path, false]);
  }
  await page.close();
});
