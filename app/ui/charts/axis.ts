/** How axes and lines of every chart look. */
const QUIET = "var(--color-quiet)";

export const GRID = { stroke: "var(--color-rule)", syncWithTicks: true } as const;

/** Figures of an axis without its strokes. */
export const AXIS = {
  tick: { fill: QUIET, fontSize: 13 },
  tickLine: false,
  axisLine: false,
} as const;

/** A word below an axis. */
export const below = (value: string) =>
  ({ value, position: "bottom", offset: 4, fill: QUIET, fontSize: 13 }) as const;

/** Nothing moves. */
export const STILL = { isAnimationActive: false } as const;
