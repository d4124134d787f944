import { compute } from "#app/services/compute/pool.server";
import type { FileToKeep } from "#app/services/recordings/keepFile";
import { found, idOf } from "#app/ui/require.server";
import type { Database } from "#db/client";
import { findTest, listRides } from "#db/tests";

const GONE = "There is no such test.";

/** The test, its rides, and the ride a recording is for: the one asked for, else the last. */
export async function ridesOf(db: Database, testId: string | undefined, request: Request) {
  const test = found(await findTest(db, idOf(testId, GONE)), GONE);
  const rides = await listRides(db, test.id);
  const asked = new URL(request.url).searchParams.get("ride");
  return { test, rides, rideId: (rides.find(({ id }) => id === asked) ?? rides.at(-1)!).id };
}

/** The ride a form names. */
export async function rideNamed(db: Database, testId: string | undefined, rideId: unknown) {
  const rides = await listRides(db, idOf(testId, GONE));
  return found(
    rides.find(({ id }) => id === rideId),
    "There is no such ride in this test.",
  );
}

/** Keeps a recording beside its ride, in a thread. Returns why not, empty when it was kept. */
export async function keepRecording(
  db: Database,
  recording: Omit<FileToKeep, "logger">,
  form: FormData,
  signal: AbortSignal,
): Promise<readonly string[]> {
  const logger = String(form.get("logger") ?? "").trim() || "logger";
  return compute(db, "keepFile", { ...recording, logger }, signal);
}
