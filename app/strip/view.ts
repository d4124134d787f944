import type { TestResults } from "#core/results";

/** Where an entry of the log lies along the test. */
export interface Place {
  readonly distanceM: number;
  /** Put between its neighbours for want of a distance of its own. */
  readonly between: boolean;
}

/** What the strip page needs of a test's results: all figures, and of the course only what is drawn. */
export interface StripResults extends Omit<TestResults, "course"> {
  readonly legs: TestResults["course"]["legs"];
  /** Distance of each mark, m. */
  readonly markM: readonly number[];
  /** Place of each entry, by its root id. */
  readonly places: Readonly<Record<string, Place>>;
}

/** Drops the log's entries from the results: the page holds them once, beside. */
export function stripResults({ course, ...figures }: TestResults): StripResults {
  const places = course.marks.flatMap(({ entries, distanceM, source }) =>
    entries.map(({ rootId }) => [rootId, { distanceM, between: source === "between" }] as const),
  );
  return {
    ...figures,
    legs: course.legs,
    markM: course.marks.map(({ distanceM }) => distanceM),
    places: Object.fromEntries(places),
  };
}
