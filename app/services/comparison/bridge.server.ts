import {
  bridgeTo,
  differenceTraced,
  drawableOf,
  subjectOf,
  underReference,
  untraced,
  whatWouldSettle,
  worthOf,
} from "#core/compare";
import type { Reference } from "#core/bike";
import type { Database } from "#db/client";
import { comparedTests, type ComparedTest } from "./desk.server";

/** Things that would settle a figure, as many as a page names. */
const MOST_SETTLING = 6;

/** The way of one test to a reference; null when there is no such test, or it has no figure. */
export async function bridgeOf(db: Database, id: string, reference: Reference) {
  const { tests, posterior } = await comparedTests(db);
  const test = tests.find(({ line }) => line.id === id);
  if (!test) return null;
  const { line, compared } = test;
  const bridge = bridgeTo(posterior, compared, reference);
  const own = tests.filter((each) => each.line.bikeId === line.bikeId).map((each) => each.compared);
  return {
    line: { id: line.id, test: line.test, bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
    bridge,
    tests: own.length,
    drawable: drawableOf(posterior, subjectOf(compared), reference),
    settles: bridge.ok
      ? whatWouldSettle(posterior, bridge.value.under.traced, own)
          .slice(0, MOST_SETTLING)
          .map((each) => ({ ...each, test: titleOf(tests, each.testId) }))
      : [],
  };
}

const titleOf = (tests: readonly ComparedTest[], id: string) =>
  tests.find(({ line }) => line.id === id)?.line.test.title ?? "";

/** What else differed between the first tests of two sides, each with its worth by the road load. */
export async function pairWorth(db: Database, a: string, b: string) {
  const { tests, posterior } = await comparedTests(db, { ids: [a, b] });
  const of = (id: string) => tests.find(({ line }) => line.id === id)?.compared;
  const [first, second] = [of(a), of(b)];
  return first && second && first !== second ? worthOf(posterior, first, second) : [];
}

/** Both sides of a pair under one reference, their difference, and what would settle it; what cannot be brought there, with why. */
export async function pairUnder(
  db: Database,
  sides: { readonly a: readonly string[]; readonly b: readonly string[] },
  reference: Reference,
) {
  const { tests, posterior } = await comparedTests(db, { ids: [...sides.a, ...sides.b] });
  const brought = [sides.a, sides.b].map((ids) =>
    tests
      .filter(({ line }) => ids.includes(line.id))
      .map(({ compared }) => underReference(posterior, compared, reference)),
  );
  // All tests of a side have spoken already: any one of them tells its bike's figure.
  const [a, b] = brought.map((each) => each.flatMap((found) => (found.ok ? [found.value.traced] : []))[0]);
  const difference = a && b && differenceTraced(a, b);
  return {
    under: difference ? { a: untraced(a), b: untraced(b), difference: untraced(difference) } : null,
    settles: difference
      ? whatWouldSettle(
          posterior,
          difference,
          tests.map(({ compared }) => compared),
        )
          .slice(0, MOST_SETTLING)
          .map((each) => ({ ...each, test: titleOf(tests, each.testId) }))
      : [],
    notBrought: brought
      .flat()
      .flatMap((each) => (each.ok ? [] : each.problems.map(({ sentence }) => sentence))),
  };
}
