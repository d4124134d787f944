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

function backward(
  body: EntryBody,
  timeS: number | null,
  others: readonly LiveEntry[],
  system: System,
): readonly Problem[] {
  return DISTANCES.flatMap(([key, name]) => {
    const here = (body as { distanceM?: number; displayM?: number })[key];
    if (here === undefined) return [];
    const clash = others.flatMap((other) => {
      const there = (other.body as { distanceM?: number; displayM?: number })[key];
      if (there === undefined || other.struck) return [];
      const later = timeS === null || other.timeS === null ? null : other.timeS > timeS;
      if (later === true && there < here) return [{ there, side: "later" }];
      if (later !== true && there > here) return [{ there, side: "earlier" }];
      return [];
    })[0];
    if (!clash) return [];
    const [mine, theirs] = [
      formatQuantity(here, "distance", system),
      formatQuantity(clash.there, "distance", system),
    ];
    return [
      {
        code: "backward",
        path: key,
        sentence:
          clash.side === "earlier"
            ? `${mine} by ${name} lies behind ${theirs} of an earlier check-in: type ${theirs} or more, or give the time if this one was read before it.`
            : `${mine} by ${name} lies beyond ${theirs} of a later check-in: check the figure or the time.`,
      },
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
