import type { Item } from "./read.ts";

/** Longest that one moment goes on, s; without stamps as many words instead. */
const LONGEST_S = 40;
const LONGEST_WORDS = 60;
/** Kinds that a moment has once. */
const SINGLE = /^(distance|percent_left|bars_left|elapsed_time|cut_off)$/;
/** What is said before its place, a few words earlier: "it cut out, at 41.3 miles". */
const EVENT = /^(cut_off|battery_blinking|low_power|bar_lost)$/;
const JUST_BEFORE_WORDS = 10;

type Placed = Omit<Item, "moment"> & { readonly at: number };

/** How many of the last items belong to a place that is said now. */
function comingWith(items: readonly Placed[], at: number): number {
  let count = 0;
  for (const item of [...items].reverse()) {
    if (!EVENT.test(item.kind) || at - item.at > JUST_BEFORE_WORDS) break;
    count += 1;
  }
  return count;
}

/** Gathers what belongs together: a place opens a moment, and what is said just before it comes with it. */
export function momentsOf(items: readonly Placed[]): readonly Item[] {
  const moments: Placed[][] = [];
  for (const item of items) {
    const last = moments.at(-1);
    const first = last?.[0];
    if (!last || !first) {
      moments.push([item]);
      continue;
    }
    const late =
      first.atS !== null && item.atS !== null
        ? item.atS - first.atS > LONGEST_S || item.atS < first.atS
        : item.at - first.at > LONGEST_WORDS;
    const twice = SINGLE.test(item.kind) && last.some(({ kind }) => kind === item.kind);
    if (!late && !twice) {
      last.push(item);
      continue;
    }
    const coming = item.kind === "distance" ? comingWith(last, item.at) : 0;
    // A moment is never emptied: then it was this one's all along.
    if (coming === last.length) last.push(item);
    else moments.push([...last.splice(last.length - coming, coming), item]);
  }
  return moments.flatMap((each, moment) => each.map(({ at: _, ...item }) => ({ ...item, moment })));
}
