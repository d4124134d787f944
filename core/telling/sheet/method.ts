import { countedWords, listed } from "#core/analysis";
import { nth, unitToken } from "#core/base";
import { asSentence, countText, percentText, saidBy, type Rule, type TestFacts } from "./facts.ts";

/** How a kind of test is ridden, in the words of a page. */
const PROTOCOLS: Readonly<Record<string, string>> = {
  "run-down": "A run-down: one charge, ridden on",
  "part charge": "A part of a charge",
  "fixed course, volts before and after":
    "A fixed course, with the pack's volts read at rest before and after",
  "steady current": "Steady speeds, with the current read",
  "sections A/B": "Sections ridden by turns, A and B, within one log",
  twins: "Two bikes ridden side by side",
  vertical: "Loops on a hill, for the climb",
  "commute week": "The rides of some days, as they came",
  "hill trial": "Runs up a hill",
};

/** How it ended: what ended the charge, or how much of the pack's energy the way took. */
const ends = ({ results: { end } }: TestFacts) =>
  end.closed
    ? ` until ${end.reason ?? "the end"}`
    : `, ${percentText(end.used.mean)} of the pack's energy used on the way${end.reason ? ` (${end.reason})` : ""}`;

/** Entries of the log of a kind. */
const countKind = ({ results: { course } }: TestFacts, kind: string) =>
  course.marks.reduce((sum, { entries }) => sum + entries.filter(({ body }) => body.kind === kind).length, 0);

const hasStart = ({ results: { readings } }: TestFacts) =>
  readings.some(({ kind, struck }) => kind === "fullStart" && !struck);

const levelsOf = ({ results: { parts } }: TestFacts) => [...new Set(parts.map(({ level }) => level))];

/**
 * How a test was measured, sentence by sentence, each said only where the log has it so. Source: docs/method.md.
 */
export const METHOD_RULES: readonly Rule[] = [
  {
    key: "protocol",
    says: (facts) => {
      const { school } = facts.record.test;
      const refills = countKind(facts, "refill");
      const began = hasStart(facts)
        ? "from a full charge"
        : `from ${percentText(nth(facts.results.curve, 0).left.mean)} left`;
      const charged = refills > 0 ? `, with ${countText(refills, "charge")} in between` : "";
      return `${PROTOCOLS[school] ?? asSentence(school).slice(0, -1)}, ${began}${ends(facts)}${charged}.`;
    },
  },
  {
    key: "rides",
    says: (facts) => {
      const count = facts.record.rides.length;
      const onOne = countKind(facts, "refill") === 0 ? " on one charge" : "";
      return count > 1 ? asSentence(`${countText(count, "ride")}${onOne}`) : null;
    },
  },
  {
    key: "two packs",
    says: ({ record }) =>
      record.secondPack ? `Two packs ran together: ${record.pack.name} and ${record.secondPack.name}.` : null,
  },
  {
    key: "throttle",
    says: ({ record: { test } }) => (test.drive === "throttle" ? "By throttle, without pedalling." : null),
  },
  {
    key: "levels",
    says: (facts) => {
      const levels = levelsOf(facts).filter((level) => level !== "");
      return facts.record.test.drive === "throttle" || levels.length === 0
        ? null
        : `Pedalled on ${levels.length > 1 ? "levels" : "level"} ${listed(levels)}.`;
    },
  },
  {
    key: "evidence",
    says: ({ results: { readings } }) => {
      const counted = countedWords(readings.filter(({ struck }) => !struck));
      return counted === "" ? null : `Weighed in one model, each by its error: ${counted}.`;
    },
  },
  {
    key: "distance",
    says: ({ results: { distance } }) => asSentence(`the distance is ${distance.because}`),
  },
  {
    key: "times",
    says: ({ results: { movingS, meanSpeedMps } }) =>
      movingS === null || meanSpeedMps === null
        ? null
        : `It was ridden at ${unitToken(meanSpeedMps, "speed", 1)} on average, ${unitToken(movingS, "duration")} in motion.`,
  },
  {
    key: "capacity measured",
    says: ({ results: { capacity } }) =>
      capacity.pencil ? null : `What the pack held was ${capacity.because}.`,
  },
  {
    key: "capacity assumed",
    says: ({ results: { capacity } }) =>
      capacity.pencil ? `Nobody measured this pack: what it held is taken as ${capacity.because}.` : null,
  },
];

/** The method paragraph of a test. */
export const methodOf = (facts: TestFacts): readonly string[] => saidBy(METHOD_RULES, facts);
