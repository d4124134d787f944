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
  "thresholds",
  "gauge",
  "odometer",
] as const satisfies readonly (keyof TestResults)[];

/** A test's results without their drawings: small enough to read five hundred at once. */
export interface TestDigest extends Pick<TestResults, (typeof DIGEST_KEYS)[number]> {
  /** Readings in question. */
  readonly questions: number;
}

/** Whether a stored body is a digest of this build: one of another may lack what is shown. */
export const isDigest = (body: unknown): body is TestDigest =>
  typeof body === "object" && body !== null && DIGEST_KEYS.every((key) => key in body);

export function digestOf(results: TestResults): TestDigest {
  const kept = Object.fromEntries(DIGEST_KEYS.map((key) => [key, results[key]]));
  return { ...(kept as unknown as TestDigest), questions: results.flags.length };
}
