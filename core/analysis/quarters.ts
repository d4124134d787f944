import { there, lastOf, nth, err, ok, type Result } from "#core/base";
import type { CurvePoint, Quarter, Quarters } from "./types.ts";

const QUARTER = 0.25;
/** A quarter counts when this share of it was ridden. */
const RIDDEN = 0.8;
/** Fractions used within which a start is full and an end empty. */
const FULL_WITHIN = 0.03;
const EMPTY_WITHIN = 0.06;

function at(xs: readonly number[], ys: readonly number[], x: number): number {
  const i = xs.findIndex((each) => each >= x);
  if (i < 0) return lastOf(ys);
  if (i === 0) return nth(ys, 0);
  const [x0, x1] = [nth(xs, i - 1), nth(xs, i)];
  return x1 > x0 ? nth(ys, i - 1) + ((x - x0) / (x1 - x0)) * (nth(ys, i) - nth(ys, i - 1)) : nth(ys, i);
}

/** Metres climbed up to each place along the way. */
export interface ClimbAlong {
  readonly distanceM: readonly number[];
  readonly climbM: readonly number[];
}

/** Climb along a profile of heights; a thinned one hides small rises, and is brought to the whole climb. */
export function climbOfProfile(
  { distanceM, heightM }: { readonly distanceM: readonly number[]; readonly heightM: readonly number[] },
  wholeM: number,
): ClimbAlong {
  let sum = 0;
  const rises = heightM.map((height, i) => (sum += i > 0 ? Math.max(0, height - nth(heightM, i - 1)) : 0));
  return { distanceM, climbM: rises.map((metres) => (sum > 0 ? (metres * wholeM) / sum : 0)) };
}

/**
 * Way and climb of each quarter of the charge, from full, and whether they are even, by the climb where it is known: loops
 * until empty, read by the ledger's curve. Source: docs/method.md.
 *
 * @param betweenSd doubt of the fraction used between two marks
 * @returns a problem where not two quarters were ridden
 */
export function quartersOf(
  curve: readonly CurvePoint[],
  climb: ClimbAlong | null,
  betweenSd: (from: number, to: number) => number,
): Result<Quarters> {
  const used = curve.map((point) => point.used.mean);
  const miles = curve.map(({ distanceM }) => distanceM);
  const [first, last] = [nth(used, 0), lastOf(used)];
  const nearest = (fraction: number) =>
    used.reduce(
      (best, each, i) => (Math.abs(each - fraction) < Math.abs(nth(used, best) - fraction) ? i : best),
      0,
    );
  const found: (Quarter & { share: number })[] = [];
  for (let from = 0; from < 1; from += QUARTER) {
    const [begin, end] = [Math.max(first, from), Math.min(last, from + QUARTER)];
    if (end - begin < RIDDEN * QUARTER) continue;
    const [fromM, toM] = [at(used, miles, begin), at(used, miles, end)];
    // A full start and an empty end are the quarter's own: of a ride from full to the end the quarters are all of it.
    const started = begin - from < FULL_WITHIN ? from : begin;
    const ended = from + QUARTER === 1 && 1 - end < EMPTY_WITHIN ? 1 : end;
    const whole = QUARTER / Math.min(QUARTER, ended - started);
    found.push({
      from,
      to: from + QUARTER,
      distanceM: (toM - fromM) * whole,
      climbM:
        climb && whole * (at(climb.distanceM, climb.climbM, toM) - at(climb.distanceM, climb.climbM, fromM)),
      share: betweenSd(nearest(begin), nearest(end)) / (end - begin),
    });
  }
  const [start, end] = [found[0], found.at(-1)];
  if (!start || !end || start === end)
    return err("no-quarters", "test", "Two quarters of the charge must be ridden to set them side by side.");
  const by = start.climbM && end.climbM ? ("climb" as const) : ("way" as const);
  const ratio = by === "climb" ? there(end.climbM) / there(start.climbM) : end.distanceM / start.distanceM;
  const sd = ratio * Math.hypot(end.share, start.share);
  return ok({
    quarters: found.map(({ share: _share, ...quarter }) => quarter),
    by,
    lastOverFirst: { mean: ratio, sd },
    even: Math.abs(ratio - 1) <= 2 * sd,
  });
}
