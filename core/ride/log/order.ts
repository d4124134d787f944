import { there, nth, lastOf, METRES_PER_MILE, unitToken, meanOf } from "#core/base";
import type { LiveEntry } from "./fold.ts";
import { FASTEST_MPS } from "./possible.ts";

/** A distance that cannot be where it stands in the log, and what was likely meant, m; null when nothing near it fits. */
export interface DistanceSlip {
  readonly rootId: string;
  readonly typedM: number;
  readonly meantM: number | null;
}

interface Placed {
  readonly entry: LiveEntry;
  readonly distanceM: number;
}

/** A recorder's own wander, m. */
const NEAR_M = 50;
/** With more of them than this it is the order of the log that is wrong. */
const MOST_SHARE = 0.25;
/** A gauge may come back by so many points without a charge. */
const FLICKER = 2;
/** Speeds are looked at from this far on, m. */
const FAR_M = 2 * METRES_PER_MILE;

/** What was meant for a distance, if it was a slip: digits swapped, the other unit, a point forgotten. */
function likelyMeant(metres: number): readonly number[] {
  const swapped = (unitM: number) => {
    const tenths = Math.round((metres / unitM) * 10);
    const whole = String(Math.floor(tenths / 10)).padStart(2, "0");
    return (Number([...whole].reverse().join("")) + (tenths % 10) / 10) * unitM;
  };
  return [
    swapped(METRES_PER_MILE),
    swapped(1000),
    metres / 10,
    metres * (METRES_PER_MILE / 1000),
    metres / (METRES_PER_MILE / 1000),
  ];
}

const percentOf = ({ body, struck }: LiveEntry) => (!struck && "percent" in body ? body.percent : undefined);

/** The log in order: by time where all have one, else as it was noted. */
function inOrder(placed: readonly Placed[]): readonly Placed[] {
  const timed = placed.every(({ entry }) => entry.timeS !== null);
  return [...placed].sort(
    (a, b) => (timed ? there(a.entry.timeS) - there(b.entry.timeS) : 0) || a.entry.seq - b.entry.seq,
  );
}

/** Entries noted out of order tell of themselves: put by distance, their gauge falls as it should. */
function fitsByDistance(placed: readonly Placed[]): boolean {
  const seen = [...placed]
    .sort((a, b) => a.distanceM - b.distanceM)
    .flatMap(({ entry }) => {
      const percent = percentOf(entry);
      return entry.body.kind === "refill" ? [Infinity] : percent === undefined ? [] : [percent];
    });
  return seen.length > 2 && seen.every((percent, i) => i === 0 || percent <= nth(seen, i - 1) + FLICKER);
}

/** What was meant of the distance at a place of the log, that fits between its neighbours. */
function meantAt(order: readonly Placed[], at: number): number | null {
  const from = order[at - 1]?.distanceM ?? 0;
  const to = order[at + 1]?.distanceM ?? Infinity;
  return likelyMeant(nth(order, at).distanceM).find((metres) => metres > from && metres <= to) ?? null;
}

/** Logarithms of what the gauge fell a metre, stretch by stretch; a step back in distance counts as far off. */
function fallRates(order: readonly Placed[]): readonly number[] {
  const seen = order.filter(({ entry }) => percentOf(entry) !== undefined);
  return seen.slice(1).map(({ entry, distanceM }, i) => {
    const metres = distanceM - nth(seen, i).distanceM;
    const fallen = there(percentOf(nth(seen, i).entry)) - there(percentOf(entry));
    return metres <= 0 ? FAR_OFF : Math.log(Math.max(fallen, LEAST_FALL) / metres);
  });
}

/** How unevenly the gauge falls along a log: the spread of those. */
function unevenness(order: readonly Placed[]): number {
  const rates = fallRates(order);
  const mean = meanOf(rates);
  return rates.reduce((sum, rate) => sum + (rate - mean) ** 2, 0);
}
/** Of the logarithm of points a metre. */
const FAR_OFF = 10;
/** Half a point: what a gauge in whole points hides. */
const LEAST_FALL = 0.5;

