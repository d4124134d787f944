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
      withEdge[k] = edge[hub[k]!]!;
      own[k] = withEdge[k]![hub[k]!]!;
      continue;
    }
    const cross = new Float64Array(border);
    for (let j = 0; j < border; j += 1) {
      const share = pivot.border[j]! / pivot.own;
      if (share === 0) continue;
      const row = edge[j]!;
      for (let i = 0; i < border; i += 1) cross[i] = cross[i]! - share * row[i]!;
    }
    const tie = pivot.next === 0 ? 0 : -pivot.next / pivot.own;
    if (tie !== 0) {
      const beyond = withEdge[k + 1]!;
      for (let i = 0; i < border; i += 1) cross[i] = cross[i]! + tie * beyond[i]!;
      let sum = tie * own[k + 1]!;
      for (let j = 0; j < border; j += 1) sum -= (pivot.border[j]! / pivot.own) * beyond[j]!;
      withNext[k] = sum;
    }
    let variance = 1 / (pivot.own * pivot.own) + tie * withNext[k]!;
    for (let j = 0; j < border; j += 1) variance -= (pivot.border[j]! / pivot.own) * cross[j]!;
    own[k] = variance;
    withEdge[k] = cross;
  }
  return {
    variance(form) {
      const chain: number[] = [];
      const at: number[] = [];
      const by: number[] = [];
      for (const [column, coefficient] of form) {
        if (coefficient === 0) continue;
        if (column < marks && hub[column] === -1) chain.push(column);
        else {
          at.push(column < marks ? hub[column]! : column - marks);
          by.push(column < marks ? coefficient : coefficient * unknowns[column - marks]!.sd);
        }
      }
      chain.sort((a, b) => a - b);
      const [low, high] = chain;
      let sum = 0;
      for (let i = 0; i < at.length; i += 1) {
        const row = edge[at[i]!]!;
        for (let j = 0; j < at.length; j += 1) sum += by[i]! * by[j]! * row[at[j]!]!;
      }
      for (const mark of chain) {
        const coefficient = form.get(mark)!;
        sum += coefficient * coefficient * own[mark]!;
        for (let i = 0; i < at.length; i += 1) sum += 2 * coefficient * by[i]! * withEdge[mark]![at[i]!]!;
      }
      if (chain.length === 2) sum += 2 * form.get(low!)! * form.get(high!)! * withNext[low!]!;
      return Math.max(0, sum);
    },
  };
}
