import { type Forecast } from "#core/forecast";
import { routeCost, type RideConditions } from "#core/bike";
import { nth, fixed, unitToken } from "#core/base";
import type { RouteSegment, Route } from "#core/route";

/** What a ride was like so far, as logged; null where nothing was. SI units. */
export interface Ridden {
  readonly atM: number;
  /** Since the first mark, stops and all. */
  readonly elapsedS: number | null;
  /** Ways ridden on each level, in order. */
  readonly levels: readonly { readonly level: string; readonly distanceM: number }[];
  readonly windMps: number | null;
}

/** What one thing that went otherwise than planned takes, as a fraction of the pack. */
export interface Reason {
  readonly what: "speed" | "level" | "wind";
  readonly more: number;
  readonly words: string;
}

/** A pace this near the plan's is the plan's. */
const SAME_PACE = 0.04;
/** Least share of the pack worth a word. */
const WORTH = 0.005;
/** How far a pace is believed: a long stop is not a slow ride. */
const PACE_SPAN = [0.6, 1.6] as const;

/** The pieces of a way up to a place, lap after lap. */
function piecesTo(way: Route, toM: number): readonly RouteSegment[] {
  const pieces: RouteSegment[] = [];
  for (let left = toM; left > 0;) {
    for (const piece of way.lap) {
      if (left <= 0) break;
      pieces.push(piece.lengthM <= left ? piece : { ...piece, lengthM: left });
      left -= piece.lengthM;
    }
    if (!way.closed) break;
  }
  return pieces;
}

/** The same pieces on the levels that were truly ridden, cut where a level changed. */
function onLevels(pieces: readonly RouteSegment[], levels: Ridden["levels"]): readonly RouteSegment[] {
  const cut: RouteSegment[] = [];
  let [run, left] = [0, levels[0]?.distanceM ?? 0];
  for (const piece of pieces) {
    let rest = piece.lengthM;
    while (rest > 1e-6) {
      while (left <= 1e-6 && run < levels.length - 1) left = nth(levels, ++run).distanceM;
      const part = run >= levels.length - 1 ? rest : Math.min(rest, left);
      cut.push({ ...piece, lengthM: part, level: levels[run]?.level ?? piece.level });
      rest -= part;
      left -= part;
    }
  }
  return cut;
}

const faster = (rig: RideConditions, by: number): RideConditions => ({
  ...rig,
  speedMps: Object.fromEntries(Object.entries(rig.speedMps).map(([level, mps]) => [level, mps * by])),
});

/**
 * What explains that more or less was used than planned: each thing that went otherwise, taken alone through the road load
 * over the way ridden. Speed by the time taken, level by the log, wind as typed in; the largest first.
 */
export function reasonsFor(forecast: Forecast, ridden: Ridden): readonly Reason[] {
  const { input, along, capacity } = forecast;
  const { rig } = input;
  const pieces = piecesTo(along.way, ridden.atM);
  const planned = routeCost(pieces, rig);
  const reasons: Reason[] = [];
  const add = (what: Reason["what"], wh: number, words: string) => {
    const more = (wh - planned.wh) / capacity.mean;
    if (Math.abs(more) >= WORTH) reasons.push({ what, more, words });
  };
  const known = ridden.levels.filter(({ level }) => level in rig.speedMps);
  const relevelled =
    known.length > 0 && known.length === ridden.levels.length ? onLevels(pieces, ridden.levels) : pieces;
  const byLevel = routeCost(relevelled, rig);
  if (relevelled !== pieces) {
    const names = [...new Set(known.map(({ level }) => level))];
    add("level", byLevel.wh, `riding on ${names.join(" and ")}`);
  }
  if (ridden.elapsedS !== null && ridden.elapsedS > 0) {
    const pace = byLevel.s / ridden.elapsedS;
    const [least, most] = PACE_SPAN;
    if (Math.abs(pace - 1) > SAME_PACE && pace > least && pace < most) {
      const use = routeCost(relevelled, faster(rig, pace));
      const how = pace > 1 ? "faster" : "slower";
      add(
        "speed",
        planned.wh + use.wh - byLevel.wh,
        `riding ${fixed(100 * Math.abs(pace - 1), 0)} % ${how} than planned`,
      );
    }
  }
  if (ridden.windMps !== null)
    add(
      "wind",
      routeCost(pieces, { ...rig, windMps: ridden.windMps }).wh,
      `a wind of ${unitToken(ridden.windMps, "speed", 0)}, not the ${unitToken(rig.windMps, "speed", 0)} planned,`,
    );
  return reasons.sort((a, b) => Math.abs(b.more) - Math.abs(a.more));
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/**
 * The reasons in sentences: those that go the way the pack went, then those that would have gone the other; empty when
 * nothing logged explains anything.
 *
 * @param more fraction of the pack used beyond the plan
 */
export function reasonsText(reasons: readonly Reason[], more: number): string {
  const points = (reason: Reason) => `${fixed(100 * Math.abs(reason.more), 1)} points`;
  const along = reasons.filter((reason) => reason.more * more > 0);
  const against = reasons.filter((reason) => reason.more * more <= 0);
  const sentences = [
    along.map((reason) => `${reason.words} explains ${points(reason)}`).join("; "),
    against
      .map((reason) => `${reason.words} would take ${points(reason)} ${reason.more > 0 ? "more" : "less"}`)
      .join("; "),
  ].filter(Boolean);
  return sentences.map((sentence) => `${capital(sentence)}.`).join(" ");
}
