import { data } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { entrySchema } from "#core/log";
import { appendEntries } from "#db/log";
import { listRides } from "#db/tests";
import type { Route } from "./+types/entries";

const batchSchema = z.object({
  rideId: z.uuid(),
  entries: z.array(entrySchema).min(1).max(500, "At most 500 entries go out at once."),
});

/** Takes a batch of a ride's entries, all or none. An entry that is there already changes nothing. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, "There is no such test.");
  const parsed = batchSchema.safeParse(await request.json().catch(() => null));
  if (!parsed.success)
    return data({ sentences: parsed.error.issues.map(({ message }) => message) }, { status: 400 });
  const { rideId, entries } = parsed.data;
  const rides = await listRides(db, testId);
  if (!rides.some(({ id }) => id === rideId))
    return data({ sentences: ["This ride is not of this test."] }, { status: 404 });
  await appendEntries(db, rideId, entries);
  return { kept: entries.map(({ id }) => id) };
}
