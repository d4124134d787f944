import type { TestResults } from "#core/analysis";

/** Where an entry of the log lies along the test. */
export interface Place {
  readonly distanceM: number;
  /** Put between its neighbours for want of a distance of its own. */
  readonly between: boolean;
}

/** A mark as the strip needs it. */
export interface StripMark {
  readonly ride: number;
  /** Along the whole test. */
  readonly distanceM: number;
  /** Along its own ride. */
  readonly alongM: number;
  readonly notes: readonly string[];
}

/** What the strip page needs of a test's results: all figures, and of the course only what is drawn. */
export interface StripResults extends Omit<TestResults, "course"> {
  readonly legs: TestResults["course"]["legs"];
  readonly marks: readonly StripMark[];
  /** Place of each entry, by its root id. */
  readonly places: Readonly<Record<string, Place>>;
}

/** Drops the log's entries from the results: the page holds them once, beside. */
export function stripResults({ course, ...figures }: TestResults): StripResults {
  const places = course.marks.flatMap(({ entries, distanceM, source }) =>
    entries.map(({ rootId }) => [rootId, { distanceM, between: source === "between" }] as const),
  );
  const starts = new Map<number, number>();
  for (const { ride, distanceM } of course.marks) if (!starts.has(ride)) starts.set(ride, distanceM);
  return {
    ...figures,
    legs: course.legs,
    marks: course.marks.map(({ ride, distanceM, entries }) => ({
      ride,
      distanceM,
      alongM: distanceM - starts.get(ride)!,
      notes: entries.flatMap(({ body }) => ("note" in body && body.note ? [body.note] : [])),
    })),
    places: Object.fromEntries([
      ...course.asides.map(({ rootId, ...place }) => [rootId, place] as const),
      ...places,
    ]),
  };
}

/** Digits that no screen shows, dropped to halve what is sent: seven significant ones are kept. */
export function lighter<T>(value: T): T {
  if (typeof value === "number") return (Number.isInteger(value) ? value : Number(value.toPrecision(7))) as T;
  if (Array.isArray(value)) return value.map(lighter) as T;
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, lighter(inner)])) as T;
}
