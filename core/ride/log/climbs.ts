import { lastOf, nth } from "#core/base";
import type { PlacedEntry } from "./places.ts";
import { totalOf } from "./totals.ts";

/**
 * The climb of a ride by what was typed on the way, "so far" at its place: spread by distance between the places where it
 * was noted. What was climbed is taken to be ridden down again on the same stretch, as on a loop or out and back.
 *
 * @returns metres climbed up to a distance; null when nobody noted any
 */
export function typedClimb(placed: readonly PlacedEntry[]): ((distanceM: number) => number) | null {
  const points = [{ distanceM: 0, climbM: 0 }];
  for (const { entry, distanceM } of placed) {
    const climbM = "climbM" in entry.body ? entry.body.climbM : undefined;
    const last = lastOf(points);
    // A total that falls was typed for another ride, or is a slip.
    if (
      climbM === undefined ||
      entry.struck ||
      entry.body.kind === "totals" ||
      climbM < last.climbM ||
      distanceM <= last.distanceM
    )
      continue;
    points.push({ distanceM, climbM });
  }
  const farthestM = placed.at(-1)?.distanceM ?? 0;
  const totalM = totalOf(
    placed.map(({ entry }) => entry),
    "climbM",
  );
  if (totalM !== null && totalM >= lastOf(points).climbM && farthestM > lastOf(points).distanceM)
    points.push({ distanceM: farthestM, climbM: totalM });
  if (points.length < 2) return null;
  return (distanceM) => {
    const at = points.findIndex((point) => point.distanceM >= distanceM);
    if (at < 0) return lastOf(points).climbM;
    if (at === 0) return 0;
    const [from, to] = [nth(points, at - 1), nth(points, at)];
    const share = (distanceM - from.distanceM) / (to.distanceM - from.distanceM);
    return from.climbM + share * (to.climbM - from.climbM);
  };
}
