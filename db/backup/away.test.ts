import { createHash, createHmac } from "node:crypto";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type IncomingMessage } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import { awayOf, sendAway } from "./away.ts";
import { isSealed, seal, unseal } from "./sealed.ts";

const folder = mkdtempSync(join(tmpdir(), "barometron-away-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const PASSPHRASE = "a levee in the rain";
const backup = join(folder, "desk-20261128-120000.backup");
const contents = Buffer.from("what nobody else may read ".repeat(5000));
writeFileSync(backup, contents);

describe("a sealed backup", () => {
  const sealed = join(folder, "one.sealed");
  const opened = join(folder, "one.opened");
  test("opens with its passphrase and is what it was; before that nothing of it can be read", async () => {
    await seal(backup, sealed, PASSPHRASE);
    expect(await isSealed(sealed)).toBe(true);
    expect(await isSealed(backup)).toBe(false);
    expect(readFileSync(sealed).includes(Buffer.from("nobody else"))).toBe(false);
    await unseal(sealed, opened, PASSPHRASE);
    expect(readFileSync(opened).equals(contents)).toBe(true);
  });
  test("is another file each time, though it holds the same", async () => {
    await seal(backup, join(folder, "two.sealed"), PASSPHRASE);
    expect(readFileSync(join(folder, "two.sealed")).equals(readFileSync(sealed))).toBe(false);
  });
  test.each([
    ["another passphrase", (bytes: Buffer) => bytes, "a levee in the sun"],
    ["one bit of it turned", (bytes: Buffer) => bytes.fill(bytes[500]! ^ 1, 500, 501), PASSPHRASE],
    ["its end cut off", (bytes: Buffer) => bytes.subarray(0, -100), PASSPHRASE],
    ["hardly anything of it", (bytes: Buffer) => bytes.subarray(0, 40), PASSPHRASE],
  ])("with %s opens not, and leaves nothing", async (_what, harm, passphrase) => {
    const harmed = join(folder, "harmed.sealed");
    const out = join(folder, "harmed.opened");
    writeFileSync(harmed, harm(Buffer.from(readFileSync(sealed))));
    await expect(unseal(harmed, out, passphrase)).rejects.toThrow(/does not open|breaks off/);
    expect(readdirSync(folder)).not.toContain("harmed.opened");
  });
  test("wants a passphrase worth the name", async () =>
    expect(seal(backup, join(folder, "weak"), "short")).rejects.toThrow("12 characters"));
});

test("a folder gets it whole, keeps the newest thirty, and nothing is left lying at home", async () => {
  const away = join(folder, "elsewhere");
  for (let i = 10; i < 42; i += 1) {
    const one = join(folder, `desk-20261128-1200${i}.backup`);
    writeFileSync(one, contents);
    await sendAway(one, { to: away, passphrase: PASSPHRASE });
    rmSync(one);
  }
  const there = readdirSync(away).sort();
  expect(there).toHaveLength(30);
  expect(there.at(-1)).toBe("desk-20261128-120041.backup.sealed");
  await unseal(join(away, there[0]!), join(folder, "back"), PASSPHRASE);
  expect(readFileSync(join(folder, "back")).equals(contents)).toBe(true);
  expect(readdirSync(folder).filter((name) => name.startsWith("."))).toEqual([]);
}, 60_000);

const hmac = (key: string | Buffer, text: string) => createHmac("sha256", key).update(text).digest();
const sha = (bytes: string | Buffer) => createHash("sha256").update(bytes).digest("hex");

/** Whether a request is signed by a secret, as AWS Signature Version 4 has it. */
function isSigned(request: IncomingMessage, body: Buffer, secret: string): boolean {
  const found = /Credential=([^,]+), SignedHeaders=([^,]+), Signature=([0-9a-f]+)/.exec(
    request.headers.authorization ?? "",
  );
  if (!found) return false;
  const [, credential, names, signature] = found;
  const [, day, region, service] = credential!.split("/");
  const sent = String(request.headers["x-amz-content-sha256"] ?? "");
  if (sent !== "UNSIGNED-PAYLOAD" && sent !== sha(body)) return false;
  const headers = names!.split(";").map((name) => `${name}:${String(request.headers[name]).trim()}\n`);
  const canonical = [request.method, request.url, "", headers.join(""), names, sent].join("\n");
  const scope = `${day}/${region}/${service}/aws4_request`;
  const toSign = ["AWS4-HMAC-SHA256", request.headers["x-amz-date"], scope, sha(canonical)].join("\n");
  const key = [region!, service!, "aws4_request"].reduce<Buffer>(hmac, hmac(`AWS4${secret}`, day!));
  return hmac(key, toSign).toString("hex") === signature;
}

test("a bucket gets it by a signed request; a wrong secret is said", async () => {
  const kept = new Map<string, Buffer>();
  const store = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on("data", (part: Buffer) => parts.push(part));
    request.on("end", () => {
      const body = Buffer.concat(parts);
      const fine = isSigned(request, body, "its secret");
      if (fine) kept.set(request.url!, body);
      response.writeHead(fine ? 200 : 403).end();
    });
  });
  await new Promise<void>((resolve) => store.listen(0, "127.0.0.1", resolve));
  const to = `http://127.0.0.1:${(store.address() as AddressInfo).port}/bucket/desk/`;
  try {
    const away = { to, passphrase: PASSPHRASE, key: "its key", secret: "its secret" };
    expect(await sendAway(backup, away)).toBe("desk-20261128-120000.backup.sealed");
    const [[path, bytes]] = [...kept] as [[string, Buffer]];
    expect(path).toBe("/bucket/desk/desk-20261128-120000.backup.sealed");
    writeFileSync(join(folder, "from-bucket"), bytes);
    await unseal(join(folder, "from-bucket"), join(folder, "from-bucket.opened"), PASSPHRASE);
    expect(readFileSync(join(folder, "from-bucket.opened")).equals(contents)).toBe(true);
    await expect(sendAway(backup, { ...away, secret: "another" })).rejects.toThrow("The store answered 403.");
    await expect(sendAway(backup, { to, passphrase: PASSPHRASE })).rejects.toThrow("BAROMETRON_S3_KEY");
  } finally {
    store.close();
    store.closeAllConnections();
  }
});

test("without an address backups stay at home", () => {
  expect(awayOf({})).toBeNull();
  expect(awayOf({ BAROMETRON_BACKUP_TO: "/mnt/far", BAROMETRON_BACKUP_PASSPHRASE: "p" })).toMatchObject({
    to: "/mnt/far",
    passphrase: "p",
  });
});
