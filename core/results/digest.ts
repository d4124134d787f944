import type { TestResults } from "./types.ts";

/** What comparisons need of a test's results. */
const DIGEST_KEYS = [
  "best",
  "plain",
  "energy",
  "distance",
  "capacity",
  "rangeTotal",
  "rangeFullPower",
  "rangeWithReserve",
  "meanSpeedMps",
  "climbM",
  "slopes",
  "noted",
  "parts",
  "budget",
  "packLearned",
  "quarters",
  "steady",
] as const satisfies readonly (keyof TestResults)[];

/** A test's results without their drawings: small enough to read five hundred at once. */
export interface TestDigest extends Pick<TestResults, (typeof DIGEST_KEYS)[number]> {
  /** Readings in question. */
  readonly questions: number;
}

export function digestOf(results: TestResults): TestDigest {
  const kept = Object.fromEntries(DIGEST_KEYS.map((key) => [key, results[key]]));
  return { ...(kept as unknown as TestDigest), questions: results.flags.length };
}
