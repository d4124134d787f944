import { DEFAULTS } from "#core/base";

/** A part of a course at one slope, as a share of its length. */
export interface CoursePart {
  readonly share: number;
  readonly slope: number;
}

/**
 * A course known by its climb alone, as three parts: climbing at 4 %, falling at 4 %, and flat. Steeper where both would
 * not fit in the distance. Metres of gain and loss for each metre of way; parts of no length are left out.
 *
 * @example courseParts(10 / 1609.344, 10 / 1609.344): 15.5 % up, 15.5 % down, 68.9 % flat
 */
export function courseParts(gainPerM: number, lossPerM: number): readonly CoursePart[] {
  const slope = Math.max(DEFAULTS.courseSlope, gainPerM + lossPerM);
  const up = gainPerM / slope;
  const down = lossPerM / slope;
  return [
    { share: up, slope },
    { share: 1 - up - down, slope: 0 },
    { share: down, slope: -slope },
  ].filter(({ share }) => share > 1e-12);
}
