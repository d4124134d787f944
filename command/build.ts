import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { bundleServer } from "./bundle.ts";
import { compressClient } from "./compress.ts";
import { writeFonts } from "./fonts.ts";
import { writeNotices } from "./notices.ts";
import { BUILD, ROOT } from "./paths.ts";
import { aside } from "./run.ts";
import { say } from "./say.ts";
import { buildServiceWorker } from "./serviceWorker.ts";

const SOURCES = [
  "app",
  "core",
  "db",
  "server",
  "public",
  "vite.config.ts",
  "react-router.config.ts",
  "package-lock.json",
  "command/serviceWorker.ts",
  "command/notices.ts",
  "command/bundle.ts",
  "command/compress.ts",
  "command/fonts.ts",
];

function filesBelow(path: string): readonly string[] {
  if (!existsSync(path)) return [];
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path).flatMap((name) => filesBelow(join(path, name)));
}

/** A hash of everything the build is made from; it also dates cached results. */
export function sourceHash(): string {
  const hash = createHash("sha256");
  for (const source of SOURCES)
    for (const file of [...filesBelow(join(ROOT, source))].sort())
      if (!/\.test\.tsx?$/.test(file)) hash.update(file.slice(ROOT.length)).update(readFileSync(file));
  return hash.digest("hex").slice(0, 16);
}

/** A build takes no longer on any machine, s. */
const LONGEST_S = 1800;

/**
 * Builds the app unless the build at hand is of these very sources.
 *
 * @param signal ends the build
 * @returns the hash of the sources
 */
export async function buildApp(signal?: AbortSignal): Promise<string> {
  const stampFile = join(BUILD, "stamp");
  const hash = sourceHash();
  if (existsSync(stampFile) && readFileSync(stampFile, "utf8") === hash) return hash;
  say("Building the app ...");
  const built = await aside("npx", ["react-router", "build"], {
    ...{ env: { NODE_ENV: "production" }, limitS: LONGEST_S, signal },
  });
  signal?.throwIfAborted();
  if (built.code !== 0) throw new Error(`The build failed:\n${built.out}`);
  writeNotices();
  await buildServiceWorker();
  await bundleServer();
  await compressClient();
  await writeFonts(join(BUILD, "fonts"));
  writeFileSync(stampFile, hash);
  return hash;
}
