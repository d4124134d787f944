import { Matrix } from "ml-matrix";
import { ASSUMED } from "#core/assumptions";
import type { Row } from "#core/readings";
import { addInto, dot, type Form } from "./forms.ts";
import type { Prior } from "./prior.ts";

/** One reading's row, and the ride it belongs to. */
export interface RideRow {
  readonly ride: number;
  readonly row: Row;
}

/** The evidence, linear at a point: H x = value, with independent and smooth errors. */
export interface Evidence {
  readonly forms: readonly Form[];
  readonly values: readonly number[];
  readonly rows: readonly RideRow[];
}

/**
 * Writes each row over the base variables. Energy rows hold the product C (V_b - V_a); they are linearised at `point`,
 * or on the first pass (no point) at dV = E / C0.
 */
export function linearise(prior: Prior, rows: readonly RideRow[], point: Float64Array | null): Evidence {
  const forms: Form[] = [];
  const values: number[] = [];
  for (const { ride, row } of rows) {
    const form = new Float64Array(prior.size);
    const marks = prior.marks[ride]!;
    for (const { mark, coefficient } of row.fractions) addInto(form, marks[mark]!, coefficient);
    let value = row.value;
    const { energy } = row;
    if (energy) {
      const at = (mark: number | undefined) => (mark === undefined || !point ? 0 : dot(marks[mark]!, point));
      const fFrom = at(energy.from);
      const fTo = point ? at(energy.to) : 1;
      const wh = energy.wh(fFrom, fTo);
      const capacity = point ? point[prior.capacity]! : prior.mean[prior.capacity]!;
      const used = point ? fTo - fFrom : wh / capacity;
      addInto(form, marks[energy.to]!, capacity);
      if (energy.from !== undefined) addInto(form, marks[energy.from]!, -capacity);
      form[prior.capacity] = form[prior.capacity]! + used;
      const gain = prior.unknown.get(energy.gainUnknown.key)!;
      form[gain] = form[gain]! - energy.gain(wh);
      value = wh + capacity * used;
    }
    for (const { unknown, coefficient } of row.unknowns) {
      const index = prior.unknown.get(unknown.key)!;
      form[index] = form[index]! + coefficient;
    }
    forms.push(form);
    values.push(value);
  }
  return { forms, values, rows };
}

const SMOOTH_NAME = { gauge: "gauge smooth", curve: "volts curve" } as const;

/** Correlation of a slow error between two places on the charge. */
function alike(fA: number, fB: number): number {
  return Math.exp(-((fA - fB) ** 2) / (2 * ASSUMED.smoothLength ** 2));
}

/** Covariance of the readings' own errors, leaving out one source if named. */
export function errorCovariance(rows: readonly RideRow[], without?: string): Matrix {
  const n = rows.length;
  const covariance = Matrix.zeros(n, n);
  rows.forEach(({ row }, i) => {
    for (const { source, sd } of row.errors)
      if (source !== without) covariance.set(i, i, covariance.get(i, i) + sd * sd);
    if (!row.smooth || SMOOTH_NAME[row.smooth.process] === without) return;
    for (let j = 0; j <= i; j += 1) {
      const other = rows[j]!.row.smooth;
      if (other?.process !== row.smooth.process) continue;
      const shared = ASSUMED.smoothSd ** 2 * alike(row.smooth.f, other.f);
      covariance.set(i, j, covariance.get(i, j) + shared);
      if (j !== i) covariance.set(j, i, covariance.get(j, i) + shared);
    }
  });
  return covariance;
}

/** The names of all error sources that play a part. */
export function sourcesOf(prior: Prior, rows: readonly RideRow[]): readonly string[] {
  const names = new Set<string>();
  prior.source.forEach((name, i) => {
    if (name !== null && prior.variance[i]! > 0) names.add(name);
  });
  for (const { row } of rows) {
    for (const { source, sd } of row.errors) if (sd > 0) names.add(source);
    if (row.smooth) names.add(SMOOTH_NAME[row.smooth.process]);
  }
  return [...names];
}
