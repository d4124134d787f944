import type { Bike, PackRecord, TestRecord } from "#core/records";
import type { TestResults } from "#core/analysis";
import type { Compared } from "./compared.ts";

/** A record with its results. */
export interface Reckoned {
  readonly record: TestRecord;
  readonly results: TestResults;
}

const marksOfBike = ({ name, massKg, motor, motorW }: Bike) => [name, massKg, motor, motorW];
const marksOfPack = ({ name, chemistry, labelWh, ampHours, seriesCells }: PackRecord) => [
  name,
  chemistry,
  labelWh,
  ampHours,
  seriesCells,
];

/**
 * Tests out of a file, where bikes, riders and packs have no ids: two that are called alike, weigh alike and hold alike are
 * the same one, whatever else was noted of them.
 *
 * @returns in the order given, each under its place as id
 */
export function comparedOf(tests: readonly Reckoned[]): readonly Compared[] {
  const ids = new Map<string, string>();
  const idOf = (what: string, body: unknown) => {
    const key = `${what} ${JSON.stringify(body)}`;
    const known = ids.get(key) ?? `${what} ${ids.size + 1}`;
    ids.set(key, known);
    return known;
  };
  return tests.map(({ record: { test, bike, setUp, rider, pack }, results }, i) => ({
    id: String(i),
    bikeId: idOf("bike", marksOfBike(bike)),
    riderId: rider && idOf("rider", [rider.name, rider.massKg]),
    packId: idOf("pack", [marksOfBike(bike), marksOfPack(pack)]),
    ridden: { test, bike, setUp, rider, results },
  }));
}
