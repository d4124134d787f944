import {
  boardOf,
  chanceLess,
  bridgeTo,
  differenceOf,
  drawableOf,
  neighbourOf,
  subjectOf,
  normaliseTo,
  combine,
  whatWouldSettle,
  whyUnder,
  worthOf,
  type Compared,
  type ErrorComponents,
} from "#core/compare";
import type { DeskPosterior } from "#core/desk";
import type { Reference } from "#core/bike";
import type { Database } from "#db/client";
import { COMMON_WH } from "./ask";
import { comparedTests, titleOf, type ComparedTest, type DeskRecords } from "./desk.server";
import { figureAhead, rememberedFigure } from "./figures.server";
import { entryOf } from "./standings.server";

/** Things that would settle a figure, as many as a page names. */
const MOST_SETTLING = 6;

/** What would settle a figure, each with its test's title. */
const settlesFor = (
  desk: DeskPosterior,
  figure: ErrorComponents,
  told: readonly Compared[],
  tests: readonly ComparedTest[],
) =>
  whatWouldSettle(desk, figure, told)
    .slice(0, MOST_SETTLING)
    .map((each) => ({ ...each, test: titleOf(tests, each.testId) }));

/** A bike's place under a reference among those driven alike, and what would settle it against the one it is least sure of. */
async function rankOf(
  desk: DeskPosterior,
  { line }: ComparedTest,
  reference: Reference,
  { tests, shelf }: { readonly tests: readonly ComparedTest[]; readonly shelf: DeskRecords },
) {
  const alike = tests.filter((each) => each.line.test.drive === line.test.drive);
  const ask = { reference, measure: "whPerMi", level: "whole ride", ground: null } as const;
  await figureAhead(
    desk,
    alike.map(({ compared }) => compared),
    ask,
  );
  const { rows } = boardOf(
    desk,
    alike.map(entryOf(shelf, tests)),
    { ...ask, by: "set-up", commonWh: COMMON_WH },
    rememberedFigure,
  );
  const own = rows.find(({ testIds }) => testIds.includes(line.id));
  const neighbour = own && neighbourOf(own.figure, rows.filter((row) => row !== own)); // prettier-ignore
  if (!own || !neighbour) return null;
  const other = tests.find(({ line: { id } }) => id === neighbour.row.testIds[0])!;
  const told = [...own.testIds, ...neighbour.row.testIds];
  const both = tests.filter(({ line: { id } }) => told.includes(id)).map(({ compared }) => compared);
  return {
    place: neighbour.place,
    of: rows.length,
    ...{ bike: other.line.bikeName, setUp: other.line.setUpName, before: neighbour.before },
    ...{ chance: neighbour.chance, certainty: neighbour.certainty },
    sd: combine(neighbour.difference).sd,
    settles: settlesFor(desk, neighbour.difference, both, tests),
  };
}

/** The way of one test to a reference; null when there is no such test, or it has no figure. */
export async function bridgeOf(db: Database, id: string, reference: Reference) {
  const { tests, shelf, posterior } = await comparedTests(db, { also: id });
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
    settles: bridge.ok ? settlesFor(posterior, bridge.value.under.traced, own, tests) : [],
    rank: bridge.ok ? await rankOf(posterior, test, reference, { tests, shelf }) : null,
  };
}

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
      .map(({ compared }) => normaliseTo(posterior, compared, reference)),
  );
  // All tests of a side have spoken already: any one of them tells its bike's figure.
  const [a, b] = brought.map((each) => each.flatMap((found) => (found.ok ? [found.value.traced] : []))[0]);
  const difference = a && b && differenceOf(a, b);
  const [first, second] = [sides.a, sides.b].map(
    ([id]) => tests.find(({ line }) => line.id === id)?.compared,
  );
  return {
    under: difference
      ? { a: combine(a), b: combine(b), difference: combine(difference), chanceA: chanceLess(a, b) }
      : null,
    why: first && second ? whyUnder(posterior, first, second, reference) : [],
    settles: difference
      ? settlesFor(
          posterior,
          difference,
          tests.map(({ compared }) => compared),
          tests,
        )
      : [],
    notBrought: brought
      .flat()
      .flatMap((each) => (each.ok ? [] : each.problems.map(({ sentence }) => sentence))),
  };
}
