import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { BUILD, ROOT } from "./paths.ts";

interface Locked {
  readonly dev?: boolean;
  readonly devOptional?: boolean;
  readonly optional?: boolean;
}

interface PackageJson {
  readonly name?: string;
  readonly version?: string;
  readonly license?: string | { readonly type?: string };
}

const readJson = <T>(file: string): T => JSON.parse(readFileSync(file, "utf8")) as T;

/** The folders of the packages that are shipped or run, as the lock file has them. */
function shipped(): readonly string[] {
  const { packages } = readJson<{ packages: Readonly<Record<string, Locked>> }>(
    join(ROOT, "package-lock.json"),
  );
  return Object.entries(packages)
    .filter(([path, { dev, devOptional, optional }]) => path !== "" && !dev && !devOptional && !optional)
    .map(([path]) => join(ROOT, path))
    .filter((folder) => existsSync(join(folder, "package.json")));
}

/** A package's own licence files, one after the other; empty where it ships none. */
function licenceTexts(folder: string): string {
  const files = readdirSync(folder).filter((name) =>
    /^(licen[cs]e|copying|notice|ofl)(\b|[._-])/i.test(name),
  );
  return files
    .map((name) => join(folder, name))
    .map((file) => readFileSync(file, "utf8").trim())
    .join("\n\n");
}

/** Writes what others made and is shipped with the build, each with its licence: packages and fonts. */
export function writeNotices(): void {
  const parts = shipped().map((folder) => {
    const { name = "", version = "", license } = readJson<PackageJson>(join(folder, "package.json"));
    const kind = typeof license === "string" ? license : (license?.type ?? "see its text");
    return { name, text: `${name} ${version}, ${kind}\n\n${licenceTexts(folder)}`.trim() };
  });
  const sorted = [...parts].sort((a, b) => a.name.localeCompare(b.name));
  const head = "Barometron is shipped with what these people made, each under its own licence.";
  writeFileSync(
    join(BUILD, "client", "notices.txt"),
    `${[head, ...sorted.map(({ text }) => text)].join(`\n\n${"-".repeat(72)}\n\n`)}\n`,
  );
}
