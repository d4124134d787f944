import { lastOf, nth } from "#core/base";
import type { Row } from "#core/battery/readings";
import type { LedgerRide } from "./schema.ts";

/** Sources of what a figure was rounded to, or of what a meter's last digit leaves. */
const ROUNDED = ["gauge rounding", "volts reading"];

/** Half the step a figure was rounded to, from its rounding's sd: the truth lies within it. */
function halfStep({ errors }: Row): number {
  return Math.sqrt(
    3 * errors.reduce((sum, { source, sd }) => (ROUNDED.includes(source) ? sum + sd * sd : sum), 0),
  );
}

/**
 * A slow error belongs to the state of the pack, not to the digits shown. Where a display stands still over several marks,
 * the place its slow error is taken at is therefore spread along the way: from the middle of one run of equal figures
 * to the middle of the next, within half a step of the figure shown. Taken at the digits, the slow error could mimic every standstill, and rides with many more
 * check-ins than percents came out far too low.
 *
 * @param rows of one ride's readings, as read; returned in the same order, those of single figures as they are
 */
export function dequantised(rows: readonly Row[], { legs }: Pick<LedgerRide, "legs">): readonly Row[] {
  const along = [0];
  for (const leg of legs) along.push(lastOf(along) + Object.values(leg.metres).reduce((a, b) => a + b, 0));
  const result = [...rows];
  for (const process of ["gauge", "curve"] as const) {
    const places = rows
      .flatMap((row, i) =>
        row.smooth?.process === process ? [{ i, f: row.smooth.f, mark: nth(row.fractions, 0).mark }] : [],
      )
      .sort((a, b) => a.mark - b.mark);
    const runs: { f: number; from: number; to: number; members: typeof places }[] = [];
    for (const place of places) {
      const run = runs.at(-1);
      const at = nth(along, place.mark);
      if (run?.f === place.f) {
        run.to = at;
        run.members.push(place);
      } else runs.push({ f: place.f, from: at, to: at, members: [place] });
    }
    runs.forEach((run, r) => {
      if (run.members.length < 2) return;
      const middle = (run.from + run.to) / 2;
      for (const { i, mark } of run.members) {
        const at = nth(along, mark);
        const other = runs[at < middle ? r - 1 : r + 1];
        const there = other && (other.from + other.to) / 2;
        const share = there === undefined || there === middle ? 0 : (at - middle) / (there - middle);
        const within = halfStep(nth(rows, i));
        const shift = other ? share * (other.f - run.f) : 0;
        const f = run.f + Math.min(within, Math.max(-within, shift));
        const row = nth(rows, i);
        // What a gauge's readings have in common goes with the charge as well, not with the digits.
        const ratio = run.f > 0 ? f / run.f : 1;
        const unknowns = row.unknowns.map((each) => ({ ...each, coefficient: each.coefficient * ratio }));
        result[i] = { ...row, unknowns, smooth: { process, f } };
      }
    });
  }
  return result;
}
