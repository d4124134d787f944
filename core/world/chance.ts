/** A seeded source of chance: the same seed gives the same numbers everywhere. */
export interface Rng {
  /** Uniform in 0..1. */
  next(): number;
  /** Uniform between two values. */
  between(low: number, high: number): number;
  /** Normal with a mean and sd. */
  normal(mean?: number, sd?: number): number;
  /** True with a probability. */
  happens(probability: number): boolean;
}

/** A source of chance from a seed (sfc32, after Chris Doty-Humphrey's small fast counting generator). */
export function rngFrom(seed: number): Rng {
  let [a, b, c, d] = [0x9e3779b9, 0x243f6a88, seed | 0, 1];
  const next = () => {
    const sum = (((a + b) | 0) + d) | 0;
    d = (d + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = ((c << 21) | (c >>> 11)) + sum;
    return (sum >>> 0) / 2 ** 32;
  };
  for (let i = 0; i < 15; i += 1) next();
  return {
    next,
    between: (low, high) => low + (high - low) * next(),
    normal: (mean = 0, sd = 1) =>
      mean + sd * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    happens: (probability) => next() < probability,
  };
}
