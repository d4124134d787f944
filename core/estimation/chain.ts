import { num, nth } from "#core/base";
import { ROAD, rowSd, type LedgerRow, type Weighing } from "./rows.ts";
import type { LedgerUnknown } from "./columns.ts";
import {
  absorb,
  backward,
  forward,
  isSolvable,
  logDeterminant,
  openTriangle,
  rotate,
  solveTriangle,
  type Triangle,
} from "./triangle.ts";

/**
 * The chain's structure: each mark is tied to its neighbours and to a few unknowns, so marks are eliminated one after the
 * other by rotations, and only the border (the unknowns, and the marks that long spans start at) is a dense triangle.
 * Time grows with marks x border^2. The same least squares as all rows stacked, by QR.
 */
export interface EliminationPlan {
  /** Marks, the first columns; unknowns follow. */
  readonly marks: number;
  readonly unknowns: readonly LedgerUnknown[];
  /** Place of a mark in the border, for those that long spans start at; -1 for the others, the chain. */
  readonly hub: Int32Array;
  readonly border: number;
}

/** A mark's own line of the factor: own x V_k + next x V_(k+1) + border . b = rhs. */
interface Pivot {
  readonly own: number;
  readonly next: number;
  /** Columns of the border, then the right-hand side. */
  readonly border: Float64Array;
}

export interface Factorisation {
  readonly layout: EliminationPlan;
  /** One per mark of the chain; null for hubs. */
  readonly pivots: readonly (Pivot | null)[];
  readonly triangle: Triangle;
  /** Log density of all rows' values, up to what no weighing changes. */
  readonly logDensity: number;
}

/** Most marks that spans may start at: each widens the dense border. */
export const MOST_HUBS = 400;

/** Marks at which spans of more than one leg start go to the border. */
export function planElimination(
  marks: number,
  unknowns: readonly LedgerUnknown[],
  rows: readonly LedgerRow[],
): EliminationPlan {
  const hub = new Int32Array(marks).fill(-1);
  let border = unknowns.length;
  for (const { form } of rows) {
    const touched = [...form.keys()].filter((column) => column < marks && hub[column] === -1);
    if (touched.length < 2) continue;
    const [low, high] = [Math.min(...touched), Math.max(...touched)];
    if (high - low > 1) hub[low] = border++;
  }
  return { marks, unknowns, hub, border };
}

/** Offsets in a working row: V_k, V_(k+1), then the border and the right-hand side. */
const HEAD = 2;

/** A row over the border alone, whitened: unknowns count in their own sds from their means. */
function whiten(row: LedgerRow, { marks, unknowns, hub, border }: EliminationPlan, rowError: number) {
  const white = new Float64Array(HEAD + border + 1);
  const weight = 1 / rowError;
  let value = row.value;
  let low = -1;
  for (const column of row.form.keys())
    if (column < marks && hub[column] === -1 && (low < 0 || column < low)) low = column;
  for (const [column, coefficient] of row.form) {
    if (column < marks) {
      const at = nth(hub, column);
      white[at < 0 ? column - low : HEAD + at]! += weight * coefficient;
    } else {
      const { mean, sd } = nth(unknowns, column - marks);
      value -= coefficient * mean;
      white[HEAD + column - marks]! += weight * coefficient * sd;
    }
  }
  white[HEAD + border] = weight * value;
  return { low, white };
}

/** The layout with its unknowns weighed: a source's known exactly, shared scatter at its scale. */
function weighed(layout: EliminationPlan, { scatter = 1, without }: Weighing): EliminationPlan {
  if (scatter === 1 && without === undefined) return layout;
  const unknowns = layout.unknowns.map((each) => {
    if (each.source === null) return each;
    if (each.source === without) return { ...each, sd: 0 };
    return each.source === ROAD ? { ...each, sd: each.sd * scatter } : each;
  });
  return { ...layout, unknowns };
}

/** Moves a working row on to the next mark. */
function step(row: Float64Array): Float64Array {
  row[0] = num(row, 1);
  row[1] = 0;
  return row;
}

/**
 * Eliminates the chain.
 *
 * @returns null when the rows leave something undetermined, or hold what is not a number
 */
