/**
 * Chance that a standard normal lies below x; error under 8e-8 (Abramowitz and Stegun 26.2.17). `normalCdf(0) === 0.5` to 1e-9.
 *
 * @example normalCdf(1.96).toFixed(3) === "0.975"
 */
export function normalCdf(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}
