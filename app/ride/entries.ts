import { data } from "react-router";
import { dbContext } from "#app/context";
import { principalContext } from "#app/services/people/principal";
import { idOf } from "#app/ui/require.server";
import { NO_SUCH_YEAR } from "#core/base";
import { isTimely } from "#core/ride/log";
import { appendEntries } from "#db/log";
import { phoneSeen } from "#db/people/phones";
import { isRideOf } from "#db/tests";
import { batchSchema, clockOffset } from "./batch";
import type { Route } from "./+types/entries";

/** The server's clock, for a page that checks its own. */
export function loader() {
  return Response.json({ now: Date.now() }, { headers: { "cache-control": "no-store" } });
}

/**
 * Takes a batch of a ride's entries, all or none. The answer says of each whether it was kept, was there just so, or is
 * there as something else. Times whose clock nobody checked are set against the server's: the difference is kept beside
 * each.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const now = Date.now();
  const testId = idOf(params.testId, "There is no such test.");
  const parsed = batchSchema.safeParse(await request.json().catch(() => null));
  if (!parsed.success)
    return data({ sentences: parsed.error.issues.map(({ message }) => message) }, { status: 400 });
  const { rideId, sentAt, entries } = parsed.data;
  if (!(await isRideOf(db, rideId, testId)))
    return data({ sentences: ["This ride is not of this test."] }, { status: 404 });
  const offsetS = sentAt === undefined ? undefined : clockOffset(Date.parse(sentAt), now);
  const timed = entries.map((entry) =>
    entry.at === null || entry.clockOffsetS !== undefined || offsetS === undefined
      ? entry
      : { ...entry, clockOffsetS: offsetS },
  );
  if (!timed.every(isTimely)) return data({ sentences: [NO_SUCH_YEAR] }, { status: 400 });
  const verdicts = await appendEntries(db, rideId, timed);
  const principal = context.get(principalContext);
  const waiting = parsed.data.waiting ?? 0;
  if (principal.kind === "phone" && principal.waiting !== waiting)
    await phoneSeen(db, principal.phoneId, waiting);
  return { verdicts };
}