export function eliminate(
  whole: EliminationPlan,
  rows: readonly LedgerRow[],
  weighing: Weighing = {},
): Factorisation | null {
  const layout = weighed(whole, weighing);
  const { marks, border, unknowns } = layout;
  const triangle = openTriangle(border, unknowns.length);
  const waiting: Float64Array[][] = Array.from({ length: marks }, () => []);
  let logSds = 0;
  for (const row of rows) {
    const sd = rowSd(row, weighing);
    logSds += Math.log(sd);
    const { low, white } = whiten(row, layout, sd);
    if (low < 0) absorb(triangle, white.subarray(HEAD));
    else nth(waiting, low).push(white);
  }
  const pivots: (Pivot | null)[] = [];
  let passed: Float64Array[] = [];
  for (let k = 0; k < marks; k += 1) {
    const here = [...passed, ...nth(waiting, k)];
    passed = [];
    if (nth(layout.hub, k) >= 0) {
      pivots.push(null);
      continue;
    }
    // Rows of this mark alone first, so that only rows to the next mark travel on.
    here.sort((a, b) => Number(a[1] !== 0) - Number(b[1] !== 0));
    const pivot = here.shift();
    if (!pivot?.[0]) return null;
    for (const row of here) {
      rotate(pivot, row, 0);
      if (row[1] === 0) absorb(triangle, row.subarray(HEAD));
      else passed.push(step(row));
    }
    pivots.push({ own: pivot[0], next: nth(pivot, 1), border: pivot.subarray(HEAD) });
  }
  const sound =
    isSolvable(triangle) &&
    pivots.every((pivot) => !pivot || Number.isFinite(num(pivot.border, border) / pivot.own));
  if (!sound) return null;
  const logDiagonal = pivots.reduce((sum, pivot) => sum + (pivot ? Math.log(Math.abs(pivot.own)) : 0), 0);
  const logDensity = -triangle.rss / 2 - logSds - logDiagonal - logDeterminant(triangle);
  return { layout, pivots, triangle, logDensity };
}

/** The most likely value of every column, in natural units. */
export function backSubstitute({ layout, pivots, triangle }: Factorisation): Float64Array {
  return unfold(layout, pivots, solveTriangle(triangle), (pivot) => num(pivot.border, layout.border), true);
}

/** From border values to all columns, backward along the chain. */
function unfold(
  { marks, unknowns, hub, border }: EliminationPlan,
  pivots: readonly (Pivot | null)[],
  known: Float64Array,
  rhs: (pivot: Pivot, mark: number) => number,
  withMeans: boolean,
): Float64Array {
  const values = new Float64Array(marks + unknowns.length);
  for (let k = marks - 1; k >= 0; k -= 1) {
    const pivot = pivots[k];
    if (!pivot) {
      values[k] = num(known, nth(hub, k));
      continue;
    }
    let sum = rhs(pivot, k);
    if (pivot.next !== 0) sum -= pivot.next * num(values, k + 1);
    for (let j = 0; j < border; j += 1) sum -= num(pivot.border, j) * num(known, j);
    values[k] = sum / pivot.own;
  }
  unknowns.forEach(({ mean, sd }, u) => {
    values[marks + u] = (withMeans ? mean : 0) + sd * num(known, u);
  });
  return values;
}

/**
 * R'^-1 g for a form: the sum of its squares is the form's variance.
 *
 * @returns by chain mark (zero elsewhere), and by border column
 */
export function forwardSubstitute(factor: Factorisation, form: ReadonlyMap<number, number>) {
  const { layout, pivots, triangle } = factor;
  const { marks, unknowns, hub, border } = layout;
  const chain = new Float64Array(marks);
  const edge = new Float64Array(border);
  let [from, to] = [marks, -1];
  for (const [column, coefficient] of form) {
    if (column >= marks) edge[column - marks]! += coefficient * nth(unknowns, column - marks).sd;
    else if (nth(hub, column) >= 0) edge[nth(hub, column)]! += coefficient;
    else {
      chain[column]! += coefficient;
      from = Math.min(from, column);
      to = Math.max(to, column);
    }
  }
  let carried = 0;
  for (let k = from; k < marks && (k <= to || carried !== 0); k += 1) {
    const pivot = pivots[k];
    if (!pivot) {
      carried = 0;
      continue;
    }
    const y = (num(chain, k) - carried) / pivot.own;
    chain[k] = y;
    carried = pivot.next * y;
    if (y !== 0) for (let j = 0; j < border; j += 1) edge[j] = num(edge, j) - num(pivot.border, j) * y;
  }
  return { chain, edge: forward(triangle, edge) };
}

/** Covariance of a form with every column, in natural units: (R'R)^-1 g. */
export function covarianceWith(factor: Factorisation, form: ReadonlyMap<number, number>): Float64Array {
  const { chain, edge } = forwardSubstitute(factor, form);
  return unfold(
    factor.layout,
    factor.pivots,
    backward(factor.triangle, edge),
    (_, k) => num(chain, k),
    false,
  );
}
