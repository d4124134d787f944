import { ASSUMED } from "#core/assumptions";
import type { RiddenTest } from "#core/plan";
import type { TestResults } from "#core/results";
import { REFERENCES, type Reference } from "#core/roadload";
import { listBikes, listRiders, listSetUps } from "#db/bikes";
import type { Database } from "#db/client";
import type { TestLine } from "#db/tests";

/** A test as the road load takes it, with its bare bike's mass. */
export interface Brought {
  readonly ridden: RiddenTest;
  readonly bikeKg: number;
  /** Nobody weighed the bike. */
  readonly assumedMass: boolean;
}

/** The reference an address names; null for "as ridden" and for names nobody knows. */
export function referenceNamed(name: string | null): Reference | null {
  return REFERENCES.find((each) => each.name === name) ?? null;
}

/** Tests with bike, set-up and rider, ready to be brought to a reference; by test id. */
export async function broughtOf(
  db: Database,
  lines: readonly TestLine[],
  resultOf: (id: string) => TestResults | null,
): Promise<ReadonlyMap<string, Brought>> {
  const bikeIds = [...new Set(lines.map(({ bikeId }) => bikeId))];
  const [bikes, riders, setUps] = await Promise.all([
    listBikes(db, { archived: true }),
    listRiders(db, { archived: true }),
    Promise.all(bikeIds.map((id) => listSetUps(db, id, { archived: true }))).then((each) => each.flat()),
  ]);
  return new Map(
    lines.flatMap((line) => {
      const results = resultOf(line.id);
      const bike = bikes.find(({ id }) => id === line.bikeId);
      if (!results || !bike) return [];
      const ridden: RiddenTest = {
        test: line.test,
        bike,
        setUp: setUps.find(({ id }) => id === line.setUpId) ?? null,
        rider: riders.find(({ id }) => id === line.riderId) ?? null,
        results,
      };
      return [
        [
          line.id,
          { ridden, bikeKg: bike.massKg ?? ASSUMED.bikeKg, assumedMass: bike.massKg === undefined },
        ] as const,
      ];
    }),
  );
}
