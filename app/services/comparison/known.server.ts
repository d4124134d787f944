import { knownFrom, type Known } from "#core/plan";
import type { Database } from "#db/client";
import { derivedOf } from "../derived.server";
import { comparedTests } from "./desk.server";

/** What a bike's earlier tests tell a forecast; tests with a reading in question tell nothing. */
export async function knownOf(db: Database, bikeId: string): Promise<Known> {
  const { tests } = await comparedTests(db, { bikeId });
  const sound = tests.filter(({ digest }) => digest.questions === 0);
  return derivedOf(
    db,
    "known",
    sound.map(({ line }) => [line.id, line.stamp]),
    () => knownFrom(sound.map(({ compared }) => compared.ridden)),
  );
}
