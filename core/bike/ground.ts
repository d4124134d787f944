import type { Ground } from "#core/fields";

/** Rolling resistance of each ground against asphalt. */
export const GROUND_FACTOR: Readonly<Record<Ground, number>> = {
  asphalt: 1,
  brick: 1.3,
  "fine gravel": 1.6,
  "loose gravel": 2.2,
  grass: 3.5,
  mud: 5,
  snow: 2.5,
};
