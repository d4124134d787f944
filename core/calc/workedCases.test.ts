import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { answer } from "./answer.ts";
import { CALCULATIONS } from "./calculations.ts";

interface WorkedCase {
  readonly id: string;
  readonly calculation: string;
  readonly input: unknown;
  readonly expected: Record<string, unknown>;
  readonly tolerance: {
    readonly relative?: number;
    readonly meansRelative?: number;
    readonly sdsRelative?: number;
    readonly chi2Relative?: number;
    readonly looAbsolute?: number;
  };
}

const read = (file: string): readonly WorkedCase[] =>
  JSON.parse(readFileSync(`tests/fixtures/${file}`, "utf8"));
/** The assumptions of the first model, under which the first cases were worked by independent code. */
const assume = JSON.parse(readFileSync("tests/fixtures/first-model.json", "utf8")) as object;
const firstModel = (item: WorkedCase): WorkedCase =>
  ["ledger", "usableEnergy"].includes(item.calculation)
    ? { ...item, input: { ...(item.input as object), assume } }
    : item;
const cases = [...read("worked-cases.json").map(firstModel), ...read("more-cases.json")];
const touched = cases.filter(({ calculation }) => calculation in CALCULATIONS);

/** Numbers of a nested result by dotted path. */
function leaves(value: unknown, path = ""): readonly (readonly [string, number | boolean])[] {
  if (typeof value === "number" || typeof value === "boolean") return [[path, value]];
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => leaves(inner, path ? `${path}.${key}` : key));
}

function allowed(path: string, expected: number, { tolerance }: WorkedCase): number {
  if (tolerance.relative !== undefined) return tolerance.relative * Math.abs(expected);
  if (path.startsWith("looStandardised")) return tolerance.looAbsolute ?? 0;
  if (path.startsWith("chi2")) return (tolerance.chi2Relative ?? 0) * expected;
  const isSd = /Sd/.test(path) || /^(cell\w+|thresholdsF)\.[^.]+\.1$/.test(path);
  return (isSd ? (tolerance.sdsRelative ?? 0) : (tolerance.meansRelative ?? 0)) * Math.abs(expected);
}

test("every calculation has its worked cases", () => {
  expect([...new Set(touched.map(({ calculation }) => calculation))].sort()).toEqual(
    // Narrations have their gold in tests/narrations.
    Object.keys(CALCULATIONS)
      .filter((name) => name !== "narration")
      .sort(),
  );
});

describe.each(touched.map((item) => [item.id, item] as const))("%s", (_id, item) => {
  const got = answer({ calculation: item.calculation, input: item.input });
  const found = new Map(leaves(got.value));
  test("is answered", () => expect(got.ok).toBe(true));
  test.each(leaves(item.expected).map(([path, value]) => [path, value] as const))(
    "%s is %p",
    (path, value) => {
      const mine = found.get(path);
      if (typeof value === "boolean") expect(mine).toBe(value);
      else expect(Math.abs(Number(mine) - value)).toBeLessThanOrEqual(allowed(path, value, item));
    },
  );
});
