import {
  boardOf,
  cheapestOption,
  packOptions,
  isHardlyKnown,
  standings,
  combine,
  MEASURE,
  type BoardEntry,
} from "#core/compare";
import type { Reference } from "#core/bike";
import type { Database } from "#db/client";
import type { StandingsAsk } from "./ask";
import { figureAhead, rememberedFigure } from "./figures.server";
import { bikesOnTwo, comparedTests, type ComparedTest, type DeskRecords } from "./desk.server";
import type { CompareRow } from "./row";

/** Rows a page shows before it is asked for all. */
const FIRST_ROWS = 60;
/** Rows it shows at most: nobody reads more, and a page holds no more. */
const MOST_ROWS = 600;
/** Tests that have no such figure and are named. */
const MOST_LEFT = 100;

/** A test as a board takes it. */
export const entryOf = (shelf: DeskRecords, tests: readonly ComparedTest[]) => {
  const runsTwo = bikesOnTwo(tests);
  const packs = [...shelf.packs.values()];
  return ({ line, digest, compared, pack }: ComparedTest): BoardEntry => ({
    compared,
    digest,
    setUpId: line.setUpId,
    pack,
    option: cheapestOption(
      packOptions(
        pack,
        packs.filter(
          ({ id, bikeId, archived }) =>
            bikeId === line.bikeId && !archived && id !== line.packId && id !== line.secondPackId,
        ),
        runsTwo.has(line.bikeId),
      ),
    ),
  });
};

/** The standings an address asks for: rows in their places, what could be swapped, and what has no such figure. */
export async function standingsOf(db: Database, ask: StandingsAsk, reference: Reference | null) {
  const { tests, shelf, posterior } = await comparedTests(db);
  const shown = tests.filter(
    ({ line }) =>
      (!ask.drive || line.test.drive === ask.drive) && (!ask.bikeId || line.bikeId === ask.bikeId),
  );
  const { measure, level, ground, by, commonWh } = ask;
  const asked = { measure, level, ground, by, commonWh, reference };
  await figureAhead(
    posterior,
    shown.map(({ compared }) => compared),
    asked,
  );
  const { rows, left } = boardOf(posterior, shown.map(entryOf(shelf, tests)), asked, rememberedFigure);
  const byId = new Map(tests.map((each) => [each.line.id, each]));
  const full = rows.map((row): CompareRow => {
    const own = row.testIds.map((id) => byId.get(id)!);
    const { line, digest } = own[0]!;
    return {
      id: row.id,
      figure: row.figure,
      testIds: row.testIds,
      bikeId: line.bikeId,
      bike: line.bikeName,
      setUp: line.setUpName,
      title:
        ask.by === "test" && !reference
          ? line.test.title
          : [...new Set(own.map((each) => each.line.setUpName ?? "set-up not noted"))].join(", "),
      drive: reference && level === "throttle" ? "throttle" : line.test.drive,
      day: line.test.day,
      value: combine(row.figure),
      isLast: !reference && isHardlyKnown(combine(row.figure)),
      plain: row.plain,
      beyond: row.beyond,
      heldMps: row.heldMps,
      pencil: digest.best.pencil,
      questions: own.reduce((sum, each) => sum + each.digest.questions, 0),
      unassistedShare: digest.noted.unassistedShare,
    };
  });
  const { places, swaps } = standings(full, MEASURE[ask.measure].better, ask.all ? MOST_ROWS : FIRST_ROWS);
  const kept = places.slice(0, ask.all ? MOST_ROWS : FIRST_ROWS);
  return {
    places: kept,
    hidden: places.length - kept.length,
    swaps: swaps.filter(({ lower }) => lower <= kept.length),
    leftOut: left.length,
    left: left.slice(0, MOST_LEFT).map(({ testId, why }) => {
      const { line } = byId.get(testId)!;
      return { id: testId, bike: line.bikeName, title: line.test.title, why };
    }),
    bikes: [...new Map(tests.map(({ line }) => [line.bikeId, line.bikeName]))].sort((a, b) =>
      a[1].localeCompare(b[1]),
    ),
    levels: ask.bikeId
      ? [
          ...new Set(
            tests
              .filter(({ line }) => line.bikeId === ask.bikeId)
              .flatMap(({ compared }) => compared.ridden.bike.levels),
          ),
        ]
      : [],
  };
}
