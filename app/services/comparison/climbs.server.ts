import { climbFigures, type ClimbFigures } from "#core/compare";
import type { Result } from "#core/base";
import type { ClimbRecord } from "#core/records";
import type { Database } from "#db/client";
import { listClimbs } from "#db/field";
import type { Unreadable } from "#db/unreadable";
import { comparedTests, ridingOf } from "./desk.server";

/** One run up a hill with its figures. */
export interface HillRun {
  readonly id: string;
  readonly bike: string;
  readonly setUp: string | null;
  readonly climb: ClimbRecord;
  readonly figures: Result<ClimbFigures>;
}

/** Those whose energy is known by what a metre up took; behind them, by their time, those that were timed alone. */
function byCost(a: HillRun, b: HillRun): number {
  const costOf = ({ figures }: HillRun) => (figures.ok && figures.value.whPerVerticalM?.mean) || Infinity;
  const [x, y] = [costOf(a), costOf(b)];
  return x === y ? a.climb.timeS - b.climb.timeS : x - y;
}

/** Runs by hill, the least energy a metre up first, and the loops that climb. */
export async function climbsOf(db: Database) {
  const unreadable: Unreadable[] = [];
  const [lines, { tests, shelf }] = await Promise.all([listClimbs(db, { unreadable }), comparedTests(db)]);
  const runs = lines.flatMap((line): readonly HillRun[] => {
    const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
    if (!riding || !pack) return [];
    const figures = climbFigures(line.body, riding, pack);
    return [{ id: line.id, bike: line.bikeName, setUp: line.setUpName, climb: line.body, figures }];
  });
  const hills = [...new Set(runs.map(({ climb }) => climb.hill))].map((hill) => ({
    hill,
    runs: runs.filter(({ climb }) => climb.hill === hill).sort(byCost),
  }));
  const loops = tests.flatMap(({ line, digest }) =>
    digest.quarters && (line.test.school === "vertical" || line.test.school === "run-down")
      ? [{ id: line.id, bike: line.bikeName, title: line.test.title, quarters: digest.quarters }]
      : [],
  );
  return { hills, loops: loops.slice(0, MOST_LOOPS), unreadable };
}

/** Loops that are shown, the newest first. */
const MOST_LOOPS = 60;
