/** Entries this near one another are at one place, m. */
export const SAME_PLACE_M = 1;

/** Faster than this nobody rides from one entry to the next, m/s: one of them was typed, not ridden. */
export const FASTEST_MPS = 20;
