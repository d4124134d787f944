import { num, there } from "#core/base";
import { valueAt, type LinearForm } from "./linearForm.ts";
import type { GaussianPosterior, Posterior } from "./posterior.ts";

/** One of the stories a mixture holds: how much the road scatters, which readings are slips, whether a meter is far off. */
export interface Part {
  /** Its probability; those of a mixture sum to 1. */
  readonly weight: number;
  /** The road's scatter against the usual. */
  readonly scatter: number;
  /** Key of the gain of a meter that is far off; absent where all meters are in order. */
  readonly meterOff?: string | undefined;
  readonly posterior: GaussianPosterior;
}

interface Weighed {
  readonly weight: number;
  readonly posterior: Posterior;
}

/** Parts less likely than this do not show in any figure. */
const UNSEEN = 1e-4;

/** The parts that show, their weights brought to 1. */
function shown(parts: readonly Weighed[]): readonly Weighed[] {
  const seen = parts.filter(({ weight }) => weight > UNSEEN);
  const sum = seen.reduce((total, { weight }) => total + weight, 0);
  return seen.map(({ weight, posterior }) => ({ weight: weight / sum, posterior }));
}

/** A mixture of answers by its moments: the mean of the parts, and their variance within and between. */
export function mixtureOf(all: readonly Weighed[]): Posterior {
  const parts = shown(all);
  const [only] = parts;
  if (parts.length === 1) return there(only).posterior;
  const mean = new Float64Array(there(only).posterior.mean.length);
  for (const { weight, posterior } of parts)
    for (let i = 0; i < mean.length; i += 1) mean[i] = num(mean, i) + weight * num(posterior.mean, i);
  /** How far a part's value of a form lies from the mixture's. */
  const off = (form: LinearForm, { posterior }: { readonly posterior: Posterior }) =>
    valueAt(form, posterior.mean) - valueAt(form, mean);
  return {
    mean,
    chi2PerReading: parts.reduce((sum, { weight, posterior }) => sum + weight * posterior.chi2PerReading, 0),
    count: Math.max(...parts.map(({ posterior }) => posterior.count)),
    variance: (form) =>
      parts.reduce(
        (sum, part) => sum + part.weight * (part.posterior.variance(form) + off(form, part) ** 2),
        0,
      ),
    covarianceWith: (form) => {
      const sum = new Float64Array(mean.length);
      for (const part of parts) {
        const within = part.posterior.covarianceWith(form);
        const away = off(form, part);
        for (let i = 0; i < sum.length; i += 1)
          sum[i] =
            num(sum, i) +
            part.weight * (num(within, i) + away * (num(part.posterior.mean, i) - num(mean, i)));
      }
      return sum;
    },
  };
}
