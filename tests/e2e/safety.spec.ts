import { request as httpRequest } from "node:http";
import { gzipSync } from "node:zlib";
import { expect } from "@playwright/test";
import { ready, test } from "./watched";

interface Sent {
  readonly status: number;
  readonly body: string;
}

/** A request as no browser would send it. */
function send(
  base: string,
  path: string,
  method: string,
  headers: Record<string, string>,
  body = "",
): Promise<Sent> {
  const { hostname, port } = new URL(base);
  return new Promise((resolve, reject) => {
    const request = httpRequest({ hostname, port, path, method, headers }, (response) => {
      let text = "";
      response.on("data", (chunk: Buffer) => (text += chunk.toString()));
      response.on("end", () => resolve({ status: response.statusCode ?? 0, body: text }));
    });
    request.on("error", reject);
    request.end(body);
  });
}
const form = { "content-type": "application/x-www-form-urlencoded" };

test("scripts run only with this response's nonce", async ({ request }) => {
  const [first, second] = [await request.get("/"), await request.get("/")];
  const policy = first.headers()["content-security-policy"]!;
  const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
  expect(policy).toContain("default-src 'self'");
  expect(policy).toContain("object-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  const scripts = (await first.text()).match(/<script[^>]*>/g)!;
  expect(scripts.every((tag) => tag.includes(`nonce="${nonce}"`))).toBe(true);
  expect(second.headers()["content-security-policy"]).not.toContain(nonce);
  expect(first.headers()["x-powered-by"]).toBeUndefined();
});

test("no page breaks its own policy or logs an error", async ({ page }) => {
  const errors: string[] = [];
  page.on("console", (message) => message.type() === "error" && errors.push(message.text()));
  page.on("pageerror", (error) => errors.push(error.message));
  for (const path of ["/", "/bikes", "/strip", "/compare", "/settings"]) {
    await page.goto(path);
    await ready(page);
  }
  expect(errors).toEqual([]);
});

test("a form from another site is not carried out", async ({ baseURL }) => {
  const foreign = await send(
    baseURL!,
    "/units",
    "POST",
    { ...form, host: new URL(baseURL!).host, origin: "http://elsewhere.example", "content-length": "13" },
    "system=metric",
  );
  expect(foreign).toMatchObject({
    status: 403,
    body: "This was sent from another site and was not carried out.",
  });
  const nameless = await send(
    baseURL!,
    "/units",
    "POST",
    { ...form, host: new URL(baseURL!).host, "content-length": "13" },
    "system=metric",
  );
  expect(nameless.status).toBe(403);
});

test("another host name is not answered", async ({ baseURL }) => {
  expect((await send(baseURL!, "/", "GET", { host: "elsewhere.example" })).status).toBe(403);
});

test("a body over the limit, or of unknown length, is refused unread", async ({ baseURL }) => {
  const headers = { ...form, host: new URL(baseURL!).host, origin: baseURL! };
  expect(
    await send(baseURL!, "/units", "POST", { ...headers, "content-length": String(200 * 1024 * 1024) }),
  ).toMatchObject({ status: 413, body: expect.stringContaining("32 MB") });
  expect(
    (await send(baseURL!, "/units", "POST", { ...headers, "transfer-encoding": "chunked" }, "system=metric"))
      .status,
  ).toBe(411);
});

test("addresses that lead nowhere say so without a stack", async ({ request }) => {
  for (const path of [
    "/strip/not-an-id",
    "/strip/019a0000-0000-7000-8000-ffffffffffff",
    "/bikes/'%20or%201=1",
    "/nowhere",
  ]) {
    const response = await request.get(path);
    expect(response.status()).toBe(404);
    expect(await response.text()).not.toMatch(/at \w+ \(|node_modules|\.ts:\d+/);
  }
});

test("a switch of units never leads off the site", async ({ request, baseURL }) => {
  for (const back of ["//elsewhere.example/", "https://elsewhere.example/", "/\\elsewhere.example"]) {
    const response = await request.post("/units", {
      form: { system: "metric", back },
      headers: { origin: baseURL! },
      maxRedirects: 0,
    });
    expect(response.headers()["location"]).toBe("/");
  }
});

test("health answers", async ({ request }) =>
  expect(await (await request.get("/health")).json()).toEqual({ ok: true }));

test("the first page sends under 200 kB of script, and no chart code", async ({ page, request }) => {
  const sources = new Set<string>();
  page.on("response", (response) => {
    if (response.request().resourceType() === "script") sources.add(response.url());
  });
  await page.goto("/");
  await ready(page);
  let bytes = 0;
  for (const source of sources) {
    const text = await (await request.get(source)).text();
    bytes += gzipSync(text).length;
    expect(text).not.toContain("recharts-wrapper");
  }
  expect(bytes).toBeGreaterThan(1000);
  expect(bytes).toBeLessThan(200_000);
});

test("nothing is fetched from elsewhere", async ({ page, baseURL }) => {
  const hosts = new Set<string>();
  page.on("request", (request) => hosts.add(new URL(request.url()).origin));
  await page.goto("/compare");
  await ready(page);
  expect([...hosts].filter((host) => host !== baseURL && host !== "null")).toEqual([]);
});
