import { rowAt, num, nth } from "#core/base";
import type { Factorisation, EliminationPlan } from "./chain.ts";
import type { LinearForm } from "./linearForm.ts";
import { covarianceOf } from "./triangle.ts";

/** Reads variances of forms that touch at most two neighbouring marks, from one sweep back along the chain. */
export interface Marginals {
  variance(form: LinearForm): number;
}

/** Whether a form touches no chain marks but one, or two neighbours. */
export function isLocal({ marks, hub }: EliminationPlan, form: LinearForm): boolean {
  let [low, high] = [-1, -1];
  for (const column of form.keys()) {
    if (column >= marks || hub[column] !== -1) continue;
    if (low < 0) low = high = column;
    else if (high === low && Math.abs(column - low) === 1) high = column;
    else return false;
  }
  return true;
}

/** The sweep: each mark's variance, its covariance with the next mark and with the border. Time: marks x border^2. */
export function marginalsOf({ layout, pivots, triangle }: Factorisation): Marginals {
  const { marks, unknowns, hub, border } = layout;
  const edge = covarianceOf(triangle);
  const own = new Float64Array(marks);
  const withNext = new Float64Array(marks);
  const withEdge: Float64Array[] = new Array<Float64Array>(marks);
  for (let k = marks - 1; k >= 0; k -= 1) {
    const pivot = pivots[k];
    if (!pivot) {
      withEdge[k] = rowAt(edge, nth(hub, k));
      own[k] = nth(rowAt(withEdge, k), nth(hub, k));
      continue;
    }
    const cross = new Float64Array(border);
    for (let j = 0; j < border; j += 1) {
      const share = num(pivot.border, j) / pivot.own;
      if (share === 0) continue;
      const row = rowAt(edge, j);
      for (let i = 0; i < border; i += 1) cross[i] = num(cross, i) - share * num(row, i);
    }
    const tie = pivot.next === 0 ? 0 : -pivot.next / pivot.own;
    if (tie !== 0) {
      const beyond = rowAt(withEdge, k + 1);
      for (let i = 0; i < border; i += 1) cross[i] = num(cross, i) + tie * nth(beyond, i);
      let sum = tie * num(own, k + 1);
      for (let j = 0; j < border; j += 1) sum -= (num(pivot.border, j) / pivot.own) * nth(beyond, j);
      withNext[k] = sum;
    }
    let variance = 1 / (pivot.own * pivot.own) + tie * num(withNext, k);
    for (let j = 0; j < border; j += 1) variance -= (num(pivot.border, j) / pivot.own) * num(cross, j);
    own[k] = variance;
    withEdge[k] = cross;
  }
  return {
    variance(form) {
      const chain: (readonly [mark: number, by: number])[] = [];
      const onEdge: (readonly [column: number, by: number])[] = [];
      for (const [column, coefficient] of form) {
        if (coefficient === 0) continue;
        if (column >= marks) onEdge.push([column - marks, coefficient * nth(unknowns, column - marks).sd]);
        else if (hub[column] === -1) chain.push([column, coefficient]);
        else onEdge.push([nth(hub, column), coefficient]);
      }
      let sum = 0;
      for (const [i, a] of onEdge) {
        const row = rowAt(edge, i);
        for (const [j, b] of onEdge) sum += a * b * num(row, j);
      }
      for (const [mark, a] of chain) {
        const row = rowAt(withEdge, mark);
        sum += a * a * num(own, mark);
        for (const [j, b] of onEdge) sum += 2 * a * b * num(row, j);
      }
      const [low, high] = chain.sort(([a], [b]) => a - b);
      if (low && high) sum += 2 * low[1] * high[1] * num(withNext, low[0]);
      return Math.max(0, sum);
    },
  };
}
