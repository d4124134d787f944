import { found, idOf } from "#app/ui/require.server";
import { findBike, listBenches, listPacks } from "#db/bikes";
import type { Database } from "#db/client";

const GONE = "There is no such bench test.";

/** Bike, pack and bench discharge of an address; the discharge is null for a new one. */
export async function benchAt(
  db: Database,
  params: { readonly bikeId: string; readonly packId: string; readonly benchId: string },
) {
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const packId = idOf(params.packId, GONE);
  const pack = found(
    (await listPacks(db, bike.id, { archived: true })).find(({ id }) => id === packId),
    GONE,
  );
  if (params.benchId === "new") return { bike, pack, bench: null };
  const id = idOf(params.benchId, GONE);
  const bench = found(
    (await listBenches(db, pack.id)).find((each) => each.id === id),
    GONE,
  );
  return { bike, pack, bench };
}