/** The entries to leave out so that the others run forward: as few as can be, those that look like a slip first. */
function fewestOut(order: readonly Placed[]): readonly number[] {
  const without = order.map((_, i) => (order.length > MOST_COMPARED ? 0 : unevenness(order.toSpliced(i, 1))));
  const evenest = without.indexOf(Math.min(...without));
  const worth = order.map((_, i) => 1 - (meantAt(order, i) === null ? 0 : 0.1) - (i === evenest ? 0.2 : 0));
  const best: number[] = [];
  const before: number[] = [];
  for (let i = 0; i < order.length; i += 1) {
    [best[i], before[i]] = [nth(worth, i), -1];
    for (let k = 0; k < i; k += 1)
      if (
        nth(order, k).distanceM <= nth(order, i).distanceM + NEAR_M &&
        nth(best, k) + nth(worth, i) > nth(best, i)
      )
        [best[i], before[i]] = [nth(best, k) + nth(worth, i), k];
  }
  const kept = new Set<number>();
  for (let i = best.indexOf(Math.max(...best)); i >= 0; i = nth(before, i)) kept.add(i);
  return order.flatMap((_, i) => (kept.has(i) ? [] : [i]));
}

/** Entries that are too far on for their time, of which another distance fits. */
function tooFast(order: readonly Placed[]): readonly number[] {
  const fast = order.flatMap(({ entry, distanceM }, i) => {
    const last = order[i - 1];
    if (!last || entry.timeS === null || last.entry.timeS === null) return [];
    const metres = distanceM - last.distanceM;
    return metres > FAR_M && metres > FASTEST_MPS * (entry.timeS - last.entry.timeS) ? [i] : [];
  });
  // Typed in one go every stretch is too fast.
  if (fast.length > Math.max(1, MOST_SHARE * order.length)) return [];
  return fast.filter((i) => meantAt(order, i) !== null);
}

/** Shares of the usual fall beyond which the last stretch is strange, within which another distance explains it. */
const STRANGE = Math.log(3);
const EXPLAINED = Math.log(1.6);

/**
 * The last look, where its distance makes the last stretch take a third or three times of what every other took, and a likely
 * slip of it makes it take the usual: later looks would tell by their order.
 */
function strangeLast(order: readonly Placed[]): readonly number[] {
  const last = order.length - 1;
  const at = nth(order, last);
  if (order.length < 4 || percentOf(at.entry) === undefined) return [];
  const rates = fallRates(order);
  // Two stretches before the last, to say what is usual.
  if (rates.length < 3) return [];
  const [before, own] = [rates.slice(0, -1), lastOf(rates)];
  const usual = meanOf(before);
  const isEven = before.every((rate) => Math.abs(rate - usual) < EXPLAINED);
  if (!isEven || Math.abs(own - usual) < STRANGE) return [];
  const isUsual = (distanceM: number) =>
    Math.abs(lastOf(fallRates([...order.slice(0, -1), { ...at, distanceM }])) - usual) < EXPLAINED;
  return likelyMeant(at.distanceM).some(isUsual) ? [last] : [];
}

/** More places than these are not looked through, or compared, one by one. */
const MOST_COMPARED = 200;
const MOST_PLACES = 2000;

/**
 * Distances of one ride that cannot be: they run backward in the order of the log, or further than anybody rides in that
 * time. An entry noted late is none: by its distance its gauge falls in order.
 */
export function distanceSlips(placed: readonly Placed[]): readonly DistanceSlip[] {
  const order = inOrder(placed.filter(({ entry }) => !entry.struck && entry.body.kind !== "refill"));
  if (order.length < 3 || order.length > MOST_PLACES) return [];
  const backward = order.some(
    ({ distanceM }, i) => i > 0 && distanceM < nth(order, i - 1).distanceM - NEAR_M,
  );
  const forward = tooFast(order);
  const out = backward
    ? fitsByDistance(placed)
      ? []
      : fewestOut(order)
    : forward.length
      ? forward
      : strangeLast(order);
  if (out.length > MOST_SHARE * order.length) return [];
  return out.map((i) => ({
    rootId: nth(order, i).entry.rootId,
    typedM: nth(order, i).distanceM,
    meantM: meantAt(order, i),
  }));
}

/** "21.4 mi in the log after 9.0 mi: a typing slip? 12.4 mi would fit." Distances are tokens for `spoken`. */
export function slipSentence({ typedM, meantM }: DistanceSlip): string {
  const would = meantM === null ? "" : ` ${unitToken(meantM, "distance", 1)} would fit.`;
  return `${unitToken(typedM, "distance", 1)} does not fit its place in the log: a typing slip?${would} Until then it is placed between its neighbours.`;
}
