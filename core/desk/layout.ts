import { there, nth } from "#core/base";
import type { Place } from "./arrow.ts";
import type { DeskDay, SharedUnknown, UnknownKind } from "./types.ts";

/** Every shared unknown of a desk and its place: with its bike where only that bike's days know it, else in the border. */
export interface DeskLayout {
  readonly unknowns: readonly SharedUnknown[];
  readonly places: readonly Place[];
  readonly indexOf: ReadonlyMap<string, number>;
  readonly sizes: readonly number[];
  readonly border: number;
}

export function layoutOf(days: readonly DeskDay[]): DeskLayout {
  const seen = new Map<string, { kind: UnknownKind; homes: Set<string> }>();
  for (const { home, shared } of days)
    for (const { key, kind } of shared) {
      const known = seen.get(key);
      if (known) known.homes.add(home);
      else seen.set(key, { kind, homes: new Set([home]) });
    }
  const blocks = new Map<string, number>();
  const sizes: number[] = [];
  let border = 0;
  const places: Place[] = [];
  const unknowns: SharedUnknown[] = [];
  for (const [key, { kind, homes }] of seen) {
    unknowns.push({ key, kind });
    if (homes.size > 1) {
      places.push({ block: -1, at: border });
      border += 1;
      continue;
    }
    const [home] = homes;
    const block = blocks.get(there(home)) ?? sizes.push(0) - 1;
    blocks.set(there(home), block);
    places.push({ block, at: nth(sizes, block) });
    sizes[block]! += 1;
  }
  return { unknowns, places, indexOf: new Map(unknowns.map(({ key }, i) => [key, i])), sizes, border };
}
