import { derivedOf } from "../derived.server";
import { z } from "zod";
import { confounders, jointPair, type PairedTest } from "#core/compare";
import type { Side } from "#core/fields";
import type { System } from "#core/base";
import type { Database } from "#db/client";
import { listTests } from "#db/tests";
import { loadRecord } from "#db/record";

/** Tests of each side of a pair; `runs` are logs that name their own sides. */
export interface PairAsk {
  readonly a: readonly string[];
  readonly b: readonly string[];
  readonly runs: readonly string[];
}

/** Most tests of one joint ledger. */
const MOST_TESTS = 24;
/** Tests of a bike that are offered as further runs, the newest first. */
const MOST_OTHERS = 200;

/** Reads a pair's address. */
export function readPair(search: URLSearchParams): PairAsk {
  // What is no id names no test.
  const ids = (name: string) =>
    [...new Set(search.getAll(name))].filter((id) => z.uuid().safeParse(id).success).slice(0, MOST_TESTS);
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
  const loaded = await Promise.all(
    sides.flatMap(([id, side]) => {
      const line = lines.find((each) => each.id === id);
      return line && line.rehearsal === null
        ? [loadRecord(db, id).then((record) => (record ? [{ line, side, record }] : []))]
        : [];
    }),
  );
  const tests = loaded.flat();
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
      ? (await Promise.all([...bikes].map((bikeId) => listTests(db, { bikeId, limit: MOST_OTHERS }))))
          .flat()
          .filter(({ id }) => !ids.includes(id))
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
