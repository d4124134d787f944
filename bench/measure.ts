/** The middle of some values; null of none. */
export function middleOf(values: readonly number[]): number | null {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? null;
}

/** Median of some runs of a task, ms, after one to warm up. */
export async function median(runs: number, task: () => unknown): Promise<number> {
  await task();
  const times: number[] = [];
  for (let i = 0; i < runs; i += 1) {
    const before = performance.now();
    await task();
    times.push(performance.now() - before);
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

/** A fixed piece of arithmetic that stands for this machine's speed: every time is also given as a multiple of it. */
export function yardstick(): number {
  let sum = 0;
  for (let i = 1; i < 20_000_000; i += 1) sum += 1 / (i * i);
  return sum;
}
