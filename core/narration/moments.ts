import type { Item } from "./read.ts";

/** Longest that one moment goes on, s; without stamps as many words instead. */
const LONGEST_S = 40;
const LONGEST_WORDS = 60;
/** Kinds that a moment has once. */
const SINGLE = /^(distance|percent_left|bars_left|elapsed_time|cut_off)$/;

type Placed = Omit<Item, "moment"> & { readonly at: number };

/** Gathers what belongs together: a place opens a moment, and the charge may come before it. */
export function momentsOf(items: readonly Placed[]): readonly Item[] {
  let [moment, opened, openedS, kinds] = [0, 0, null as number | null, new Map<string, unknown>()];
  return items.map(({ at, ...item }) => {
    const first = kinds.size === 0 && moment === 0;
    const late =
      openedS !== null && item.atS !== null ? item.atS - openedS > LONGEST_S : at - opened > LONGEST_WORDS;
    const twice = SINGLE.test(item.kind) && kinds.has(item.kind);
    if (!first && (late || twice || (item.atS !== null && openedS !== null && item.atS < openedS))) {
      moment += 1;
      kinds = new Map();
    }
    if (kinds.size === 0) [opened, openedS] = [at, item.atS];
    kinds.set(item.kind, item.value);
    return { ...item, moment };
  });
}
