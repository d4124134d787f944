import { drawerUnder, spreadOf, type Compared } from "#core/compare";
import type { Result } from "#core/problems";
import { good } from "#core/problems";
import type { Reference } from "#core/roadload";
import { chanceFrom } from "#core/standin";

/** Draws a figure under a reference many times over, telling how far it is: a check of its plus-or-minus. */
export interface DrawsAsk {
  readonly compared: Compared;
  readonly reference: Reference;
  readonly count: number;
  readonly seed: number;
}

export type DrawsTold =
  { readonly done: number; readonly of: number } | { readonly spread: Result<ReturnType<typeof spreadOf>> };

const TELL_EVERY = 100;

self.onmessage = ({ data: { compared, reference, count, seed } }: MessageEvent<DrawsAsk>) => {
  const chance = chanceFrom(seed);
  const draw = drawerUnder(compared, reference, () => chance.normal());
  if (!draw.ok) return self.postMessage({ spread: draw } satisfies DrawsTold);
  const draws: number[] = [];
  while (draws.length < count) {
    draws.push(draw.value());
    if (draws.length % TELL_EVERY === 0)
      self.postMessage({ done: draws.length, of: count } satisfies DrawsTold);
  }
  self.postMessage({ spread: good(spreadOf(draws)) } satisfies DrawsTold);
};
