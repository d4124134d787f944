import type { ErrorSource } from "#core/battery/readings";
import { DEFAULTS, num } from "#core/base";
import type { Columns, LedgerUnknown } from "./columns.ts";
import type { RideRow } from "./evidence.ts";
import { mixtureOf, type Part } from "./mixture.ts";
import { logEvidence } from "./scatter.ts";

const METER_SOURCES: ReadonlySet<ErrorSource | null> = new Set(["meter gain", "logger gain"]);

/** Odds below which a story shows in no figure. */
const UNSEEN = 0.003;

/** Further off than so many of its wide sds no meter is: what asks for it is something else. */
const MOST_OFF = 4;

/** Column and key of each meter's and logger's gain that a reading leans on. */
function gainsOf({ marks, unknowns }: Columns): readonly { readonly column: number; readonly key: string }[] {
  return unknowns.list.flatMap(({ key, source }: LedgerUnknown, i) =>
    METER_SOURCES.has(source) ? [{ column: marks + i, key }] : [],
  );
}

/**
 * Odds that a meter is far off against that it is in order, from where the readings put its gain z while it is taken as in
 * order, z ~ N(0, 1): dividing by that prior leaves N(l, u), which is then asked how likely it is under either width.
 *
 * @param mean of z, @param variance of z, given the readings
 * @example oddsFar(0, 0.5) < 0.01
 * @example oddsFar(4.4, 0.04) > 1
 */
export function oddsFar(mean: number, variance: number): number {
  const { meterOffPrior, meterOffTimes } = DEFAULTS;
  const prior = meterOffPrior / (1 - meterOffPrior);
  // Readings that say nothing of the gain leave the odds as they were.
  if (!(variance < 1)) return prior;
  const u = 1 / (1 / variance - 1);
  const l = (u * mean) / variance;
  const log = (width: number) => -0.5 * (Math.log(u + width) + (l * l) / (u + width));
  return prior * Math.exp(log(meterOffTimes ** 2) - log(1));
}

/**
 * The parts with, for each meter that the readings speak against, the story that it is far off, each by its odds; the same
 * parts where all are in order. One meter is off at a time.
 *
 * @param solveWith the parts with the gain of this key free to be far off; null when they cannot be solved
 */
export function withMetersOff(
  parts: readonly Part[],
  columns: Columns,
  solveWith: (meterOff: string) => readonly Part[] | null,
): readonly Part[] | null {
  if (!(DEFAULTS.meterOffPrior > 0)) return parts;
  const inOrder = mixtureOf(parts);
  const stories: { readonly logOdds: number; readonly parts: readonly Part[] }[] = [{ logOdds: 0, parts }];
  const prior = Math.log(DEFAULTS.meterOffPrior / (1 - DEFAULTS.meterOffPrior));
  for (const { column, key } of gainsOf(columns)) {
    if (oddsFar(num(inOrder.mean, column), inOrder.variance(new Map([[column, 1]]))) < UNSEEN) continue;
    const far = solveWith(key);
    if (!far) return null;
    // Exact readings of one meter that contradict each other would all be explained by a meter that counts nothing.
    if (Math.abs(num(mixtureOf(far).mean, column)) > MOST_OFF * DEFAULTS.meterOffTimes) continue;
    const logOdds = prior + logEvidence(far) - logEvidence(parts);
    stories.push({ logOdds, parts: far.map((part) => ({ ...part, meterOff: key })) });
  }
  const most = Math.max(...stories.map(({ logOdds }) => logOdds));
  const sum = stories.reduce((total, { logOdds }) => total + Math.exp(logOdds - most), 0);
  return stories.flatMap((story) => {
    const chance = Math.exp(story.logOdds - most) / sum;
    return story.parts.map((part) => ({ ...part, weight: part.weight * chance }));
  });
}

/** A meter or logger that may be far off. */
export interface DoubtedMeter {
  /** Such as "meter red" or "logger". */
  readonly device: string;
  /** Probability that it is. */
  readonly chance: number;
  /** What it shows against the truth if it is: 1.1 is 10 % too much. */
  readonly shows: number;
}

/** Meters and loggers that may be far off; most of them, of most rides, are not among them. */
export function metersOff(solved: {
  readonly columns: Columns;
  readonly said: readonly RideRow[];
  readonly parts: readonly Part[];
}): readonly DoubtedMeter[] {
  return gainsOf(solved.columns).flatMap(({ column, key }): readonly DoubtedMeter[] => {
    const far = solved.parts.filter(({ meterOff }) => meterOff === key);
    const chance = far.reduce((sum, { weight }) => sum + weight, 0);
    const energy = solved.said.find(({ row }) => row.energy?.gainUnknown.key === key)?.row.energy;
    if (!(chance > 0) || !energy) return [];
    const gain = far.reduce((sum, { weight, posterior }) => sum + weight * num(posterior.mean, column), 0);
    const counted = 1 + (energy.gain(1) * gain) / chance;
    return [{ device: key.replace(/^gain /, ""), chance, shows: 1 / counted }];
  });
}
