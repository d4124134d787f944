import { nth } from "#core/base";
import type { Linearised } from "./types.ts";

/** How far an unknown is moved to see what it does, sds. */
const NUDGE = 0.25;

/** Linearises a day by central differences. */
export function byDifferences(
  predict: (shared: readonly number[], own: readonly number[]) => readonly number[],
): (shared: readonly number[], own: readonly number[]) => Linearised {
  return (shared, own) => {
    const value = predict(shared, own);
    const slopes = (at: readonly number[], of: (moved: readonly number[]) => readonly number[]) => {
      const columns = at.map((_, k) => {
        const moved = (by: number) => of(at.map((z, i) => (i === k ? z + by : z)));
        const [up, down] = [moved(NUDGE), moved(-NUDGE)];
        return up.map((each, i) => (each - nth(down, i)) / (2 * NUDGE));
      });
      return value.map((_, i) => columns.map((column) => nth(column, i)));
    };
    return {
      value,
      byShared: slopes(shared, (moved) => predict(moved, own)),
      byOwn: slopes(own, (moved) => predict(shared, moved)),
    };
  };
}
