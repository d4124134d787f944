import {
  bridgeTo,
  differenceTraced,
  onceWeighed,
  pooledTraced,
  underReference,
  untraced,
} from "#core/compare";
import type { Reference } from "#core/roadload";
import type { Database } from "#db/client";
import { comparedTests } from "./desk.server";

/** The way of one test to a reference; null when there is no such test, or it has no figure. */
export async function bridgeOf(db: Database, id: string, reference: Reference) {
  const [test] = (await comparedTests(db, { ids: [id] })).tests;
  if (!test) return null;
  const { line, compared } = test;
  return {
    line: { id: line.id, test: line.test, bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
    compared,
    bridge: bridgeTo(compared, reference),
    weighed: onceWeighed(compared, reference),
  };
}

/** Both sides of a pair under one reference, and their difference; what cannot be brought there, with why. */
export async function pairUnder(
  db: Database,
  sides: { readonly a: readonly string[]; readonly b: readonly string[] },
  reference: Reference,
) {
  const { tests } = await comparedTests(db, { ids: [...sides.a, ...sides.b] });
  const brought = [sides.a, sides.b].map((ids) =>
    tests.filter(({ line }) => ids.includes(line.id)).map((test) => underReference(test.compared, reference)),
  );
  const [a, b] = brought.map((each) => each.flatMap((found) => (found.ok ? [found.value.traced] : [])));
  return {
    under:
      a?.length && b?.length
        ? {
            a: untraced(pooledTraced(a)),
            b: untraced(pooledTraced(b)),
            difference: untraced(differenceTraced(pooledTraced(a), pooledTraced(b))),
          }
        : null,
    notBrought: brought
      .flat()
      .flatMap((each) => (each.ok ? [] : each.problems.map(({ sentence }) => sentence))),
  };
}
