import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";

/**
 * Examples in the docstrings of the core are true: each `@example f(x) === value` of a file is evaluated with what that file
 * exports. Examples in words are left to the tests beside them.
 */
const files = execFileSync("git", ["ls-files", "core/**/*.ts", "core/*/*.ts"], { encoding: "utf8" })
  .split("\n")
  .filter((file) => file && !/\.test\.ts$|\.fixture\.ts$/.test(file));

const EXAMPLE = /@example (.+? === .+?)(?: \*\/)?$|Example: `([^`]+ === [^`]+)`/gm;

const examples = [...new Set(files)].flatMap((file) =>
  [...readFileSync(file, "utf8").matchAll(EXAMPLE)].map((found) => [
    file,
    (found[1] ?? found[2] ?? "").trim(),
  ]),
);

test("there are examples enough to learn from", () => expect(examples.length).toBeGreaterThan(90));

describe("an example is true", () => {
  test.each(examples)("%s: %s", async (file, example) => {
    const exported = (await import(`../../${file}`)) as Record<string, unknown>;
    const names = Object.keys(exported);
    const evaluate = new Function(...names, `return ${example};`) as (...values: unknown[]) => unknown;
    expect(evaluate(...names.map((name) => exported[name]))).toBe(true);
  });
});
