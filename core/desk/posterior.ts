import { nth } from "#core/base";
import type { ArrowForm, Whitened } from "./arrow.ts";
import { solveDesk, type DeskOptions, type SolvedDay, type SolvedDesk } from "./solve.ts";
import { kindSpread } from "./spreads.ts";
import type { DeskDay, SharedUnknown, Spreads } from "./types.ts";

/** A function of the shared unknowns at the posterior. */
export interface DeskFigure {
  readonly mean: number;
  /** Independent parts of its error, by name: figures of one desk that lean on the same part share its name. */
  readonly effects: Readonly<Record<string, number>>;
  /** What each kind of unknown carries of its variance; they sum to it. */
  readonly byUnknown: Readonly<Record<string, number>>;
}

/** What a desk has learned, ready to be asked. */
export interface DeskPosterior {
  readonly solved: SolvedDesk;
  readonly days: readonly SolvedDay[];
  readonly spreads: Spreads;
  /** Most likely value of an unknown, sds of its prior; 0 where no day knows it. */
  readonly valueOf: (key: string) => number;
  /** A function of some unknowns: its value where they are most likely, its error by their joint posterior. */
  readonly figure: (
    unknowns: readonly SharedUnknown[],
    value: (z: readonly number[]) => number,
  ) => DeskFigure;
  /** The same of several values at once, so that what they share cancels between them. */
  readonly covarianceOf: (unknowns: readonly SharedUnknown[]) => readonly (readonly number[])[];
}

const NUDGE = 0.25;

function slopesOf(z: readonly number[], value: (z: readonly number[]) => number): readonly number[] {
  return z.map((_, k) => {
    const moved = (by: number) => value(z.map((each, i) => (i === k ? each + by : each)));
    return (moved(NUDGE) - moved(-NUDGE)) / (2 * NUDGE);
  });
}

function effectsOf({ block, own, border }: Whitened): Record<string, number> {
  const effects: Record<string, number> = {};
  own.forEach((each, i) => (effects[`desk:${block}.${i}`] = each));
  border.forEach((each, i) => (effects[`desk:edge.${i}`] = each));
  return effects;
}

/** Wraps a solved desk. Unknowns no day knows stand at their priors, independent of all others. */
export function askDesk(solved: SolvedDesk): DeskPosterior {
  const { layout, factored, spreads } = solved;
  const placeOf = ({ key }: SharedUnknown) => {
    const k = layout.indexOf.get(key);
    return k === undefined ? null : nth(layout.places, k);
  };
  const valueOf = (key: string) => {
    const k = layout.indexOf.get(key);
    return k === undefined ? 0 : factored.valueAt(nth(layout.places, k));
  };
  const figure: DeskPosterior["figure"] = (unknowns, value) => {
    const z = unknowns.map(({ key }) => valueOf(key));
    const slopes = slopesOf(z, value);
    const form: ArrowForm = unknowns.flatMap((unknown, i) => {
      const place = placeOf(unknown);
      return place ? [[place, nth(slopes, i)] as const] : [];
    });
    const effects = effectsOf(factored.whiten(form));
    const covariance = factored.covarianceWith(form);
    const byUnknown: Record<string, number> = {};
    unknowns.forEach((unknown, i) => {
      const place = placeOf(unknown);
      const sd = kindSpread(unknown.kind, spreads);
      if (!place) effects[unknown.key] = nth(slopes, i) * sd;
      const variance = place ? nth(slopes, i) * covariance(place) : (nth(slopes, i) * sd) ** 2;
      byUnknown[unknown.kind] = (byUnknown[unknown.kind] ?? 0) + variance;
    });
    return { mean: value(z), effects, byUnknown };
  };
  return {
    ...{ solved, valueOf, figure, spreads },
    days: solved.days,
    covarianceOf: (unknowns) => {
      const white = unknowns.map((unknown, i) => figure(unknowns, (z) => nth(z, i)).effects);
      return white.map((a) =>
        white.map((b) => {
          let sum = 0;
          for (const key in a) sum += nth(a, key) * (b[key] ?? 0);
          return sum;
        }),
      );
    },
  };
}

const AS_A_DESK: DeskOptions = { learnSpreads: true, robust: true };

/**
 * One posterior over bikes, riders, packs and days.
 *
 * @param before the answer before something changed: unchanged days, the same objects, start where they stood
 */
export function deskPosterior(
  days: readonly DeskDay[],
  options: DeskOptions = AS_A_DESK,
  before?: DeskPosterior,
): DeskPosterior {
  return askDesk(solveDesk(days, options, before?.solved));
}
