import { nth } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";
import type { LiveEntry } from "#core/ride/log";
import type { Ground } from "#core/fields";

/** A ground that begins at a moment. */
export interface PaintedGround {
  readonly timeS: number;
  readonly ground: Ground;
}

/** When a track first was so far along its way, s; the end's moment for more. */
export function timeAt(
  { timeS, distanceM }: Pick<TrackProfile, "timeS" | "distanceM">,
  alongM: number,
): number {
  const after = distanceM.findIndex((metres) => metres >= alongM);
  if (after < 0) return nth(timeS, timeS.length - 1);
  if (after === 0) return nth(timeS, 0);
  const [a, b] = [nth(distanceM, after - 1), nth(distanceM, after)];
  const share = b > a ? (alongM - a) / (b - a) : 1;
  return nth(timeS, after - 1) + share * (nth(timeS, after) - nth(timeS, after - 1));
}

/**
 * A part of the way painted as one ground by hand: where it begins, after each change that was noted inside it, and where what
 * was before goes on.
 *
 * @param first ground before any entry names one
 */
export function paintGround(
  track: Pick<TrackProfile, "timeS" | "distanceM">,
  log: readonly LiveEntry[],
  {
    fromM,
    toM,
    ground,
    first,
  }: { readonly fromM: number; readonly toM: number; readonly ground: Ground; readonly first: Ground },
): readonly PaintedGround[] {
  const [from, to] = [timeAt(track, fromM), timeAt(track, toM)];
  const changes = log
    .flatMap(({ timeS, body }) =>
      timeS !== null && "ground" in body && body.ground !== undefined ? [{ timeS, ground: body.ground }] : [],
    )
    .sort((a, b) => a.timeS - b.timeS);
  const inside = changes.filter(({ timeS }) => timeS >= from && timeS < to);
  const after = changes.filter(({ timeS }) => timeS < to).at(-1)?.ground ?? first;
  return [
    { timeS: from, ground },
    ...inside.filter((each) => each.ground !== ground).map(({ timeS }) => ({ timeS: timeS + 1, ground })),
    ...(toM < nth(track.distanceM, track.distanceM.length - 1) ? [{ timeS: to, ground: after }] : []),
  ];
}
