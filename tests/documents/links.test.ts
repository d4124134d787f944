import { execFileSync, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { quickFigure } from "#core/analysis/quick";
import { parseQuantity } from "#core/base";
import { readLine } from "#core/ride/log";
import { flat, pageText, tableRows, ticked } from "./pages";

const pages = execFileSync("git", ["ls-files", "*.md"], { encoding: "utf8" }).split("\n").filter(Boolean);
const readme = pageText("README.md");

describe("what a page leads to is there", () => {
  const links = pages.flatMap((page) =>
    [...pageText(page).matchAll(/\]\(([^)#\s]+)(?:#[^)]*)?\)/g)].map(([, to = ""]) => [page, to] as const),
  );
  test.each(links.filter(([, to]) => !/^[a-z]+:/.test(to)))("%s: %s", (page, to) =>
    expect(existsSync(join(dirname(page), to))).toBe(true),
  );
});

const helped = (...args: readonly string[]) => {
  const { stdout, stderr, status } = spawnSync("./barometron", args, { encoding: "utf8" });
  return { said: stdout + stderr, status };
};

describe("a command of the README is one, and takes what the README says", () => {
  const begin = readme.indexOf("## The one command");
  const rows = tableRows(readme.slice(begin, readme.indexOf("## First steps"))).slice(1);
  const commands = rows.map(([first = "", says = ""]) => {
    const [words = ""] = ticked(first);
    const name = words.split(" ")[0]!;
    return [name, [...`${words} ${says}`.matchAll(/--([a-z-]+)/g)].map(([, flag = ""]) => flag)] as const;
  });
  test.each(commands)("%s", (name, flags) => {
    const { said, status } = helped(name, "--help");
    expect(status).toBe(0);
    for (const flag of flags) expect(said).toContain(`--${flag}`);
  });
  test("and none is left out", () => {
    const known = [...helped("help").said.matchAll(/^\s+\.\/barometron ([a-z]+) {2,}/gm)].map(
      ([, name]) => name,
    );
    expect(known.length).toBeGreaterThan(8);
    expect(known.filter((name) => !commands.some(([each]) => each === name))).toEqual([]);
  });
});

describe("what the README says may be typed is read", () => {
  const setting = { levels: ["low", "mid", "high"], throttle: true };
  test("a quick figure", () => {
    const [, words = ""] = /would say them, "([^"]+)"/.exec(flat(readme)) ?? [];
    expect(quickFigure(words, "2026-10-18", () => crypto.randomUUID())).toMatchObject({ ok: true });
  });
  test.each(["12.4mi 61% L2 #gravel", "@upper:A"])("on the line: %s", (line) => {
    expect(readme).toContain(`\`${line}\``);
    expect(readLine(line, setting)).toMatchObject({ unread: [], problem: null });
  });
  test.each([
    ["12 km", "distance", 12_000],
    ["31 psi", "pressure", 213_737],
    ["-3 C", "temperature", -3],
    ["12,4", "distance", 19_955.87],
  ] as const)("in a field: %s", (typed, name, value) => {
    expect(readme).toContain(`\`${typed}\``);
    const read = parseQuantity(typed, name, "mi");
    expect(read.ok && Math.abs(read.value - value)).toBeLessThan(1);
  });
});
