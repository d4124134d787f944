import { err, ok, type Result, meanOf } from "#core/base";

/** On paper a difference counts as resolved from as many of its sds. */
const PAPER_SDS = 2;

/** A run over the section by percent. */
export interface Run {
  readonly startPercent: number;
  readonly endPercent: number;
  readonly distanceMi: number;
}

export interface PairedDifference {
  /** A less B of each pair, Wh/mi. */
  readonly differences: readonly number[];
  readonly mean: number;
  /** Of the mean: by the display's step alone, and by how the pairs scatter; null for one pair, of which nobody knows. */
  readonly sdRounding: number;
  readonly sdScatter: number | null;
  /** The larger of the two that are known. */
  readonly sd: number;
  /** Over two sds, and of two pairs or more. */
  readonly resolved: boolean;
  /** Pairs like these that would resolve a difference as large; null when there is none to resolve. */
  readonly pairsNeeded: number | null;
}

/**
 * The paper's way with paired runs: each pair's difference by percent and label, its mean, and what the step of the display
 * and the scatter of the pairs leave of it. Source: docs/method.md.
 *
 * @param percentStep of the display; each reading is rounded on its own
 * @example 500 Wh, A 100-84 and 55-39, B 84-71 and 71-57 over 5.2 mi: 2.40 Wh/mi, sd 0.48, resolved
 */
export function pairedDifference(
  labelWh: number,
  percentStep: number,
  pairs: readonly { readonly A: Run; readonly B: Run }[],
): Result<PairedDifference> {
  if (pairs.length === 0) return err("no-pairs", "pairs", "Give at least one run of A and one of B.");
  for (const [i, pair] of pairs.entries())
    for (const side of ["A", "B"] as const) {
      const { startPercent, endPercent, distanceMi } = pair[side];
      if (!(distanceMi > 0))
        return err("no-distance", `pairs.${i}.${side}.distanceMi`, "Type the miles of the run.");
      if (endPercent > startPercent)
        return err(
          "no-drop",
          `pairs.${i}.${side}.endPercent`,
          "The end must not be above the start of the run.",
        );
    }
  const use = ({ startPercent, endPercent, distanceMi }: Run) =>
    (labelWh * (startPercent - endPercent)) / 100 / distanceMi;
  // Two readings a run, each even over its step.
  const roundingOf = ({ distanceMi }: Run) =>
    (labelWh * (percentStep / 100) * Math.sqrt(2 / 12)) / distanceMi;
  const n = pairs.length;
  const differences = pairs.map(({ A, B }) => use(A) - use(B));
  const mean = meanOf(differences);
  const sdRounding = Math.hypot(...pairs.flatMap(({ A, B }) => [roundingOf(A), roundingOf(B)])) / n;
  const squares = differences.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  const sdScatter = n > 1 ? Math.sqrt(squares / (n - 1) / n) : null;
  const sd = Math.max(sdRounding, sdScatter ?? 0);
  return ok({
    differences,
    mean,
    sdRounding,
    sdScatter,
    sd,
    resolved: sdScatter !== null && Math.abs(mean) > PAPER_SDS * sd,
    pairsNeeded: mean === 0 ? null : Math.max(1, Math.ceil(n * ((PAPER_SDS * sd) / mean) ** 2)),
  });
}
