import { listed, sourceWords } from "#core/analysis";
import { DEFAULTS, estimateToken, fixed, unitToken, widenedText } from "#core/base";
import { asSentence, countText, percentText, saidBy, type Rule, type TestFacts } from "./facts.ts";

/** A source of doubt that is named is at least this part of it all. */
const LARGE_PART = 0.4;
/** So little of a charge says little of the rest. */
const SMALL_PART = 0.3;
/** Factor of widening from which it is told. */
const WIDENED = 1.1;

const struckOf = ({ results: { readings } }: TestFacts) =>
  readings.filter(({ struck, kind }) => struck && kind !== "telemetry");

const rate = (value: Parameters<typeof estimateToken>[0]) => estimateToken(value, "energyPerDistance");

/**
 * What a reader of a test's page has to know before the figure is used, each sentence only where it is so.
 * Source: docs/method.md.
 */
export const CAVEAT_RULES: readonly Rule[] = [
  {
    key: "in question",
    says: ({ results: { flags, bestWithoutFlags } }) =>
      flags.length === 0
        ? null
        : `${asSentence(`${countText(flags.length, "reading stands", "readings stand")} in question and ${flags.length === 1 ? "counts" : "count"} by the odds that ${flags.length === 1 ? "it is" : "each is"} no slip`)} ${flags.map(({ sentence }) => asSentence(sentence)).join(" ")}${bestWithoutFlags ? ` Without, the figure would be ${rate(bestWithoutFlags)}.` : ""}`,
  },
  {
    key: "set aside",
    says: (facts) => {
      const struck = struckOf(facts);
      const { bestWithStruck } = facts.results;
      if (struck.length === 0) return null;
      const which = struck.map(({ text, distanceM }) => `${text} at ${unitToken(distanceM, "distance", 1)}`);
      return `${asSentence(`${countText(struck.length, "reading was", "readings were")} set aside: ${listed(which)}`)}${bestWithStruck ? ` With ${struck.length === 1 ? "it" : "them"} the figure would be ${rate(bestWithStruck)}.` : ""}`;
    },
  },
  {
    key: "disagree",
    says: ({ results: { widened } }) =>
      widened < WIDENED
        ? null
        : `The readings disagree by more than their errors let expect: the plus-or-minus was made ${widenedText(widened)} for it.`,
  },
  {
    key: "largest doubt",
    says: ({ results: { budget } }) => {
      const [largest] = [...budget].sort((a, b) => b.share - a.share);
      return largest && largest.share >= LARGE_PART
        ? asSentence(`most of the plus-or-minus comes of this: ${sourceWords(largest.source)}`)
        : null;
    },
  },
  {
    key: "small part",
    says: ({ results: { end } }) =>
      end.closed || end.used.mean >= SMALL_PART
        ? null
        : `Only ${percentText(end.used.mean)} of the energy was used: what the rest of the charge gives is a sketch.`,
  },
  {
    key: "not ridden to the end",
    says: ({ results: { rangeTotal } }) =>
      rangeTotal?.pencil ? `The range is not ridden but reckoned: ${rangeTotal.because}.` : null,
  },
  {
    key: "display's miles",
    says: ({ results: { odometer } }) =>
      odometer?.warn
        ? `The display's miles were off by ${fixed(Math.abs(100 * (1 / odometer.k - 1)), 1)} %, and its own figures with them.`
        : null,
  },
  {
    key: "effort not noted",
    says: ({ record: { test } }) =>
      test.drive === "pedal" &&
      test.effort === undefined &&
      test.riderW === undefined &&
      test.bpm === undefined
        ? "How hard the rider pedalled was not noted."
        : null,
  },
  {
    key: "air not noted",
    says: ({ record: { test } }) =>
      test.airTempC === undefined && test.packTempC === undefined
        ? `The temperature was not noted: ${unitToken(DEFAULTS.packTempC, "temperature")} is taken, and a cold pack gives less.`
        : null,
  },
  {
    key: "plain",
    says: ({ results: { difference, plain } }) =>
      plain && difference
        ? `By paper arithmetic it would be ${unitToken(plain.whPerM, "energyPerDistance", 1)}. ${asSentence(difference)}`
        : null,
  },
  {
    key: "notices",
    says: ({ results: { notices } }) => (notices.length ? notices.map(asSentence).join(" ") : null),
  },
];

/** The caveats of a test. */
export const caveatsOf = (facts: TestFacts): readonly string[] => saidBy(CAVEAT_RULES, facts);
