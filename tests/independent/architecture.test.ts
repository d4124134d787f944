import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import {
  BIKE_FIELDS,
  INSTRUMENT_FIELDS,
  PACK_FIELDS,
  RIDER_FIELDS,
  SET_UP_FIELDS,
  TEST_FIELDS,
} from "#core/records";

const ROOT = join(import.meta.dirname, "..", "..");
const read = (path: string) => readFileSync(join(ROOT, path), "utf8");
const page = read("docs/architecture.md");
const foldersOf = (path: string) =>
  readdirSync(join(ROOT, path), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => name);

/** Rooms in the order in which the lint's rule has them. */
const linted = [
  ...(/ROOMS = \[([^\]]+)\]/.exec(read("eslint.config.js"))?.[1] ?? "").matchAll(/"(\w+)"/g),
].map(([, name]) => name!);
/** Rooms in the order in which the page describes them. */
const described = [...page.matchAll(/^\| `core\/(\w+)` \|/gm)].map(([, name]) => name!);

describe("the page on the house", () => {
  test("describes every room of core, in the order in which they may import one another", () => {
    expect(described).toEqual(linted);
    expect([...described].sort()).toEqual(foldersOf("core").sort());
  });
  test("names every station", () => {
    const others = ["services", "ui", "workers"];
    for (const name of foldersOf("app").filter((each) => !others.includes(each)))
      expect(page).toContain(`\`app/${name}\``);
  });
  test("names no file that is not there", () => {
    const named = [...page.matchAll(/`((?:core|app|db|server|command|tests|docs)\/[\w./]+)`/g)].map(
      ([, path]) => path!,
    );
    expect(named.length).toBeGreaterThan(40);
    expect(named.filter((path) => !existsSync(join(ROOT, path)))).toEqual([]);
  });
  test("every room has its door, or one to each of its parts", () => {
    for (const room of described) {
      const doors = existsSync(join(ROOT, "core", room, "index.ts"))
        ? [room]
        : foldersOf(join("core", room)).map((part) => join(room, part));
      for (const door of doors) expect(existsSync(join(ROOT, "core", door, "index.ts"))).toBe(true);
    }
  });
});

test("every field of a record stands on the page of calc's formats", () => {
  const formats = read("docs/formats/calc.md");
  for (const fields of [
    BIKE_FIELDS,
    PACK_FIELDS,
    RIDER_FIELDS,
    SET_UP_FIELDS,
    INSTRUMENT_FIELDS,
    TEST_FIELDS,
  ])
    for (const key of Object.keys(fields)) expect([key, formats.includes(`\`${key}\``)]).toEqual([key, true]);
});
