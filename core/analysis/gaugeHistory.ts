import { nth, METRES_PER_MILE, Z_95, type Estimate, meanOf } from "#core/base";
import type { TestDigest } from "./digest.ts";
import { weighedMean } from "./known.ts";

/** A point of a gauge over a bike's tests: fraction used where it is reached. */
export interface GaugePoint {
  readonly name: string;
  readonly used: Estimate;
  /** Before any test. */
  readonly prior: Estimate;
  readonly tests: number;
}

/** A bar of the display as it truly is. */
export interface BarLength {
  readonly bar: number;
  /** Of the pack, Wh, and way at the bike's mean use, m. */
  readonly share: Estimate;
  readonly wh: Estimate;
  readonly wayM: Estimate | null;
}

/** A stretch over which a percent did not move, or a step it jumped. */
export interface GaugeQuirk {
  readonly kind: "stands" | "jumps";
  readonly percent: number;
  readonly overM: number;
  readonly points: number;
}

/** What a bike's gauge says, learned over its tests. */
export interface GaugeHistory {
  readonly tests: number;
  readonly points: readonly GaugePoint[];
  readonly bars: readonly BarLength[];
  /** Charge really used as the percent shows so much, by tenths of the gauge. */
  readonly percents: readonly { readonly shown: number; readonly used: Estimate; readonly looks: number }[];
  readonly quirks: readonly GaugeQuirk[];
  readonly percentsAtCutOff: readonly number[];
  readonly blinkToEndM: readonly number[];
  readonly rebounds: number;
  /** Chance that the percent counts each; null where nothing tells. */
  readonly counts: Readonly<Record<"charge" | "energy" | "volts", number>> | null;
  /** The display's distance against a recorder's, one a test that had both. */
  readonly odometer: Estimate | null;
}

/** A percent that shows the same for so long stands still, m; one that falls by so much in so little jumps. */
const STANDS_M = 3 * METRES_PER_MILE;
const JUMPS_BY = 8;
const JUMPS_WITHIN_M = METRES_PER_MILE;

function pointsOf(tests: readonly TestDigest[]): readonly GaugePoint[] {
  const all = tests.flatMap(({ thresholds }) => thresholds);
  return [...new Set(all.map(({ name }) => name))].map((name) => {
    const found = all.filter((each) => each.name === name);
    const { prior } = nth(found, 0);
    const used = weighedMean([prior, ...found.flatMap(({ own }) => own ?? [])]) ?? prior;
    return { name, prior, used, tests: found.length };
  });
}

/** Lengths of the bars between neighbouring points that are known; the last one runs to the cut-off. */
function barsOf(
  points: readonly GaugePoint[],
  bars: number,
  capacity: Estimate | null,
  whPerM: Estimate | null,
): readonly BarLength[] {
  const goes = (bar: number) => points.find(({ name }) => name === `bar ${bar} goes`)?.used ?? null;
  return Array.from({ length: bars }, (_, i) => bars - i).flatMap((bar) => {
    const from = bar === bars ? { mean: 0, sd: 0 } : goes(bar + 1);
    const to = bar === 1 ? { mean: 1, sd: 0 } : goes(bar);
    if (!from || !to || !capacity) return [];
    const share = { mean: Math.max(0, to.mean - from.mean), sd: Math.hypot(to.sd, from.sd) };
    const wh = {
      mean: share.mean * capacity.mean,
      sd: Math.hypot(share.sd * capacity.mean, share.mean * capacity.sd),
    };
    const wayM = whPerM && { mean: wh.mean / whPerM.mean, sd: Math.hypot(wh.sd, (wh.mean * whPerM.sd) / whPerM.mean) / whPerM.mean }; // prettier-ignore
    return [{ bar, share, wh, wayM }];
  });
}

/** Used against shown, by tenths of the gauge: the mean of the looks, with how they spread. */
function percentsOf(tests: readonly TestDigest[]): GaugeHistory["percents"] {
  const looks = tests.flatMap(({ gauge }) => gauge.percents);
  return Array.from({ length: 11 }, (_, i) => 100 - 10 * i).flatMap((shown) => {
    const near = looks.filter((look) => Math.abs(look.shown - shown) <= 5);
    if (near.length === 0) return [];
    // Brought to the tenth along the gauge's own slope.
    const used = near.map((look) => look.used.mean + (look.shown - shown) / 100);
    const mean = meanOf(used);
    const spread = Math.sqrt(meanOf(used.map((each) => (each - mean) ** 2)));
    const own = Math.sqrt(meanOf(near.map((look) => look.used.sd ** 2)));
    return [{ shown, used: { mean, sd: Math.hypot(spread, own) }, looks: near.length }];
  });
}

function quirksOf(tests: readonly TestDigest[]): readonly GaugeQuirk[] {
  return tests.flatMap(({ gauge: { percents } }) =>
    percents.slice(1).flatMap((look, i): readonly GaugeQuirk[] => {
      const before = nth(percents, i);
      const [overM, points] = [look.distanceM - before.distanceM, before.shown - look.shown];
      if (points === 0 && overM >= STANDS_M && look.shown < 100)
        return [{ kind: "stands", percent: look.shown, overM, points }];
      if (points >= JUMPS_BY && overM <= JUMPS_WITHIN_M && overM >= 0)
        return [{ kind: "jumps", percent: before.shown, overM, points }];
      return [];
    }),
  );
}

function countsOf(tests: readonly TestDigest[]): GaugeHistory["counts"] {
  const told = tests.flatMap(({ gauge }) => (gauge.counts ? [gauge.counts] : []));
  if (told.length === 0) return null;
  const logs = (["charge", "energy", "volts"] as const).map(
    (kind) => [kind, told.reduce((sum, each) => sum + each[kind], 0)] as const,
  );
  const best = Math.max(...logs.map(([, log]) => log));
  const sum = logs.reduce((total, [, log]) => total + Math.exp(log - best), 0);
  const chances = logs.map(([kind, log]) => [kind, Math.exp(log - best) / sum] as const);
  return Object.fromEntries(chances) as GaugeHistory["counts"];
}

/** A bike's gauge learned over its tests. Null without any. @param bars of its display */
export function gaugeHistory(tests: readonly TestDigest[], bars: number): GaugeHistory | null {
  if (tests.length === 0) return null;
  const points = pointsOf(tests);
  const capacity = weighedMean(tests.map(({ capacity }) => capacity.value));
  const use = weighedMean(tests.map(({ best }) => best.value).filter(({ sd }) => sd > 0));
  // The bike's tests differ by more than their errors: so does a bar's way.
  const spread = use && Math.max(...tests.map(({ best }) => Math.abs(best.value.mean - use.mean))) / Z_95;
  const whPerM = use && { mean: use.mean, sd: Math.hypot(use.sd, spread ?? 0) };
  return {
    tests: tests.length,
    points,
    bars: barsOf(points, bars, capacity, whPerM),
    percents: percentsOf(tests),
    quirks: quirksOf(tests),
    percentsAtCutOff: tests.flatMap(({ gauge }) => gauge.percentAtCutOff ?? []),
    blinkToEndM: tests.flatMap(({ gauge }) => gauge.blinkToEndM ?? []),
    rebounds: tests.reduce((sum, { gauge }) => sum + gauge.rebounds, 0),
    counts: countsOf(tests),
    odometer: weighedMean(
      tests.flatMap(({ odometer }) => (odometer ? [{ mean: odometer.k, sd: odometer.sd }] : [])),
    ),
  };
}
