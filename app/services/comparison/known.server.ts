import { knownFrom, type Known } from "#core/plan";
import type { Database } from "#db/client";
import { comparedTests } from "./desk.server";

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
  const ridden = tests.map(({ compared }) => compared.ridden);
  return knownFrom(posterior, { bikeId, setUp }, riderId, ridden);
}
