import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";
import { caddyBefore } from "./caddy.ts";
import { askOnTerminal, firstOwner } from "./firstOwner.ts";
import { DATA } from "./paths.ts";
import { freePort } from "./ports.ts";
import { say } from "./say.ts";

const SHARE = join(DATA, "share");
/** Where the desk was last reached, for links that commands print. */
const ADDRESS = join(SHARE, "address");
/** The link that lets the first owner in, where nobody sits at a terminal. */
const LET_IN = join(SHARE, "first-owner");
const HTTPS_PORT = 4443;
/** Named on the Phones page. */
const TRUST_PORT = 4480;

/** This machine's address in the network of the house, else its name. */
function houseAddress(): string {
  const found = Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .find(({ family, internal }) => family === "IPv4" && !internal);
  return found?.address ?? hostname();
}

/** The secret that sessions are signed with, made once. */
function ownSecret(): string {
  mkdirSync(SHARE, { recursive: true, mode: 0o700 });
  const file = join(SHARE, "secret");
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(file, "utf8").trim();
}

/** Where others reach the desk, as it was last shared. */
export const sharedAddress = (): string | null =>
  process.env["PUBLIC_URL"] ?? (existsSync(ADDRESS) ? readFileSync(ADDRESS, "utf8").trim() : null);

/** What a shared desk is told by its environment, before it is loaded. */
function shareBy(publicUrl: string): void {
  process.env["PUBLIC_URL"] = publicUrl;
  process.env["BAROMETRON_SECRET"] ??= ownSecret();
  mkdirSync(SHARE, { recursive: true, mode: 0o700 });
  writeFileSync(ADDRESS, publicUrl);
}

/**
 * Opens the desk to others: caddy in front, unless PUBLIC_URL says that a proxy of yours is. Must run before the server is
 * loaded.
 *
 * @param port of the desk on loopback; @param host the name it is reached by, null for this machine's address
 * @returns what ends it
 */
export async function share(
  databaseUrl: string,
  port: number,
  host: string | null,
): Promise<{ stop(): Promise<void> }> {
  const behind = process.env["PUBLIC_URL"];
  if (behind) {
    shareBy(behind);
    say(`Shared at ${behind}, behind your proxy: it must pass the Host on, and speak to port ${port}.`);
    await firstOwner(databaseUrl, behind, askOnTerminal(), LET_IN);
    return { stop: () => Promise.resolve() };
  }
  const front = await caddyBefore({
    ...{ host: host ?? houseAddress(), port, folder: SHARE },
    httpsPort: await freePort(HTTPS_PORT),
    trustPort: await freePort(TRUST_PORT),
  });
  shareBy(front.publicUrl);
  process.env["BAROMETRON_TRUST_URL"] = front.trustUrl ?? "";
  say(`Shared at ${front.publicUrl}`);
  if (front.trustUrl) {
    say(`A phone that comes the first time opens ${front.trustUrl}, which helps it trust this desk.`);
    say(`  Its authority's SHA-256: ${front.fingerprint}`);
  }
  await firstOwner(databaseUrl, front.publicUrl, askOnTerminal(), LET_IN);
  return front;
}
