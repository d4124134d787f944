import { flagSentence, otherStory, type Judgement, type SolvedLedger } from "#core/estimation";
import { nth } from "#core/base";
import { markOf } from "#core/battery/readings";
import type { LoggedReading, Timeline } from "#core/ride/log";
import { bestOf, reckoning } from "./reckoning.ts";
import type { Flag } from "./types.ts";

/** What breaks the order of the log is hardly anything else, nats. */
const SURE_SLIP = 10;

/** The readings in question, in words, with the answer without them. */
export function inQuestion(
  solved: SolvedLedger,
  { flags, without }: Judgement,
  course: Timeline,
  readings: readonly LoggedReading[],
  relativeSd: number,
  isSetAside: boolean,
) {
  const places = new Map(
    course.marks.flatMap(({ entries, distanceM }) =>
      entries.map(({ rootId }) => [rootId, distanceM] as const),
    ),
  );
  const byOrder = course.slips.map(({ rootId, field, sentence }): Flag => {
    const distanceM = places.get(rootId) ?? 0;
    return { rootId, field, distanceM, standing: 0, logOdds: SURE_SLIP, sentence };
  });
  const doubted = flags.map((flag): Flag => {
    const { reading, rootId, field } = nth(readings, flag.reading);
    const { distanceM } = nth(course.marks, markOf(reading));
    const sentence = flagSentence(reading, distanceM, flag, otherStory(solved, without, flag));
    return { rootId, field, distanceM, standing: flag.standing, logOdds: flag.logOdds, sentence };
  });
  return {
    flags: [...byOrder, ...doubted],
    bestWithoutFlags: flags.length || isSetAside ? bestOf(reckoning(without, relativeSd)) : null,
  };
}

/** Mean square of the standings over which readings do not agree, even without those in question. */
const DISAGREE_ABOVE = 2;

/** Whether the readings that are not in question agree with one another. */
export function agree({ standings, flags }: Judgement, readings: readonly LoggedReading[]): boolean {
  const counted = readings.flatMap(({ struck }, i) => (struck ? [] : [i]));
  const asked = new Set(flags.map(({ reading }) => reading));
  const rest = standings.filter((_, i) => !asked.has(nth(counted, i)));
  const square = rest.reduce((sum, { standing }) => sum + standing * standing, 0);
  return rest.length === 0 || square / rest.length <= DISAGREE_ABOVE;
}

/**
 * How many are in question, behind what a figure rests on.
 *
 * @example questionWords(2) === "; 2 readings are in question"
 */
export const questionWords = (count: number) =>
  count === 0 ? "" : `; ${count === 1 ? "one reading is" : `${count} readings are`} in question`;
