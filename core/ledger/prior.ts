import { ASSUMED } from "#core/assumptions";
import type { UsableEnergy } from "#core/pack";
import { STANDARD_GRAVITY } from "#core/quantities";
import type { Unknown } from "#core/readings";
import type { Form } from "./forms.ts";
import type { LedgerInput, LedgerRide } from "./schema.ts";

/**
 * What is believed before any reading, as independent normals: capacity C (Wh), each ride's start V_0, each cell's rate
 * w_c (fraction per mile), climb and descent, the scatter of each leg, and the unknowns the readings lean on. Every
 * fraction V_k is a linear form of these: the start plus the legs up to the mark.
 */
export interface Prior {
  readonly size: number;
  readonly mean: Float64Array;
  readonly variance: Float64Array;
  /** The budget's name of each variable; null for w_c and V_0, which are not error sources. */
  readonly source: readonly (string | null)[];
  readonly capacity: number;
  readonly rate: ReadonlyMap<string, number>;
  readonly unknown: ReadonlyMap<string, number>;
  /** Fraction used at each mark, by ride. */
  readonly marks: readonly (readonly Form[])[];
  /** Fraction used within each cell over the ride (rate and scatter, not climb), by ride. */
  readonly cellUse: readonly ReadonlyMap<string, Form>[];
}

class Variables {
  readonly means: number[] = [];
  readonly variances: number[] = [];
  readonly sources: (string | null)[] = [];

  add(mean: number, sd: number, source: string | null): number {
    this.sources.push(source);
    this.variances.push(sd * sd);
    return this.means.push(mean) - 1;
  }
}

/** Sd of one leg's scatter in fractions: 25 % of a mile's energy, growing with the root of distance. */
function scatterSd(miles: number, capacityWh: number): number {
  const long = Math.max(miles, ASSUMED.shortestLegMi);
  return (ASSUMED.scatterShare * ASSUMED.rateWhPerMi * Math.sqrt(long)) / capacityWh;
}

type Term = readonly [variable: number, coefficient: number];

/** The scatter of each leg's parts; runs of a section share 70 % of its variance, matched by name and order. */
function scatterTerms(
  variables: Variables,
  rides: readonly LedgerRide[],
  capacityWh: number,
): Map<string, Term[]>[][] {
  const shared = new Map<string, number>();
  return rides.map((ride) => {
    const seen = new Map<string, number>();
    return ride.legs.map((leg) => {
      const parts = Object.entries(leg.miles);
      const total = parts.reduce((sum, [, miles]) => sum + miles, 0);
      const sd = scatterSd(total, capacityWh);
      const order = leg.section === undefined ? 0 : (seen.get(leg.section) ?? 0);
      if (leg.section !== undefined) seen.set(leg.section, order + 1);
      const terms = new Map<string, Term[]>();
      parts.forEach(([cell, miles], part) => {
        const share = total > 0 ? miles / total : 1 / parts.length;
        if (share === 0) return;
        const partSd = sd * Math.sqrt(share);
        if (leg.section === undefined) {
          terms.set(cell, [[variables.add(0, partSd, "road scatter"), 1]]);
          return;
        }
        const key = `${leg.section}|${order}|${part}`;
        if (!shared.has(key)) shared.set(key, variables.add(0, 1, "road scatter"));
        terms.set(cell, [
          [shared.get(key)!, partSd * Math.sqrt(ASSUMED.pairedShare)],
          [variables.add(0, 1, "road scatter"), partSd * Math.sqrt(1 - ASSUMED.pairedShare)],
        ]);
      });
      return terms;
    });
  });
}

/** Builds the prior and the fractions' forms. Energy in Wh, distance in miles, mass in kg. */
export function buildPrior(input: LedgerInput, usable: UsableEnergy, unknowns: readonly Unknown[]): Prior {
  const variables = new Variables();
  const c0 = usable.mean;
  const capacity = variables.add(c0, usable.sd, "capacity");
  const rate = new Map(
    input.cells.map((cell) => [
      cell,
      variables.add(ASSUMED.rateWhPerMi / c0, ASSUMED.rateSdWhPerMi / c0, null),
    ]),
  );
  const liftWh = ((input.massKg ?? ASSUMED.massKg) * STANDARD_GRAVITY) / (3600 * ASSUMED.liftEfficiency) / c0;
  const climbed = input.rides.some(({ legs }) =>
    legs.some(({ gainM, lossM }) => (gainM ?? 0) + (lossM ?? 0) > 0),
  );
  const up = climbed ? variables.add(liftWh, liftWh * ASSUMED.liftSdShare, "climb") : -1;
  const fall = liftWh * ASSUMED.descentShare;
  const down = climbed ? variables.add(fall, Math.abs(fall) * ASSUMED.liftSdShare, "climb") : -1;
  const starts = input.rides.map(() => variables.add(ASSUMED.startAt, ASSUMED.startSd, null));
  const unknown = new Map<string, number>();
  for (const { key, mean, sd, source } of unknowns)
    if (!unknown.has(key)) unknown.set(key, variables.add(mean, sd, source));
  const scatter = scatterTerms(variables, input.rides, c0);

  const size = variables.means.length;
  const cellUse = input.rides.map(() => new Map<string, Form>());
  const marks = input.rides.map((ride, r) => {
    const form = new Float64Array(size);
    form[starts[r]!] = 1;
    const forms: Form[] = [form];
    ride.legs.forEach((leg, i) => {
      const next = Float64Array.from(forms[i]!);
      const spend = (cell: string, variable: number, coefficient: number) => {
        next[variable] = next[variable]! + coefficient;
        let use = cellUse[r]!.get(cell);
        if (!use) cellUse[r]!.set(cell, (use = new Float64Array(size)));
        use[variable] = use[variable]! + coefficient;
      };
      for (const [cell, miles] of Object.entries(leg.miles)) spend(cell, rate.get(cell)!, miles);
      for (const [cell, terms] of scatter[r]![i]!)
        for (const [variable, coefficient] of terms) spend(cell, variable, coefficient);
      if (climbed) {
        next[up] = next[up]! + (leg.gainM ?? 0);
        next[down] = next[down]! + (leg.lossM ?? 0);
      }
      forms.push(next);
    });
    return forms;
  });
  return {
    size,
    mean: Float64Array.from(variables.means),
    variance: Float64Array.from(variables.variances),
    source: variables.sources,
    capacity,
    rate,
    unknown,
    marks,
    cellUse,
  };
}
