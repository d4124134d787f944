import type { Quantity } from "./quantities.ts";
import { wordsOf, type Token } from "./tokens.ts";
import { unitAt } from "./units.ts";

/** A quantity whose figure is not said. */
export const UNSAID = {
  high: null,
  approx: false,
  side: null,
  decade: false,
  clock: false,
  singular: true,
  withdrawn: null,
  began: null,
} as const;

/** Parts of one that is said behind them: "half a mile", "three quarters of an hour". */
const BEFORE: readonly (readonly [said: readonly string[], part: number])[] = [
  [["half", "a"], 0.5],
  [["half", "an"], 0.5],
  [["a", "quarter", "of", "a"], 0.25],
  [["three", "quarters", "of", "a"], 0.75],
  [["a", "quarter", "of", "an"], 0.25],
  [["quarter", "of", "an"], 0.25],
  [["three", "quarters", "of", "an"], 0.75],
];
/** And behind one: "a mile and three quarters". */
export const BEHIND: ReadonlyMap<string, number> = new Map([
  ["and a half", 0.5],
  ["and a quarter", 0.25],
  ["and three quarters", 0.75],
]);
const MINUTES = 60;

/** A part of an hour is told in minutes. */
const quantityOf = (part: number, unit: string | undefined, from: number, to: number): Quantity | null =>
  unit === "h"
    ? { ...UNSAID, value: part * MINUTES, unit: "min", from, to, exact: true }
    : unit === "mi" || unit === "km"
      ? { ...UNSAID, value: part, unit, from, to, exact: true }
      : null;

/** Parts of a mile, a kilometre or an hour, said without a figure of their own. */
export function partsOf(tokens: readonly Token[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (let at = 0; at < tokens.length; at += 1) {
    const word = tokens[at]?.word ?? "";
    const before = BEFORE.find(([said]) => said.every((each, i) => tokens[at + i]?.word === each));
    const end = at + (before?.[0].length ?? 1);
    const unit = unitAt(tokens, end)?.unit;
    // "Half an hour" is a time without a figure, and "a mile" none at all.
    const behind = /^(?:a|one|1)$/.test(word) ? BEHIND.get(wordsOf(tokens, end + 1, end + 4)) : undefined;
    const found = before
      ? quantityOf(before[1], unit, at, end + 1)
      : behind !== undefined && unit !== "h"
        ? quantityOf(1 + behind, unit, at, end + 4)
        : null;
    if (!found) continue;
    out.push(found);
    at = found.to - 1;
  }
  return out;
}
