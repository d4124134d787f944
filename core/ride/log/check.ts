import { type Problem, formatQuantity, type System } from "#core/base";
import { checkReading, type Setting } from "#core/battery/readings";
import type { EntryBody } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import { readingsAt } from "./sightings.ts";

/** How far ahead of now a reading's time may lie before it is taken for a slip, s. */
const CLOCK_SLACK_S = 3600;

/** Form field of each reading problem's path. */
const FIELD: Readonly<Record<string, string>> = {
  percent: "percent",
  packVolts: "packVolts",
  bars: "bars",
  bar: "bar",
  seriesCells: "packVolts",
};

const DISTANCES = [
  ["distanceM", "recorder"],
  ["displayM", "display"],
] as const;

/** Other entries that a distance clashes with: those that were there first and lie farther on, and those after it that do not. */
function clashesOf(
  key: "distanceM" | "displayM",
  here: number,
  timeS: number | null,
  others: readonly LiveEntry[],
) {
  const [ahead, behind]: [number[], number[]] = [[], []];
  for (const other of others) {
    const there = (other.body as { distanceM?: number; displayM?: number })[key];
    if (there === undefined || other.struck) continue;
    const isLater = timeS !== null && other.timeS !== null && other.timeS > timeS;
    if (isLater && there < here) behind.push(there);
    if (!isLater && there > here) ahead.push(there);
  }
  return { ahead, behind };
}

/** The whole of what a distance clashes with in one sentence, and both ways out: another figure, or its time. */
function backward(
  body: EntryBody,
  timeS: number | null,
  others: readonly LiveEntry[],
  system: System,
): readonly Problem[] {
  return DISTANCES.flatMap(([key, name]): readonly Problem[] => {
    const here = (body as { distanceM?: number; displayM?: number })[key];
    if (here === undefined) return [];
    const { ahead, behind } = clashesOf(key, here, timeS, others);
    if (ahead.length + behind.length === 0) return [];
    const text = (metres: number) => formatQuantity(metres, "distance", system);
    const more = (count: number) => (count > 1 ? ` and ${count - 1} more` : "");
    const [farthest, nearest] = [Math.max(...ahead), Math.min(...behind)];
    const clash = [
      ...(ahead.length ? [`lies behind ${text(farthest)}${more(ahead.length)} noted before it`] : []),
      ...(behind.length ? [`lies beyond ${text(nearest)}${more(behind.length)} noted after it`] : []),
    ].join(" and ");
    const fits = [
      ...(ahead.length ? [`${text(farthest)} or more`] : []),
      ...(behind.length ? [`${text(nearest)} or less`] : []),
    ];
    const byFigure = farthest > nearest ? "" : ` type ${fits.join(", ")}, or`;
    const byTime = timeS === null ? "give the time it was read at, if that was earlier" : "give another time";
    return [
      { code: "backward", path: key, sentence: `${text(here)} by ${name} ${clash}:${byFigure} ${byTime}.` },
    ];
  });
}

/**
 * What is impossible about a new entry: readings the bike cannot show, a distance that runs backward, a time in the
 * future. Empty when it can be kept.
 *
 * @param others the ride's other live entries; without times, all of them count as earlier
 * @param nowS the clock, seconds since the epoch
 */
export function checkEntry(
  body: EntryBody,
  timeS: number | null,
  others: readonly LiveEntry[],
  setting: Setting,
  nowS: number,
  system: System,
): readonly Problem[] {
  const problems: Problem[] = [];
  if (timeS !== null && timeS > nowS + CLOCK_SLACK_S)
    problems.push({
      code: "future",
      path: "time",
      sentence: "That time lies in the future: check the day of the test and the clock.",
    });
  const entry = {
    rootId: "",
    id: "",
    seq: 0,
    timeS,
    body: body as LiveEntry["body"],
    struck: false,
    struckFields: [],
    was: [],
    device: null,
  };
  for (const { reading } of readingsAt(0, entry, 0.1))
    for (const problem of checkReading(reading, setting))
      problems.push({ ...problem, path: FIELD[problem.path] ?? problem.path });
  return [...problems, ...backward(body, timeS, others, system)];
}
