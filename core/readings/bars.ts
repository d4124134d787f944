import { z } from "zod";
import { ASSUMED } from "#core/assumptions";
import { problemIf, readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { pointRow, ROOT12, type Setting, type Unknown } from "./row.ts";

/** Where bar k of N goes out, until learned: equal bars, each uncertain by 0.30 bar. */
export function barThreshold(bar: number, bars: number): Unknown {
  return {
    key: `bar ${bar}`,
    of: "gauge",
    mean: 1 - (bar - 1) / bars,
    sd: ASSUMED.barThresholdSd / bars,
    source: "bar thresholds",
  };
}

const barNumber = z.number({ error: "Bars must be a number." }).int("Bars are whole: type 3, not 3.5.");

function checkCount(count: number, least: number, { bars }: Setting, path: string) {
  if (bars === 0)
    return problemIf(
      true,
      "no-bars",
      path,
      "This bike's display has no bars: leave it empty, or set its bars on the bike page.",
    );
  return problemIf(
    count < least || count > bars,
    "bars-range",
    path,
    `${count} bars cannot be on a display of ${bars}: type ${least} to ${bars}.`,
  );
}

/** A steady look at k bars of N: between the threshold that lit it and the one that will put it out. */
export const bars = readingKind({
  schema: z.object({ kind: z.literal("bars"), mark: markSchema, bars: barNumber }),
  name: "bars",
  counted: ["one look at the bars", "looks at the bars"],
  evidence: "bars",
  ifOff: "miscounted, or looked at under load?",
  text: ({ bars: shown }) => `${shown} bars`,
  check: (reading, setting) => checkCount(reading.bars, 0, setting, "bars"),
  says: ({ mark, bars: shown }, { bars: count }) => {
    const errors = [{ source: "bar width", sd: 1 / count / ROOT12 }];
    if (shown === 0) return { ...pointRow(mark, barThreshold(1, count), errors), unknowns: [], value: 1 };
    const ends = [shown + 1, shown].filter((bar) => bar >= 2 && bar <= count);
    const fixedEnds = shown === 1 ? 1 : 0;
    return {
      fractions: [{ mark, coefficient: 1 }],
      unknowns: ends.map((bar) => ({ unknown: barThreshold(bar, count), coefficient: -0.5 })),
      value: 0.5 * fixedEnds,
      errors,
    };
  },
});

/** The moment bar k went out, first seen under load. */
export const barLost = readingKind({
  schema: z.object({ kind: z.literal("barLost"), mark: markSchema, bar: barNumber }),
  name: "bar lost",
  counted: ["one bar lost", "bars lost"],
  evidence: "bars",
  ifOff: "seen late, or noted at the wrong mile?",
  text: ({ bar }) => `bar ${bar} lost`,
  check: (reading, setting) => checkCount(reading.bar, 1, setting, "bar"),
  says: ({ mark, bar }, { bars: count }) =>
    pointRow(mark, barThreshold(bar, count), [{ source: "bar sighting", sd: ASSUMED.barSightingSd }]),
});

/** The last bar starts to blink. */
export const lastBarBlinking = readingKind({
  schema: z.object({ kind: z.literal("lastBarBlinking"), mark: markSchema }),
  name: "last bar blinking",
  counted: ["the last bar blinking", "last bars blinking"],
  evidence: "bars",
  ifOff: "seen late, or noted at the wrong mile?",
  text: () => "last bar blinking",
  check: (_reading, setting) => checkCount(1, 1, setting, "bars"),
  says: ({ mark }, { bars: count }) =>
    pointRow(
      mark,
      {
        key: "last bar",
        of: "gauge",
        mean: 1 - ASSUMED.lastBarAt / count,
        sd: ASSUMED.lastBarSd / count,
        source: "last-bar point",
      },
      [{ source: "bar sighting", sd: ASSUMED.barSightingSd }],
    ),
});
