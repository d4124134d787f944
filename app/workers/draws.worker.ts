import { drawerUnder, spreadOf, type Drawable } from "#core/compare";
import { rngFrom } from "#core/world";

/** Draws a figure under a reference many times over, telling how far it is: a check of its plus-or-minus. */
export interface DrawsAsk {
  readonly drawable: Drawable;
  readonly count: number;
  readonly seed: number;
}

export type DrawsTold =
  { readonly done: number; readonly of: number } | { readonly spread: ReturnType<typeof spreadOf> };

const TELL_EVERY = 100;

self.onmessage = ({ data: { drawable, count, seed } }: MessageEvent<DrawsAsk>) => {
  const chance = rngFrom(seed);
  const draw = drawerUnder(drawable, () => chance.normal());
  const draws: number[] = [];
  while (draws.length < count) {
    draws.push(draw());
    if (draws.length % TELL_EVERY === 0)
      self.postMessage({ done: draws.length, of: count } satisfies DrawsTold);
  }
  self.postMessage({ spread: spreadOf(draws) } satisfies DrawsTold);
};
