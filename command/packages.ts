import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { isRoot, run } from "./run.ts";
import { say } from "./say.ts";

/** The newest PostgreSQL among Debian's version folders. */
export function postgresPrograms(): string | null {
  const folder = "/usr/lib/postgresql";
  if (!existsSync(folder)) return null;
  const versions = readdirSync(folder).filter((version) =>
    existsSync(join(folder, version, "bin", "initdb")),
  );
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest === undefined ? null : join(folder, newest, "bin");
}

/** Debian's Chromium, or another of its names. */
export function chromiumProgram(): string | null {
  return ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((path) => existsSync(path)) ?? null;
}

/** Installs a Debian package, as root or through sudo; says what it does; throws with what to type when it may not. */
function installPackage(name: string, what: string): void {
  say(`Installing ${what} (Debian package ${name}) ...`);
  const sudo = !isRoot;
  if (sudo && run("sudo", ["-n", "true"]).code !== 0)
    throw new Error(`${what} is missing and this user may not install it. Ask for: apt-get install ${name}`);
  const apt = (args: readonly string[]) =>
    run(sudo ? "sudo" : "env", [
      ...(sudo ? ["-n", "env"] : []),
      "DEBIAN_FRONTEND=noninteractive",
      "apt-get",
      "-qq",
      ...args,
    ]);
  apt(["update"]);
  const done = apt(["install", "-y", "--no-install-recommends", name]);
  if (done.code !== 0)
    throw new Error(
      `${what} could not be installed: ${done.out.trim().split("\n").at(-1)}\nInstall the Debian package ${name} by hand and run this again.`,
    );
}

/** Keeps Debian from starting a system cluster when PostgreSQL is installed. */
function noSystemCluster(): void {
  if (!isRoot) return;
  const file = "/etc/postgresql-common/createcluster.conf";
  const line = "create_main_cluster = false";
  const text = existsSync(file) ? readFileSync(file, "utf8") : "";
  if (text.includes(line)) return;
  say(`Writing “${line}” to ${file}, so that the package starts no database of the system's own ...`);
  mkdirSync("/etc/postgresql-common", { recursive: true });
  writeFileSync(file, `${text}\n${line}\n`);
}

/** PostgreSQL's programs, installed if they are missing. */
export function needPostgres(): string {
  const found = postgresPrograms();
  if (found) return found;
  noSystemCluster();
  installPackage("postgresql", "PostgreSQL");
  const installed = postgresPrograms();
  if (!installed)
    throw new Error("PostgreSQL was installed but its programs are not in /usr/lib/postgresql.");
  return installed;
}

/** Chromium, installed if it is missing. */
export function needChromium(): string {
  const found = chromiumProgram();
  if (found) return found;
  installPackage("chromium", "Chromium");
  const installed = chromiumProgram();
  if (!installed) throw new Error("Chromium was installed but is not in /usr/bin.");
  return installed;
}

const CADDY = "/usr/bin/caddy";

/** Debian's caddy, installed if it is missing. */
export function needCaddy(): string {
  if (existsSync(CADDY)) return CADDY;
  installPackage("caddy", "Caddy, which speaks HTTPS,");
  // The package starts a server of the system's own, which nobody asked for.
  run(isRoot ? "systemctl" : "sudo", [...(isRoot ? [] : ["-n", "systemctl"]), "disable", "--now", "caddy"]);
  if (!existsSync(CADDY)) throw new Error("Caddy was installed but is not in /usr/bin.");
  return CADDY;
}

const POOLER = "/usr/sbin/pgbouncer";

/** Debian's pgbouncer, for the test that a pooler between leaves desks apart; installed if it is missing. */
export function needPooler(): string {
  if (existsSync(POOLER)) return POOLER;
  installPackage("pgbouncer", "PgBouncer, which a test puts before the database,");
  // As with caddy: no server of the system's own.
  run(isRoot ? "systemctl" : "sudo", [
    ...(isRoot ? [] : ["-n", "systemctl"]),
    "disable",
    "--now",
    "pgbouncer",
  ]);
  if (!existsSync(POOLER)) throw new Error("PgBouncer was installed but is not in /usr/sbin.");
  return POOLER;
}

const HEADLESS = "/usr/bin/chromium-headless-shell";

/** Chromium's windowless build, which runs pages in less time, installed if it is missing; the whole browser where it cannot be had. */
export function needHeadless(): string {
  if (!existsSync(HEADLESS))
    try {
      installPackage("chromium-headless-shell", "Chromium without windows");
    } catch (error) {
      say(`${error instanceof Error ? error.message : String(error)}\nThe whole browser takes its place.`);
    }
  return existsSync(HEADLESS) ? HEADLESS : needChromium();
}
