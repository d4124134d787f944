import { rowAt, num, nth, DEFAULTS } from "#core/base";

/**
 * The slow error of a gauge or a volts curve, with Gaussian correlation along the fraction used, held as 15 independent
 * standard normals: the error at f is sd x sum of weights(f) x normals. The nodes lie evenly over f = -0.1 to 1.1, which
 * keeps every correlation within 1e-6.
 */
export const GP_NODES = 15;
const FROM = -0.1;
const TO = 1.1;

/**
 * Correlation of the slow error between two places on the charge.
 *
 * @example gpCorrelation(0.2, 0.4).toFixed(3) === "0.607"
 */
export function gpCorrelation(fA: number, fB: number): number {
  return Math.exp(-((fA - fB) ** 2) / (2 * DEFAULTS.smoothLength ** 2));
}

const nodeAt = (j: number) => FROM + ((TO - FROM) * j) / (GP_NODES - 1);

/** Cholesky factor of the nodes' correlations, lower, by rows. */
const FACTOR: readonly Float64Array[] = (() => {
  const lower: Float64Array[] = [];
  for (let i = 0; i < GP_NODES; i += 1) {
    const row = new Float64Array(GP_NODES);
    for (let j = 0; j <= i; j += 1) {
      let sum = gpCorrelation(nodeAt(i), nodeAt(j));
      for (let k = 0; k < j; k += 1) sum -= num(row, k) * num(lower[j] ?? row, k);
      row[j] = i === j ? Math.sqrt(sum) : sum / nth(rowAt(lower, j), j);
    }
    lower.push(row);
  }
  return lower;
})();

/**
 * Weights of the nodes' normals at a place; the sum of their squares is 1 to within what the nodes leave out.
 *
 * @param f fraction used, held to -0.1..1.1
 */
export function gpWeights(f: number): Float64Array {
  const at = Math.min(TO, Math.max(FROM, f));
  const weights = new Float64Array(GP_NODES);
  for (let i = 0; i < GP_NODES; i += 1) {
    let sum = gpCorrelation(at, nodeAt(i));
    for (let k = 0; k < i; k += 1) sum -= num(rowAt(FACTOR, i), k) * num(weights, k);
    weights[i] = sum / num(rowAt(FACTOR, i), i);
  }
  return weights;
}
