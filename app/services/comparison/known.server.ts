import { knownFrom, type Known } from "#core/planning";
import { tellableOf } from "#core/compare";
import type { Database } from "#db/client";
import { comparedTests, titleOf } from "./desk.server";

/** Whom a plan is for: a bike as it is set up, and who rides; null where that is not chosen yet. */
export interface KnownAsk {
  readonly bikeId: string;
  readonly setUpId: string | null;
  readonly riderId: string | null;
}

/** What the desk tells a forecast of a bike and its rider. */
export async function knownOf(db: Database, { bikeId, setUpId, riderId }: KnownAsk): Promise<Known> {
  const { tests, shelf, posterior } = await comparedTests(db, { bikeId });
  const setUp = (setUpId && shelf.setUps.get(setUpId)) || null;
  const compared = tests.map((each) => each.compared);
  return knownFrom(posterior, {
    mount: { bikeId, setUp },
    riderId,
    tests: compared.map(({ ridden }) => ridden),
    // What takes another ride is what the plan is for.
    tellable: tellableOf(posterior, compared)
      .filter(({ taking }) => taking.instead)
      .map((each) => ({ ...each, test: titleOf(tests, each.testId) })),
  });
}
