import { firstNotBefore, nth } from "#core/base";
import type { Found } from "./found.ts";
import type { Reason } from "./kills.ts";
import { FULL, startsOf } from "./ride.ts";
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

/** A figure of a reading, where it was said. */
interface Said {
  readonly at: number;
  readonly figure: number;
}

/** The first of some, in the order they were said, that does not come before a place. */
const firstFrom = (said: readonly Said[], at: number) =>
  firstNotBefore(said.length, (i) => nth(said, i).at < at);

/** All that is read, by the charge it was ridden on and by kind, each in the order it was said. */
export class Course {
  private readonly fulls: readonly number[];
  /** Full packs, and part charges: what is left begins anew there, the way does not. */
  private readonly charges: readonly number[];
  private readonly byKind = new Map<string, Read[]>();
  private readonly figures = new Map<string, Said[]>();

  constructor(read: readonly Read[]) {
    const starts = (parts: boolean) => startsOf(read, { parts }).map(({ at }) => at);
    [this.fulls, this.charges] = [starts(false), starts(true)];
    for (const each of read) {
      const own = this.byKind.get(each.kind) ?? [];
      own.push(each);
      this.byKind.set(each.kind, own);
      const figure = figureOf(each);
      if (figure === null) continue;
      const figures = this.figures.get(each.kind) ?? [];
      figures.push({ at: each.at, figure });
      this.figures.set(each.kind, figures);
    }
  }

  of(kind: string): readonly Read[] {
    return this.byKind.get(kind) ?? [];
  }

  /** What is read of one kind on the charge that is ridden at a place in the text. */
  at(kind: string, at: number): Between & { readonly count: number } {
    const own = this.figures.get(kind) ?? [];
    const fulls = kind === "percent_left" || kind === "volts" ? this.charges : this.fulls;
    const full = fulls.findLast((each) => each <= at) ?? 0;
    const first = firstFrom(own, full);
    const last = own[first - 1];
    // "It's on 100, I charged it last night": said just before.
    const isOfIt = kind === "percent_left" && last && full - last.at <= BESIDE_WORDS && last.figure >= FULL;
    const low = isOfIt ? first - 1 : first;
    const high = firstFrom(own, fulls.find((each) => each > at) ?? Infinity);
    const here = firstFrom(own, at);
    const next = own[here]?.at === at ? here + 1 : here;
    return {
      before: here > low ? nth(own, here - 1).figure : null,
      after: next < high ? nth(own, next).figure : null,
      count: high - low,
    };
  }

  /** Whether one kind was read since another was, before a place. */
  between(kind: string, since: string, at: number): boolean {
    const last = this.of(since).findLast((each) => each.at < at)?.at ?? 0;
    return this.of(kind).some((each) => each.at > last && each.at < at);
  }

  /** What is read of one kind within a few words of a place. */
  beside(kind: string, at: number): readonly Read[] {
    return this.of(kind).filter((each) => Math.abs(each.at - at) <= BESIDE_WORDS);
  }
}
