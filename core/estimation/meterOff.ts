import type { ErrorSource } from "#core/battery/readings";
import { DEFAULTS, num } from "#core/base";
import type { Columns, LedgerUnknown } from "./columns.ts";
import type { RideRow } from "./evidence.ts";
import { mixtureOf, type Part } from "./mixture.ts";
import { valueAt, type LinearForm } from "./linearForm.ts";
import type { GaussianPosterior } from "./posterior.ts";
import { logEvidence, weighedParts } from "./scatter.ts";

const METER_SOURCES: ReadonlySet<ErrorSource | null> = new Set(["meter gain", "logger gain"]);

/** Further off than so many of its wide sds no meter is: what asks for it is something else. */
const MOST_OFF = 4;

/** Column and key of each meter's and logger's gain that a reading leans on. */
function gainsOf({ marks, unknowns }: Columns): readonly { readonly column: number; readonly key: string }[] {
  return unknowns.list.flatMap(({ key, source }: LedgerUnknown, i) =>
    METER_SOURCES.has(source) ? [{ column: marks + i, key }] : [],
  );
}

/**
 * An answer with a meter's gain free to be far off, from the one with it in order: only the prior of one unknown differs, z ~ N(0, 1)
 * against N(0, w), so that every mean, variance and density follows from the covariance with z, and nothing is solved again.
 *
 * @param key of the gain; where it is taken as exactly known there is nothing to free
 */
export function withGainFree(inOrder: GaussianPosterior, columns: Columns, key: string): GaussianPosterior {
  const column = columns.unknowns.find(key);
  if (column === undefined) return inOrder;
  const along = inOrder.covarianceWith(new Map([[column, 1]]));
  const variance = num(along, column);
  if (!(variance > 0)) return inOrder;
  const width = DEFAULTS.meterOffTimes ** 2;
  // The prior's precision falls by so much; the rest is the update of an inverse by one row.
  const fall = 1 - 1 / width;
  const left = 1 - fall * variance;
  const z = num(inOrder.mean, column);
  const mean = inOrder.mean.map((value, i) => value + (fall * num(along, i) * z) / left);
  const varianceOf = (form: LinearForm) => inOrder.variance(form) + (fall * valueAt(form, along) ** 2) / left;
  const gained = (fall * z * z) / left;
  return {
    mean,
    count: inOrder.count,
    chi2PerReading: inOrder.count ? inOrder.chi2PerReading - gained / inOrder.count : 0,
    logDensity: inOrder.logDensity + (gained - Math.log(width * left)) / 2,
    variance: varianceOf,
    covarianceWith: (form) => {
      const by = (fall * valueAt(form, along)) / left;
      return inOrder.covarianceWith(form).map((value, i) => value + by * num(along, i));
    },
    residuals: () =>
      inOrder.residuals().map(({ row, sd }) => ({
        ...{ row, sd },
        residual: (row.value - valueAt(row.form, mean)) / sd,
        free: Math.max(1 - varianceOf(row.form) / (sd * sd), 1e-15),
      })),
  };
}

/**
 * The parts with, for each meter, the story that it is far off, each by its odds: before any evidence, of 100 so many are. One meter
 * is off at a time.
 */
export function withMetersOff(parts: readonly Part[], columns: Columns): readonly Part[] {
  if (!(DEFAULTS.meterOffPrior > 0)) return parts;
  const prior = Math.log(DEFAULTS.meterOffPrior / (1 - DEFAULTS.meterOffPrior));
  const stories: { readonly logOdds: number; readonly parts: readonly Part[] }[] = [{ logOdds: 0, parts }];
  for (const { column, key } of gainsOf(columns)) {
    const far = weighedParts(
      parts.map(({ scatter, posterior }) => ({
        ...{ scatter, meterOff: key },
        posterior: withGainFree(posterior, columns, key),
      })),
    );
    // Exact readings of one meter that contradict each other would all be explained by a meter that counts nothing.
    if (Math.abs(num(mixtureOf(far).mean, column)) > MOST_OFF * DEFAULTS.meterOffTimes) continue;
    stories.push({ logOdds: prior + logEvidence(far) - logEvidence(parts), parts: far });
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
