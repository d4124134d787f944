import type { Reading } from "#core/battery/readings";
import type { Ground, Side } from "#core/fields";
import type { ReadingField, StrikeField } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import type { DistanceBasis, PlaceSource } from "./places.ts";

/** A moment with a distance along the test. Several entries at one place and ride make one mark. */
export interface Mark {
  readonly index: number;
  readonly ride: number;
  /** Along the whole test, m. */
  readonly distanceM: number;
  readonly source: PlaceSource;
  readonly timeS: number | null;
  readonly entries: readonly LiveEntry[];
}

/** The way between two marks: one level, one ground. */
export interface Leg {
  readonly from: number;
  readonly to: number;
  readonly distanceM: number;
  readonly level: string;
  readonly ground: Ground;
  /** Section of the course, where one was named; else empty. */
  readonly section: string;
  /** Which of two that are put against each other; null outside such runs. */
  readonly side: Side | null;
  readonly gainM: number;
  readonly lossM: number;
  /** The pack was charged here; a ride that begins elsewhere may still have a distance of its own. */
  readonly charged: boolean;
}

/** A reading at a mark, with the entry and field it came from. */
export interface LoggedReading {
  readonly reading: Reading;
  readonly rootId: string;
  readonly field: ReadingField | null;
  readonly struck: boolean;
}

/** A slip that the order of the log gives away, whatever the ledger says. */
export interface LogSlip {
  readonly rootId: string;
  /** What of the entry; null for the entry itself. */
  readonly field: StrikeField | null;
  readonly sentence: string;
}

export interface Timeline {
  readonly marks: readonly Mark[];
  readonly legs: readonly Leg[];
  readonly readings: readonly LoggedReading[];
  /** Distance basis of each ride. */
  readonly bases: readonly DistanceBasis[];
  /** Where full power ended by hand, along the whole test. */
  readonly handMarks: readonly { readonly rootId: string; readonly distanceM: number }[];
  /** Entries that make no mark, such as stops and notes: where they stand along the whole test, m. */
  readonly asides: readonly {
    readonly rootId: string;
    readonly distanceM: number;
    /** Put there for want of a distance of its own. */
    readonly between: boolean;
  }[];
  /** Ridden on after the end, m: no part of the range, nor of what a mile took. */
  readonly afterEndM: number;
  /** What cannot be where it stands in the log: a distance is placed between its neighbours, a bar is not counted. */
  readonly slips: readonly LogSlip[];
  /** How often bars came back at rest. */
  readonly rebounds: number;
  /** What was left out or taken otherwise than written, in sentences. */
  readonly notices: readonly string[];
}
