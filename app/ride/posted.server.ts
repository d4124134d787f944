import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { entryBodySchema, readLine, type EntryBody, type LineSetting } from "#core/ride/log";
import { dayAt, err, leftOut, momentOf, ok, type Result, type System } from "#core/base";
import { findBike } from "#db/bikes";
import { appendEntries } from "#db/log";
import { addRide, findTest, listRides } from "#db/tests";
import { readFigures } from "./figures";
import type { Route } from "./+types/ride";

const GONE = "There is no such test.";

/** An entry that was posted, and when it was: now, unless its line says another time of today. */
interface Posted {
  readonly body: EntryBody;
  readonly atMs: number;
}

/** What a form of the ride's page says, sent by itself: the line, or the large fields. */
function entryOf(form: FormData, setting: LineSetting, system: System, zone: string): Result<Posted> {
  const refused = (sentence: string): Result<never> => err("entry", "line", sentence);
  const nowMs = Date.now();
  if (form.get("intent") === "line") {
    const { body, clock, problem } = readLine(String(form.get("line") ?? ""), setting);
    const day = dayAt(nowMs, zone);
    const missing = clock && leftOut(day, clock, zone);
    if (missing) return refused(missing);
    return body
      ? ok({ body, atMs: clock ? momentOf(day, clock, zone) : nowMs })
      : refused(problem ?? "Type what you see, for example: 12.4mi 61% L2.");
  }
  const { body, problems } = readFigures(form, system);
  const [first] = Object.values(problems);
  if (first) return refused(first);
  const isStart = form.get("kind") === "start";
  const parsed = entryBodySchema.safeParse({
    ...body,
    kind: isStart ? "start" : "checkIn",
    ...(isStart && { chargerDone: form.get("full") === "on" }),
  });
  return parsed.success ? ok({ body: parsed.data, atMs: nowMs }) : refused(parsed.error.issues[0]!.message);
}

/**
 * Logs what a form of a ride's page sent by itself, before or without script, at the moment it came; or adds a ride.
 *
 * @returns the sentence about what cannot be read; null when it is done
 */
export async function actOnRide({ request, params, context }: Route.ActionArgs): Promise<string | null> {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const form = await request.formData();
  const intent = form.get("intent");
  if (intent !== "line" && intent !== "figures") {
    await addRide(db, madeId(request), line.id, "");
    return null;
  }
  const rides = await listRides(db, line.id);
  const asked = new URL(request.url).searchParams.get("ride");
  const ride = found(rides.find(({ id }) => id === asked) ?? rides.at(-1), "This test has no ride yet.");
  const { levels, throttle } = found(await findBike(db, line.bikeId), GONE);
  const posted = entryOf(form, { levels, throttle }, systemOf(request), ride.zone);
  if (!posted.ok) return posted.problems[0]!.sentence;
  const { body, atMs } = posted.value;
  const entry = {
    id: madeId(request),
    seq: 0,
    at: new Date(atMs).toISOString(),
    body,
    supersedes: null,
  };
  await appendEntries(db, ride.id, [entry]);
  return null;
}
