import { nth, lastOf, err, ok, type Result, meanOf } from "#core/base";

/** Where a held speed begins to fade, and whether the bend is believed. Units of what was read. */
export interface Fade {
  /** Where the line bends, in the distances' unit. */
  readonly onset: number;
  /** How much better the bent line is than a straight one. */
  readonly bicDrop: number;
  readonly accepted: boolean;
  readonly slopeBefore: number;
  readonly slopeAfter: number;
}

/** Readings needed, so that each side of a bend has three. */
const LEAST = 6;
/** A bend is believed when BIC falls by this. */
const BELIEVED = 6;
const LINE_UNKNOWNS = 3;
const BENT_UNKNOWNS = 5;

interface Bent {
  readonly at: number;
  readonly before: number;
  readonly after: number;
  readonly rss: number;
}

/** Least squares of y = a + b (x - k) + c max(0, x - k): a line bent at k. */
function bentAt(k: number, x: readonly number[], y: readonly number[]): Bent {
  const u = x.map((each) => each - k);
  const w = u.map((each) => Math.max(0, each));
  const [mu, mw, my] = [meanOf(u), meanOf(w), meanOf(y)];
  const dot = (a: readonly number[], ma: number, b: readonly number[], mb: number) =>
    a.reduce((sum, each, i) => sum + (each - ma) * (nth(b, i) - mb), 0);
  const [uu, uw, ww] = [dot(u, mu, u, mu), dot(u, mu, w, mw), dot(w, mw, w, mw)];
  const [uy, wy] = [dot(u, mu, y, my), dot(w, mw, y, my)];
  const det = uu * ww - uw * uw;
  const b = (uy * ww - wy * uw) / det;
  const c = (wy * uu - uy * uw) / det;
  const a = my - b * mu - c * mw;
  const rss = y.reduce((sum, each, i) => sum + (each - a - b * nth(u, i) - c * nth(w, i)) ** 2, 0);
  return { at: k, before: b, after: b + c, rss };
}

function lineRss(x: readonly number[], y: readonly number[], from: number, to: number) {
  const [xs, ys] = [x.slice(from, to), y.slice(from, to)];
  const [mx, my] = [meanOf(xs), meanOf(ys)];
  const sxx = xs.reduce((sum, each) => sum + (each - mx) ** 2, 0);
  const sxy = xs.reduce((sum, each, i) => sum + (each - mx) * (nth(ys, i) - my), 0);
  const slope = sxx > 0 ? sxy / sxx : 0;
  const at0 = my - slope * mx;
  return { slope, at0, rss: ys.reduce((sum, each, i) => sum + (each - at0 - slope * nth(xs, i)) ** 2, 0) };
}

/** Bends to try: each reading from the third to the third last, and between two of them where the lines either side meet. */
function bends(x: readonly number[], y: readonly number[]): readonly number[] {
  const n = x.length;
  return Array.from({ length: n - 4 }, (_, i) => i + 2).flatMap((i) => {
    if (i === n - 3) return [nth(x, i)];
    const [left, right] = [lineRss(x, y, 0, i + 1), lineRss(x, y, i + 1, n)];
    const meet = (right.at0 - left.at0) / (left.slope - right.slope);
    return meet > nth(x, i) && meet < nth(x, i + 1) ? [nth(x, i), meet] : [nth(x, i)];
  });
}

/**
 * The onset of fade: one change point of a held speed or power along the distance, a continuous bent line against a
 * straight one, downward only, by BIC = n ln(RSS / n) + k ln n with RSS floored at what the display's step hides.
 * Source: docs/method.md.
 *
 * @param distances rising; @param held the best held speed there, in any unit; @param step of the display, same unit
 * @returns a problem with fewer than six readings, or distances that do not rise
 */
export function fadeOnset(distances: readonly number[], held: readonly number[], step: number): Result<Fade> {
  const n = distances.length;
  if (n !== held.length) return err("lengths", "heldSpeedMph", "Give as many speeds as distances.");
  if (n < LEAST)
    return err("too-few", "distanceMi", "Fade needs at least six readings, three either side of a bend.");
  if (distances.some((each, i) => i > 0 && each <= nth(distances, i - 1)))
    return err("not-rising", "distanceMi", "Distances must rise from reading to reading.");
  const floor = (n * step * step) / 12;
  const bic = (rss: number, unknowns: number) =>
    n * Math.log(Math.max(rss, floor) / n) + unknowns * Math.log(n);
  const line = lineRss(distances, held, 0, n);
  const bent = bends(distances, held)
    .map((k) => bentAt(k, distances, held))
    .filter(({ before, after }) => after < before)
    .reduce<Bent | null>((best, each) => (best === null || each.rss < best.rss ? each : best), null);
  if (!bent)
    return ok({
      onset: lastOf(distances),
      bicDrop: 0,
      accepted: false,
      slopeBefore: line.slope,
      slopeAfter: line.slope,
    });
  const bicDrop = bic(line.rss, LINE_UNKNOWNS) - bic(bent.rss, BENT_UNKNOWNS);
  return ok({
    onset: bent.at,
    bicDrop,
    accepted: bicDrop >= BELIEVED,
    slopeBefore: bent.before,
    slopeAfter: bent.after,
  });
}
