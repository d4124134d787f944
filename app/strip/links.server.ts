import { listPacks, listRiders, listSetUps } from "#db/bikes";
import type { Database } from "#db/client";
import type { TestLinks } from "#db/tests";

/** What a test links to that is not there, or not of its bike, by field; null when all is well. */
export async function linkProblems(
  db: Database,
  { bikeId, packId, secondPackId, setUpId, riderId }: TestLinks,
): Promise<Record<string, string[]> | null> {
  const all = { archived: true };
  const [packs, setUps, riders] = await Promise.all([
    listPacks(db, bikeId, all),
    listSetUps(db, bikeId, all),
    listRiders(db, all),
  ]);
  const missing = (rows: readonly { readonly id: string }[], id: string | null) =>
    id !== null && !rows.some((row) => row.id === id);
  const problems = {
    ...(missing(packs, packId) && { packId: ["This bike has no such pack: choose one of its own."] }),
    ...(missing(packs, secondPackId) && {
      secondPackId: ["This bike has no such pack: choose one, or none."],
    }),
    ...(missing(setUps, setUpId) && { setUpId: ["This bike has no such set-up: choose one of its own."] }),
    ...(missing(riders, riderId) && { riderId: ["There is no such rider: choose one, or none."] }),
  };
  return Object.keys(problems).length ? problems : null;
}
