import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, redirect } from "react-router";
import { z } from "zod";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import type { Database } from "#db/client";
import { chooseImport } from "#db/telemetry";
import { addRide, listRides } from "#db/tests";
import { leftOut } from "#core/base";
import { foldLog } from "#core/ride/log";
import { listEntries } from "#db/log";
import { loadRecord } from "#db/record";
import { entryForm } from "./entryForm";
import { clientId, judge, keepEntry, markFullPowerEnd } from "./log.server";
import { lastMoment, momentOf } from "./moment";

const GONE = "There is no such test.";

const alongTheRide = z.coerce.number().min(0).max(1_000_000);

/** What a page of a test sends: a check-in or its correction, a judgement, a mark by hand, a ride more, the logger that counts. */
export async function actOnTest(db: Database, testId: string, request: Request) {
  const record = found(await loadRecord(db, testId), GONE);
  const rides = await listRides(db, testId);
  const form = await request.formData();
  const here = href("/strip/:testId", { testId });
  const back = () => redirect(`${here}${new URL(request.url).search}`);
  const intent = form.get("intent");
  if (intent === "addRide") {
    await addRide(db, clientId(form.get("nextRideId")), testId, "");
    return redirect(here);
  }
  const ride = found(
    rides.find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  if (intent === "countLogger") {
    const chosen = idOf(String(form.get("import")), "There is no such recording.");
    if (!(await chooseImport(db, ride.id, chosen)))
      throw data("There is no such recording.", { status: 404 });
    return back();
  }
  const entryId = clientId(form.get("entryId"));
  const sentTarget = form.get("supersedes");
  const supersedes =
    typeof sentTarget === "string" && sentTarget !== "" ? idOf(sentTarget, "There is no such entry.") : null;
  const [judgement, target, field] = String(form.get("judge") ?? "").split("/");
  if (judgement === "strike" || judgement === "restore") {
    await judge(db, ride.id, entryId, judgement, idOf(target, "There is no such entry."), field);
    return back();
  }
  if (intent === "handMark") {
    const along = alongTheRide.safeParse(form.get("alongM"));
    if (!along.success) throw data("Put the cursor on a mark of the strip first.", { status: 400 });
    await markFullPowerEnd(db, ride.id, entryId, along.data, supersedes);
    return back();
  }
  const system = systemOf(request);
  const submission = parseWithZod(form, { schema: entryForm(system), disableAutoCoercion: true });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const { time } = submission.value;
  const { day } = record.test;
  const noTime = time === "" ? null : leftOut(day, time, ride.zone);
  if (noTime) return data(submission.reply({ fieldErrors: { time: [noTime] } }), { status: 400 });
  const lastMs = lastMoment(foldLog(await listEntries(db, ride.id)), supersedes);
  const problems = await keepEntry(
    db,
    record,
    {
      id: entryId,
      rideId: ride.id,
      at: momentOf(day, time, ride.zone, lastMs),
      typed: submission.value,
      supersedes,
    },
    system,
  );
  if (problems.length) {
    const fieldErrors: Record<string, string[]> = {};
    for (const { path, sentence } of problems) fieldErrors[path] = [...(fieldErrors[path] ?? []), sentence];
    return data(submission.reply({ fieldErrors }), { status: 400 });
  }
  return redirect(here);
}
