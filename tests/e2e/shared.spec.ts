import { request as http } from "node:http";
import { request as https, type RequestOptions } from "node:https";
import {
  expect,
  test as base,
  type Browser,
  type BrowserContext,
  type Page,
  type Response,
} from "@playwright/test";
import type { Role } from "#db/people/people";
import { CHROMIUM_FLAGS } from "../../command/throwaway";
import { shareDemo, type SharedDesk } from "./sharedDesk";
import { ready, RECKONED_MS } from "./watched";

/** A desk that several share over HTTPS: people by their roles, a phone in the field, a reader with a link, and who means ill. */
let desk: SharedDesk;
const test = base;
test.describe.configure({ mode: "serial" });
test.use({
  ignoreHTTPSErrors: true,
  launchOptions: {
    executablePath: process.env["CHROMIUM"] ?? "/usr/bin/chromium",
    args: [...CHROMIUM_FLAGS, "--ignore-certificate-errors"],
  },
});
test.beforeAll(async () => {
  desk = await shareDemo();
});
test.afterAll(() => desk.end());

const PASSPHRASE = "four quiet levee words";

const fresh = (browser: Browser, more: object = {}) =>
  browser.newContext({ ignoreHTTPSErrors: true, ...more });

/** Comes in by an invitation. */
async function comeIn(page: Page, name: string, role: Role): Promise<void> {
  await page.goto(await desk.inviteAs(role));
  await page.getByLabel("Name you go by").fill(name);
  await page.getByLabel("Passphrase", { exact: true }).fill(PASSPHRASE);
  await page.getByLabel("Passphrase, once more").fill(PASSPHRASE);
  await page.getByRole("button", { name: "Come in" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
}

async function signIn(page: Page, name: string, passphrase = PASSPHRASE): Promise<void> {
  await page.goto(`${desk.at}/sign-in`);
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Passphrase").fill(passphrase);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
}

/** Goes to a page once its figures are reckoned: until then it says how far they are. */
async function opened(page: Page, address: string): Promise<Response> {
  let answer: Response | null = null;
  await expect
    .poll(async () => (answer = await page.goto(address))!.status(), { timeout: RECKONED_MS })
    .not.toBe(202);
  return answer!;
}

const sessionOf = async (context: BrowserContext) =>
  (await context.cookies(desk.at)).find(({ name }) => name.endsWith("session_token"));

let people: Record<Role, BrowserContext>;

test("a stranger is led to the door; its owner comes in by a link, once", async ({ browser }) => {
  const [owner, stranger] = [await fresh(browser), await fresh(browser)];
  const page = await stranger.newPage();
  await page.goto(`${desk.at}/bikes`);
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  expect(page.url()).toBe(`${desk.at}/sign-in?to=%2Fbikes`);
  const link = await desk.inviteAs("owner");
  const first = await owner.newPage();
  await first.goto(link);
  await first.getByLabel("Name you go by").fill("Maren");
  await first.getByLabel("Passphrase", { exact: true }).fill("short");
  await first.getByLabel("Passphrase, once more").fill("short");
  await first.getByRole("button", { name: "Come in" }).click();
  await expect(first.getByText("Take 12 characters or more")).toBeVisible();
  await first.getByLabel("Passphrase", { exact: true }).fill(PASSPHRASE);
  await first.getByLabel("Passphrase, once more").fill(PASSPHRASE);
  await first.getByRole("button", { name: "Come in" }).click();
  await expect(first.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  await page.goto(link);
  await expect(page.getByText("This link was used, is too old, or was taken back")).toBeVisible();
  const [editor, viewer] = [await fresh(browser), await fresh(browser)];
  await comeIn(await editor.newPage(), "Idris", "editor");
  await comeIn(await viewer.newPage(), "Tove", "viewer");
  people = { owner, editor, viewer };
});

test("cookies are for this host alone, over HTTPS, and out of scripts' reach", async () => {
  const found = await sessionOf(people.owner);
  expect(found).toMatchObject({ httpOnly: true, secure: true, sameSite: "Lax", domain: "localhost" });
  expect(found!.name.startsWith("__Secure-")).toBe(true);
  const answer = await people.owner.request.get(`${desk.at}/bikes`);
  const headers = answer.headers();
  expect(headers["strict-transport-security"]).toMatch(/max-age=\d{7,}/);
  expect(headers["x-content-type-options"]).toBe("nosniff");
  expect(headers["content-security-policy"]).toContain("frame-ancestors 'none'");
  expect(headers["referrer-policy"]).toBeTruthy();
  expect(headers["access-control-allow-origin"]).toBeUndefined();
});

test("each role does what it may, and is refused the rest by the server itself", async () => {
  const tries: readonly (readonly [path: string, form: Record<string, string>, least: Role])[] = [
    ["/bikes/new", { name: "Attempt" }, "editor"],
    ["/plan/courses/new", { name: "Attempt" }, "editor"],
    ["/strip/new", { title: "Attempt" }, "editor"],
    ["/compare/references", { name: "Attempt" }, "editor"],
    ["/settings/phones", { intent: "pair", name: "Attempt" }, "editor"],
    ["/settings/links", { intent: "make" }, "editor"],
    ["/settings/people", { intent: "invite", role: "owner", name: "Attempt" }, "owner"],
    ["/settings", { intent: "backup" }, "owner"],
  ];
  const rank = { viewer: 0, editor: 1, owner: 2 };
  for (const role of ["viewer", "editor", "owner"] as const)
    for (const [path, form, least] of tries) {
      const { status } = await post(people[role], path, form);
      expect([role, path, status === 403]).toEqual([role, path, rank[role] < rank[least]]);
    }
  for (const path of ["/settings/people", "/settings/desk.zip"]) {
    const answer = await people.editor.request.get(desk.at + path);
    expect([path, answer.status()]).toEqual([path, 403]);
  }
});

async function post(context: BrowserContext, path: string, form: Record<string, string>) {
  const answer = await context.request.post(desk.at + path, {
    form,
    headers: { origin: desk.at },
    maxRedirects: 0,
  });
  return { status: answer.status() };
}

test("a role that is taken away is gone with the next request", async () => {
  const page = await people.owner.newPage();
  await page.goto(`${desk.at}/settings/people`);
  await ready(page);
  await page.getByLabel("Role of Idris", { exact: true }).selectOption("viewer");
  await page.getByRole("button", { name: "Set the role of Idris" }).click();
  await expect(page.getByText("The role is changed.")).toBeVisible();
  expect((await post(people.editor, "/bikes/new", { name: "Attempt" })).status).toBe(403);
  await page.getByLabel("Role of Idris", { exact: true }).selectOption("editor");
  await page.getByRole("button", { name: "Set the role of Idris" }).click();
  await expect(page.getByLabel("Role of Idris", { exact: true })).toHaveValue("editor");
  await page.getByLabel("Role of Maren", { exact: true }).selectOption("viewer");
  await page.getByRole("button", { name: "Set the role of Maren" }).click();
  await expect(page.getByText("A desk keeps at least one owner")).toBeVisible();
  await page.close();
});

test("a viewer reads, and is offered nothing that would be refused", async () => {
  const page = await people.viewer.newPage();
  await page.goto(`${desk.at}/bikes`);
  await expect(page.getByText("You read this desk: its editors change it.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Add a bike" })).toBeHidden();
  await page.locator("main a[href^='/bikes/']:visible").first().click();
  await expect(page.getByText("Who changed what")).toBeVisible();
  await expect(page.getByRole("button", { name: /^(Archive|Duplicate)/ }).first()).toBeHidden();
  await page.goto(`${desk.at}/plan`);
  for (const button of await page.locator("main form[method=post] button").all())
    await expect(button).toBeHidden();
  await page.goto(`${desk.at}/settings`);
  await expect(page.getByText("Everything as open files")).toHaveCount(0);
  await expect(page.getByRole("heading", { name: "Backups" })).toHaveCount(0);
  await page.close();
});

test("where one is signed in is listed, and ended from elsewhere", async ({ browser }) => {
  const elsewhere = await fresh(browser);
  await signIn(await elsewhere.newPage(), "Idris");
  await expect(elsewhere.pages()[0]!.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  const page = await people.editor.newPage();
  await page.goto(`${desk.at}/settings/you`);
  await expect(page.getByText("this one, since")).toHaveCount(1);
  await page.getByRole("button", { name: "Sign out there" }).click();
  await expect(page.getByText("That device is signed out.")).toBeVisible();
  await elsewhere.pages()[0]!.goto(`${desk.at}/bikes`);
  await expect(elsewhere.pages()[0]!.getByRole("heading", { name: "Sign in" })).toBeVisible();
  for (const next of ["password1234", "short"]) {
    await page.getByLabel("The one you have now").fill(PASSPHRASE);
    await page.getByLabel("The new one").fill(next);
    await page.getByRole("button", { name: "Change it" }).click();
    await expect(page.getByText(next === "short" ? "Take 12 characters" : "It is on lists")).toBeVisible();
  }
  await signIn(elsewhere.pages()[0]!, "Idris");
  await expect(elsewhere.pages()[0]!.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  const other = `${PASSPHRASE}, again`;
  for (const [now, next] of [
    [PASSPHRASE, other],
    [other, PASSPHRASE],
  ] as const) {
    await page.getByLabel("The one you have now").fill(now);
    await page.getByLabel("The new one").fill(next);
    await page.getByRole("button", { name: "Change it" }).click();
    await expect(page.getByText("everywhere else you are signed out")).toBeVisible();
    await page.goto(`${desk.at}/settings/you`);
  }
  await elsewhere.pages()[0]!.goto(`${desk.at}/bikes`);
  await expect(elsewhere.pages()[0]!.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await elsewhere.close();
  await page.close();
});

test("a session is a new one after signing in, and none after signing out", async ({ browser }) => {
  const context = await fresh(browser);
  const planted = "planted.by-somebody-else";
  await context.addCookies([
    { name: "__Secure-barometron.session_token", value: planted, url: desk.at, secure: true, httpOnly: true },
  ]);
  const page = await context.newPage();
  await signIn(page, "tove ");
  await expect(page.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  const session = await sessionOf(context);
  expect(session!.value).not.toBe(planted);
  await page.goto(`${desk.at}/settings/you`);
  await page.getByRole("button", { name: "Sign out", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await context.addCookies([{ ...session!, sameSite: "Lax" }]);
  await page.goto(`${desk.at}/bikes`);
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await context.close();
});

test("a passkey of the device signs in", async ({ browser }) => {
  const context = await fresh(browser);
  const page = await context.newPage();
  const devices = await context.newCDPSession(page);
  await devices.send("WebAuthn.enable");
  await devices.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      ...{ protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true },
      ...{ isUserVerified: true, automaticPresenceSimulation: true },
    },
  });
  await signIn(page, "Tove");
  await expect(page.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  await page.goto(`${desk.at}/settings/you`);
  await ready(page);
  await page.getByRole("button", { name: "Add a passkey" }).click();
  await expect(page.getByRole("button", { name: "Drop" })).toBeVisible();
  await page.getByRole("button", { name: "Sign out", exact: true }).click();
  await page.getByRole("button", { name: "Sign in with this device's passkey" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  await context.close();
});

let phone: BrowserContext;
let ride = "";

test("a phone is paired by a code, logs with and without signal, and the strip says who", async ({
  browser,
}) => {
  const page = await people.editor.newPage();
  await page.goto(`${desk.at}/ride`);
  await page.getByRole("button", { name: "Start What winter tyres cost" }).first().click();
  await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
  ride = new URL(page.url()).pathname;
  await page.goto(`${desk.at}/settings/phones`);
  await ready(page);
  await page.getByLabel("Name of the phone").fill("Levee phone");
  await page.getByRole("button", { name: "Show its code" }).click();
  const code = await page.getByLabel("The code as an address").inputValue();

  phone = await fresh(browser, { viewport: { width: 390, height: 844 }, serviceWorkers: "allow" });
  const field = await phone.newPage();
  await field.goto(code);
  await field.getByRole("button", { name: "Pair this phone" }).click();
  await expect(field.getByLabel("The line")).toBeVisible();
  expect(new URL(field.url()).pathname).toBe(ride);
  await expect(page.getByText("Levee phone is paired.")).toBeVisible();
  await field.goto(code);
  await expect(field.getByText("This code was scanned already")).toBeVisible();

  await field.goto(desk.at + ride);
  await ready(field);
  const log = async (line: string) => {
    await field.getByLabel("The line").fill(line);
    await field.getByLabel("The line").press("Enter");
    await expect(field.getByLabel("The line")).toHaveValue("");
  };
  await log("full 0mi 100%");
  await expect(field.getByText("Every entry is kept.")).toBeVisible();
  await field.evaluate(() => navigator.serviceWorker.ready.then(() => true));
  await phone.setOffline(true);
  await log("2.1mi 94%");
  await log("4mi 89%");
  await expect(field.getByText("2 entries wait to be sent.")).toBeVisible();
  await phone.setOffline(false);
  await expect(field.getByText("Every entry is kept.")).toBeVisible();

  await page.goto(desk.at + ride.replace("/ride/", "/strip/"));
  await ready(page);
  await expect(page.getByRole("region", { name: /^Readings/ })).toContainText("89");
  await page.getByText("Who changed what").click();
  await expect(page.getByText("Levee phone made an entry").first()).toBeVisible();
  await page.close();
});

test("a phone sees its rides and nothing else of the desk", async () => {
  const field = await phone.newPage();
  await field.goto(`${desk.at}/ride`);
  await expect(field.getByText("What winter tyres cost")).toBeVisible();
  await expect(field.getByRole("heading", { name: "Planned" })).toHaveCount(0);
  for (const path of [
    "/",
    "/bikes",
    "/strip",
    "/compare",
    "/settings",
    "/settings/phones",
    ride.replace("ride", "strip"),
  ]) {
    const answer = await phone.request.get(desk.at + path);
    expect([path, answer.status()]).toEqual([path, 403]);
  }
  await field.close();
});

test("a phone that is taken back keeps what it noted, and sends no more", async () => {
  const page = await people.owner.newPage();
  await page.goto(`${desk.at}/settings/phones`);
  await ready(page);
  await page.getByRole("button", { name: "Take Levee phone back" }).click();
  await expect(page.getByText("No phone is paired.")).toBeVisible();
  const field = phone.pages()[0]!;
  await field.getByLabel("The line").fill("6mi 84%");
  await field.getByLabel("The line").press("Enter");
  await expect(field.getByText("One entry waits to be sent.")).toBeVisible();
  await expect(field.getByText("it took this phone back")).toBeVisible();
  expect((await phone.request.get(desk.at + ride, { maxRedirects: 0 })).status()).toBe(302);
  await page.close();
  await phone.close();
});

test("a link shows one page to anybody, until it is taken back", async ({ browser }) => {
  const page = await people.editor.newPage();
  await page.goto(`${desk.at}/settings/links`);
  await ready(page);
  await page.getByRole("button", { name: "Make a link" }).click();
  const link = await page.getByLabel("The link", { exact: true }).inputValue();
  const stranger = await fresh(browser);
  const reader = await stranger.newPage();
  const problems: string[] = [];
  reader.on("console", (message) => message.type() === "error" && problems.push(message.text()));
  const answer = await opened(reader, link);
  expect(answer.status()).toBe(200);
  expect(answer.headers()).toMatchObject({
    "x-robots-tag": "noindex, nofollow",
    "referrer-policy": "no-referrer",
    "cache-control": "private, no-store",
  });
  expect(answer.headers()["content-security-policy"]).toContain("default-src 'none'");
  await expect(reader.getByRole("article")).toBeVisible();
  await expect(reader.locator("script")).toHaveCount(0);
  expect(problems).toEqual([]);
  expect((await stranger.request.get(`${link}x`)).status()).toBe(404);
  await page.reload();
  await page.getByRole("button", { name: /^Take back the link/ }).click();
  await expect(page.getByRole("button", { name: /^Take back the link/ })).toHaveCount(0);
  expect((await stranger.request.get(link)).status()).toBe(404);
  await stranger.close();
  await page.close();
});

test("a test is shown by a link of its own, without a sheet being made", async ({ browser }) => {
  const page = await people.editor.newPage();
  await page.goto(`${desk.at}/strip`);
  await page
    .getByRole("link", { name: /levee loop, town level/ })
    .first()
    .click();
  await ready(page);
  await page.getByText("Export this test").click();
  await page.getByRole("link", { name: "A link to it" }).click();
  await expect(page.getByLabel("Page")).toContainText("levee loop, town level");
  await page.getByRole("button", { name: "Make a link" }).click();
  const link = await page.getByLabel("The link", { exact: true }).inputValue();
  const stranger = await fresh(browser);
  const reader = await stranger.newPage();
  expect((await opened(reader, link)).status()).toBe(200);
  await expect(reader.getByRole("article")).toContainText("levee loop, town level");
  await page.getByRole("button", { name: /^Take back the link/ }).click();
  await expect(page.getByRole("button", { name: /^Take back the link/ })).toHaveCount(0);
  expect((await stranger.request.get(link)).status()).toBe(404);
  await stranger.close();
  await page.close();
});

test("the pages about people take anything without breaking", async () => {
  const values = [
    "",
    " ",
    "0",
    "-1",
    "NaN",
    "null",
    "1e999",
    "'; drop table member;--",
    "<b>x</b>",
    "\u0000",
    "ü".repeat(5000),
  ];
  const doors: readonly (readonly [path: string, fields: readonly string[], intents: readonly string[]])[] = [
    [
      "/settings/people",
      ["name", "role", "member", "id", "desk"],
      ["invite", "role", "remove", "reset", "desk", "x"],
    ],
    ["/settings/phones", ["name", "tests", "id"], ["pair", "takeBack", "x"]],
    ["/settings/links", ["page", "days", "note", "id"], ["make", "takeBack", "x"]],
    ["/settings/you", ["current", "next", "key", "session", "desk"], ["dropKey", "endSession", "desk", "x"]],
    [`/invited/${"x".repeat(32)}`, ["name", "passphrase", "again"], ["x"]],
    [`/pair/${"x".repeat(32)}`, ["name"], ["x"]],
  ];
  for (const [path, fields, intents] of doors)
    for (const intent of intents)
      for (const value of values) {
        const form = { ...Object.fromEntries(fields.map((field) => [field, value])), intent };
        const { status } = await post(people.owner, path, form);
        expect([path, intent, value.slice(0, 30), status < 500]).toEqual([
          path,
          intent,
          value.slice(0, 30),
          true,
        ]);
      }
});

test("what comes from another site, by another name, or past the proxy is refused", async () => {
  const foreign = await people.owner.request.post(`${desk.at}/settings/people`, {
    form: { intent: "invite", role: "owner", name: "x" },
    headers: { origin: "https://elsewhere.example" },
  });
  expect(foreign.status()).toBe(403);
  const inner = new URL(desk.inner);
  const asked = (headers: Record<string, string>, path = "/bikes") =>
    new Promise<number>((resolve, reject) => {
      http({ host: inner.hostname, port: inner.port, path, headers }, (answer) => {
        answer.resume();
        resolve(answer.statusCode!);
      })
        .on("error", reject)
        .end();
    });
  expect(await asked({ host: inner.host })).toBe(403);
  expect(await asked({ host: "elsewhere.example", "x-forwarded-host": new URL(desk.at).host })).toBe(403);
  expect(await asked({ host: inner.host }, "/ready")).toBe(200);
  expect(await asked({ host: inner.host }, "/metrics")).toBe(200);
  expect(await asked({ host: new URL(desk.at).host, "x-asker": "10.0.0.1" })).toBe(302);
  const outside = await people.owner.request.get(`${desk.at}/auth/sign-up/email`);
  expect(outside.status()).toBe(404);
});

test("guessing is slowed, and locks nobody else out", async ({ browser }) => {
  const guesser = await fresh(browser);
  const statuses: number[] = [];
  for (let i = 0; i < 12; i += 1) {
    const answer = await guesser.request.post(`${desk.at}/sign-in`, {
      form: { name: "Maren", passphrase: `guess number ${i}` },
      headers: { origin: desk.at },
    });
    statuses.push(answer.status());
  }
  expect(statuses.slice(0, 8).every((status) => status === 401)).toBe(true);
  expect(statuses.slice(-3)).toEqual([429, 429, 429]);
  const page = await people.owner.newPage();
  await page.goto(`${desk.at}/bikes`);
  await expect(page.getByRole("heading", { level: 1, name: "Bikes" })).toBeVisible();
  await signIn(await guesser.newPage(), "Tove");
  await expect(guesser.pages()[0]!.getByRole("heading", { level: 1, name: "Today" })).toBeVisible();
  await guesser.close();
  await page.close();
});

test("the log holds no secret, no name and no address of a person", async () => {
  const said = desk.said();
  for (const secret of [PASSPHRASE, "Maren", "Idris", "Tove", "127.0.0.1"])
    expect(said).not.toContain(secret);
  expect(said).not.toMatch(/\/(invited|pair|shared)\/[A-Za-z0-9_-]{20}/);
});

test("a phone that comes the first time is helped to trust the desk", async ({ page }) => {
  await page.goto(desk.trustUrl);
  await expect(page.getByRole("heading", { name: "Trust this desk" })).toBeVisible();
  const authority = await page.request.get(`${desk.trustUrl}/authority.crt`);
  expect(authority.headers()["content-type"]).toBe("application/x-x509-ca-cert");
  const ca = await authority.text();
  // The authority it gives away is the one that vouches for the desk: with it the desk is trusted by its name, without it not.
  const asked = (options: RequestOptions) =>
    new Promise<string>((resolve) => {
      https(`${desk.at}/sign-in`, options, (answer) => {
        answer.resume();
        resolve(String(answer.statusCode));
      })
        .on("error", (error: NodeJS.ErrnoException) => resolve(error.code ?? "refused"))
        .end();
    });
  expect(await asked({ ca })).toBe("200");
  expect(await asked({})).toMatch(/SELF_SIGNED|UNABLE_TO/);
});
