/** Something a person could do that would leave an sd smaller than it is. */
export interface Doable {
  /** A person's time, min. */
  readonly minutes: number;
  /** The sd it would leave, in the figure's unit; null when it cannot be done. */
  readonly sdLeft: number | null;
}

/** What is worth doing. */
export type WorthDoing<T extends Doable> = Omit<T, "sdLeft"> & {
  readonly sdLeft: number;
  /** Fall of the sd per minute, in the figure's unit. */
  readonly gainPerMinute: number;
};

/** Least share of the sd that something must take away to be listed. */
export const WORTH_SAYING = 0.03;

/** What each minute of it takes off an sd. A thing of less than a minute counts as one. */
const gainPerMinute = (sd: number, sdLeft: number, minutes: number): number =>
  (sd - sdLeft) / Math.max(1, minutes);

/**
 * Of all that could be done, what takes enough off an sd, by what each minute gains: the one rule by which a test, a plan,
 * a ranking and a forecast say what to do next.
 *
 * @param sd as it is now, in the figure's unit
 * @param least share of the sd that must go; 3 % unless given
 * @returns `worthDoing(10, [{ minutes: 4, sdLeft: 6 }, { minutes: 1, sdLeft: 9.9 }])` is the first, at 1 a minute
 */
export function worthDoing<T extends Doable>(
  sd: number,
  doable: readonly T[],
  least: number = WORTH_SAYING,
): readonly WorthDoing<T>[] {
  return doable
    .flatMap((each): readonly WorthDoing<T>[] => {
      const { sdLeft, minutes } = each;
      if (sdLeft === null || !(sdLeft < sd * (1 - least))) return [];
      return [{ ...each, sdLeft, gainPerMinute: gainPerMinute(sd, sdLeft, minutes) }];
    })
    .sort((a, b) => b.gainPerMinute - a.gainPerMinute);
}
