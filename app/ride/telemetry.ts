import { data } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { telemetrySchema } from "#core/records";
import { addSamples } from "#db/telemetry";
import { listRides } from "#db/tests";
import type { Route } from "./+types/telemetry";

const bodySchema = z.object({ rideId: z.uuid(), record: telemetrySchema });

/** Takes a row of a device's samples; one that is there already changes nothing. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, "There is no such test.");
  const parsed = bodySchema.safeParse(await request.json().catch(() => null));
  if (!parsed.success)
    return data({ sentences: parsed.error.issues.map(({ message }) => message) }, { status: 400 });
  const { rideId, record } = parsed.data;
  if (!(await listRides(db, testId)).some(({ id }) => id === rideId))
    return data({ sentences: ["This ride is not of this test."] }, { status: 404 });
  await addSamples(db, rideId, record);
  return { kept: record.timeS.length };
}
