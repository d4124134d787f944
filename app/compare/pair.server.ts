import { derivedOf } from "#app/reckoning.server";
import { confounders, jointPair, type PairedTest } from "#core/compare";
import type { Side } from "#core/log";
import type { System } from "#core/quantities";
import type { Database } from "#db/client";
import { listTests, loadRecord } from "#db/tests";

/** Tests of each side of a pair; `runs` are logs that name their own sides. */
export interface PairAsk {
  readonly a: readonly string[];
  readonly b: readonly string[];
  readonly runs: readonly string[];
}

/** Most tests of one joint ledger. */
const MOST_TESTS = 24;

/** Reads a pair's address. */
export function readPair(search: URLSearchParams): PairAsk {
  const ids = (name: string) => [...new Set(search.getAll(name))].slice(0, MOST_TESTS);
  return { a: ids("a"), b: ids("b"), runs: ids("runs") };
}

/** Tests of a pair with their records, and the joint ledger over all of them, cached by what it rests on. */
export async function pairOf(db: Database, ask: PairAsk, system: System) {
  const sides: readonly (readonly [string, Side | null])[] = [
    ...ask.a.map((id) => [id, "A"] as const),
    ...ask.b.map((id) => [id, "B"] as const),
    ...ask.runs.map((id) => [id, null] as const),
  ];
  const ids = sides.map(([id]) => id);
  const lines = ids.length ? await listTests(db, { ids }) : [];
  const tests = await Promise.all(
    sides.flatMap(([id, side]) => {
      const line = lines.find((each) => each.id === id);
      return line && line.rehearsal === null
        ? [loadRecord(db, id).then((record) => ({ line, side, record: record! }))]
        : [];
    }),
  );
  const paired = tests.map(({ line, side, record }): PairedTest => ({
    id: line.id,
    bikeId: line.bikeId,
    packId: line.packId,
    secondPackId: line.secondPackId,
    record,
    side,
  }));
  const joint = await derivedOf(
    db,
    "pair",
    tests.map(({ line, side }) => [line.id, line.stamp, side]),
    () => jointPair(paired),
  );
  const [first, second] = [
    tests.find(({ side }) => side !== "B"),
    tests.find(({ side }) => side !== "A" && side !== null) ?? tests.find(({ side }) => side === "B"),
  ];
  const bikes = new Set(tests.map(({ line }) => line.bikeId));
  return {
    others: bikes.size
      ? (await listTests(db))
          .filter(({ id, bikeId }) => bikes.has(bikeId) && !ids.includes(id))
          .map(({ id, bikeName, test }) => ({ id, bike: bikeName, title: test.title, day: test.day }))
      : [],
    tests: tests.map(({ line, side }) => ({
      id: line.id,
      bike: line.bikeName,
      title: line.test.title,
      day: line.test.day,
      setUp: line.setUpName,
      side,
    })),
    joint,
    paired,
    confounders: first && second && first !== second ? confounders(first.record, second.record, system) : [],
  };
}
