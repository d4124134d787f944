import { nth } from "#core/base";
/**
 * Shapley's split of a change among what differs: each name's mean marginal change over all orders, by weighted subsets.
 * The parts sum to the whole change. 2^n model calls.
 *
 * @param model the value with these names changed and the others not
 * @example shapleySplit(["a", "b"], (changed) => changed.size ** 2)[0][1] === 2
 */
export function shapleySplit<Name>(
  names: readonly Name[],
  model: (changed: ReadonlySet<Name>) => number,
): readonly (readonly [name: Name, change: number])[] {
  const n = names.length;
  const values = Array.from({ length: 1 << n }, (_, mask) =>
    model(new Set(names.filter((_name, i) => mask & (1 << i)))),
  );
  const factorial = (k: number): number => (k < 2 ? 1 : k * factorial(k - 1));
  const sizeOf = (mask: number) => names.reduce((size, _, i) => size + ((mask >> i) & 1), 0);
  return names.map((name, i) => {
    let sum = 0;
    for (let mask = 0; mask < 1 << n; mask += 1) {
      if (mask & (1 << i)) continue;
      const size = sizeOf(mask);
      const weight = (factorial(size) * factorial(n - size - 1)) / factorial(n);
      sum += weight * (nth(values, mask | (1 << i)) - nth(values, mask));
    }
    return [name, sum] as const;
  });
}
