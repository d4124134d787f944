import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { problemIf, readingKind } from "./kind.ts";
import { markShape } from "./mark.ts";
import { fractionRow, pointRow, type Row, type Setting, type ReadingUnknown } from "./row.ts";

/**
 * Where bar k of N goes out, until learned: equal bars, each uncertain by 0.30 bar.
 *
 * @example barThreshold(3, 5).mean === 0.6
 */
export function barThreshold(bar: number, bars: number): ReadingUnknown {
  return {
    key: `bar ${bar}`,
    of: "gauge",
    mean: 1 - (bar - 1) / bars,
    sd: DEFAULTS.barThresholdSd / bars,
    source: "bar thresholds",
  };
}

/** What all bars of a display have in common: a shift, and a bow that is greatest at the middle of the charge. */
function commonToBars(): { readonly shift: ReadingUnknown; readonly bow: ReadingUnknown } {
  const common = { of: "gauge", mean: 0, source: "bar thresholds" } as const;
  return {
    shift: { ...common, key: "bar shift", sd: DEFAULTS.barShiftSd },
    bow: { ...common, key: "bar bow", sd: DEFAULTS.barBowSd },
  };
}

/**
 * How far the bow moves what goes out at a fraction used.
 *
 * @example bowAt(0.5) === 1
 */
export const bowAt = (f: number) => 4 * f * (1 - f);

/** A bar's threshold as unknowns, times a factor: its own, and what it shares with the others. */
function thresholdTerms(bar: number, bars: number, factor: number): Row["unknowns"] {
  const own = barThreshold(bar, bars);
  const { shift, bow } = commonToBars();
  return [
    { unknown: own, coefficient: factor },
    ...(shift.sd > 0 ? [{ unknown: shift, coefficient: factor }] : []),
    ...(bow.sd > 0 ? [{ unknown: bow, coefficient: factor * bowAt(own.mean) }] : []),
  ];
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

/**
 * A look at k bars of N: between the threshold that lit the last of them and the one that will put it out. Where it flickered
 * between k and fewer, the charge is at the thresholds between them.
 */
export const bars = readingKind({
  schema: z.object({
    ...{ kind: z.literal("bars"), ...markShape, bars: barNumber },
    /** How many bars fewer were seen in turn with them. */
    fewer: barNumber.min(0).optional(),
    /** How many looks in a row showed them, of which this is the last. */
    looks: z.number().int().min(1).optional(),
  }),
  name: "bars",
  counted: ["one look at the bars", "looks at the bars"],
  evidence: "bars",
  ifOff: "miscounted, or looked at under load?",
  text: ({ bars: shown, fewer = 0 }) => (fewer ? `${shown - fewer} to ${shown} bars` : `${shown} bars`),
  check: (reading, setting) =>
    checkCount(reading.bars, 0, setting, "bars").concat(
      reading.fewer ? checkCount(reading.bars - reading.fewer, 0, setting, "fewer") : [],
    ),
  says: ({ mark, bars: shown, fewer = 0, looks = 1 }, setting) => {
    const count = setting.bars;
    // The last of several looks that lie anywhere on the bar: the greatest of so many, as a beta has it.
    const place = looks / (looks + 1);
    const sd = Math.sqrt(looks / (looks + 2)) / (looks + 1);
    const errors = [{ source: "bar width", sd: (Math.max(1, fewer) / count) * sd }] as const;
    if (shown === 0) return fractionRow(mark, 1, errors);
    // The threshold that lit the last of the fewest, and the one that puts out the last of the most.
    const [lit, out] = fewer === 0 ? [shown + 1, shown] : [shown, shown - fewer + 1];
    const terms = (bar: number, weight: number) =>
      bar >= 2 && bar <= count ? thresholdTerms(bar, count, -weight) : [];
    return {
      fractions: [{ mark, coefficient: 1 }],
      unknowns: [...terms(lit, 1 - place), ...terms(out, place)],
      value: out === 1 ? place : 0,
      errors,
    };
  },
});

/** The moment bar k went out, first seen under load. */
export const barLost = readingKind({
  schema: z.object({ kind: z.literal("barLost"), ...markShape, bar: barNumber }),
  name: "bar lost",
  counted: ["one bar lost", "bars lost"],
  evidence: "bars",
  ifOff: "seen late, or noted at the wrong mile?",
  text: ({ bar }) => `bar ${bar} lost`,
  check: (reading, setting) => checkCount(reading.bar, 1, setting, "bar"),
  says: ({ mark, bar }, setting) => {
    const neighbours = [bar - 1, bar + 1].filter((other) => other >= 1 && other <= setting.bars);
    return {
      fractions: [{ mark, coefficient: 1 }],
      unknowns: thresholdTerms(bar, setting.bars, -1),
      value: 0,
      errors: [{ source: "bar sighting", sd: DEFAULTS.barSightingSd }],
      alternatives: neighbours.map((other) => ({
        value: barThreshold(other, setting.bars).mean - barThreshold(bar, setting.bars).mean,
        text: `bar ${other}`,
      })),
    };
  },
});

/** The last bar starts to blink. */
export const lastBarBlinking = readingKind({
  schema: z.object({ kind: z.literal("lastBarBlinking"), ...markShape }),
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
        mean: 1 - DEFAULTS.lastBarAt / count,
        sd: DEFAULTS.lastBarSd / count,
        source: "last-bar point",
      },
      [{ source: "bar sighting", sd: DEFAULTS.barSightingSd }],
    ),
});
