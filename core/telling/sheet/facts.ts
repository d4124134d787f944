import type { TestResults } from "#core/analysis";
import type { TestRecord } from "#core/records";

/** What the sentences of a sheet rest on: a test as it was noted, and all that is known of it. */
export interface TestFacts {
  readonly record: TestRecord;
  readonly results: TestResults;
}

/** A sentence and when it is true: null where it would not be. */
export interface Rule {
  readonly key: string;
  readonly says: (facts: TestFacts) => string | null;
}

/** The sentences that are true of a test, in the order of their rules. */
export const saidBy = (rules: readonly Rule[], facts: TestFacts): readonly string[] =>
  rules.flatMap(({ says }) => says(facts) ?? []);

/**
 * "one", "two" ... as words up to ten, then digits: `countText(2, "reading") === "two readings"`.
 *
 * @example countText(2, "ride") === "two rides"
 */
export function countText(count: number, what: string, many = `${what}s`): string {
  const words = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];
  return `${words[count] ?? count} ${count === 1 ? what : many}`;
}

/**
 * With its first letter large, and a full stop.
 *
 * @example asSentence("two rides") === "Two rides."
 */
export function asSentence(text: string): string {
  const plain = text.trim();
  return plain === ""
    ? ""
    : `${plain.slice(0, 1).toUpperCase()}${plain.slice(1)}${/[.!?]$/.test(plain) ? "" : "."}`;
}

/**
 * "69 %".
 *
 * @example percentText(0.256) === "26 %"
 */
export const percentText = (share: number): string => `${Math.round(100 * share)} %`;
