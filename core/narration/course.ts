import type { Found } from "./found.ts";
import type { Reason } from "./kills.ts";
import type { Quantity } from "./quantities.ts";

/** Something read already, as far as the course of the ride goes. */
export interface Read {
  readonly kind: string;
  readonly value: Found["value"];
  readonly unit: string | null;
  readonly of: Found["of"] | null;
  readonly at: number;
}
/** A figure that was left out, with why. */
export interface Unread {
  readonly quantity: Quantity;
  readonly because: Reason;
}

/** Between what two readings of a kind something was said: the last one before, and the first one after. */
interface Between {
  readonly before: number | null;
  readonly after: number | null;
}

/** How much farther one reading may be than the last, when none comes after it. */
export const farthest = (from: number) => from + Math.max(8, from * 0.4);
/** Words within which a difference or a rest belongs to a reading. */
const BESIDE_WORDS = 14;
/** Fewer readings of a kind make no course. */
export const FEWEST = 2;

export const figureOf = ({ value }: Pick<Read, "value">) => (typeof value === "number" ? value : null);

/** All that is read, by the charge it was ridden on and by kind, each in the order it was said. */
export class Course {
  private readonly fulls: readonly number[];
  private readonly byKind = new Map<string, Read[]>();

  constructor(read: readonly Read[]) {
    this.fulls = read.filter(({ kind }) => kind === "full_charge").map(({ at }) => at);
    for (const each of read) {
      const own = this.byKind.get(each.kind) ?? [];
      own.push(each);
      this.byKind.set(each.kind, own);
    }
  }

  of(kind: string): readonly Read[] {
    return this.byKind.get(kind) ?? [];
  }

  /** What is read of one kind on the charge that is ridden at a place in the text. */
  at(kind: string, at: number): Between & { readonly count: number } {
    const began = this.fulls.findLast((each) => each <= at) ?? 0;
    const ends = this.fulls.find((each) => each > at) ?? Infinity;
    let [before, after, count]: [number | null, number | null, number] = [null, null, 0];
    for (const each of this.of(kind)) {
      const figure = figureOf(each);
      if (figure === null || each.at < began || each.at >= ends) continue;
      count += 1;
      if (each.at < at) before = figure;
      else if (each.at > at) after ??= figure;
    }
    return { before, after, count };
  }

  /** What is read of one kind within a few words of a place. */
  beside(kind: string, at: number): readonly Read[] {
    return this.of(kind).filter((each) => Math.abs(each.at - at) <= BESIDE_WORDS);
  }
}
