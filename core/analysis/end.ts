import { END_NAMES } from "#core/fields";
import { type Timeline } from "#core/ride/log";
import type { Estimate } from "#core/base";
import type { EndView } from "./types.ts";

/** How the test ended, and where full power ended: by hand, else by low-power mode, else by how the speed fades. */
export function endOf(course: Timeline, used: Estimate, fadeM: number | null): EndView {
  const bodies = course.marks.flatMap(({ entries, distanceM }) =>
    entries.filter(({ struck }) => !struck).map(({ body, rootId }) => ({ body, rootId, distanceM })),
  );
  const end = bodies.map(({ body }) => body).find(({ kind }) => kind === "end");
  const low = bodies.find(({ body }) => body.kind === "lowPower");
  const hand = course.handMarks.at(-1);
  return {
    reason: end?.kind === "end" ? END_NAMES[end.reason] : null,
    closed: end?.kind === "end" && end.reason !== "byChoice",
    fullPower: hand
      ? { distanceM: hand.distanceM, by: "hand", rootId: hand.rootId }
      : low
        ? { distanceM: low.distanceM, by: "low-power mode", rootId: low.rootId }
        : fadeM !== null
          ? { distanceM: fadeM, by: "fading speed", rootId: null }
          : null,
    used,
  };
}
