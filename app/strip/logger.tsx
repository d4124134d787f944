import { data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { uploadedBytes } from "#app/ui/upload.server";
import { foldLog } from "#core/log";
import { compute } from "#app/services/compute/pool.server";
import { telemetrySchema } from "#core/records";
import { listEntries } from "#db/log";
import { saveTelemetry } from "#db/telemetry";
import { liesAhead, rideNamed, ridesOf } from "./recording.server";
import { RecordingForm } from "./recordingForm";
import type { Route } from "./+types/logger";

const LIMIT_BYTES = 30 * 1024 * 1024;

export function loader({ request, params, context }: Route.LoaderArgs) {
  return ridesOf(context.get(dbContext), params.testId, request);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const ride = await rideNamed(db, params.testId, form.get("rideId"));
  const file = await uploadedBytes(form.get("file"), LIMIT_BYTES);
  const times = foldLog(await listEntries(db, ride.id)).flatMap(({ timeS }) =>
    timeS === null ? [] : [timeS],
  );
  const startS = times.length ? Math.min(...times) : null;
  const logger = String(form.get("logger") ?? "").trim() || "logger";
  const { record: read, hash } = file.ok
    ? await compute(db, "readLogger", { bytes: file.value.bytes, logger, startS }, request.signal)
    : { record: file, hash: "" };
  if (!read.ok)
    return data(
      { problem: read.problems.map(({ path, sentence }) => `${path}: ${sentence}`).join(" ") },
      { status: 400 },
    );
  if (liesAhead(read.value.timeS.at(-1)))
    return data(
      { problem: "The logger's times lie in the future: check its clock, or the times in the file." },
      { status: 400 },
    );
  const record = telemetrySchema.safeParse(read.value);
  if (!record.success)
    return data({ problem: record.error.issues.map(({ message }) => message).join(" ") }, { status: 400 });
  await saveTelemetry(db, ride.id, record.data, hash);
  return redirect(`/strip/${params.testId}`);
}

export default function LoggerPage({
  loaderData: { test, rides, rideId },
  actionData,
}: Route.ComponentProps) {
  return (
    <RecordingForm
      title="Bring in a logger's file"
      gives="volts and amps give the energy of each stretch between check-ins with a time."
      label="CSV of time, volts and amps"
      accept=".csv,text/csv"
      hint="One sample a row; speed too if the logger has it. Time as 2026-10-18T09:30:00Z, or in seconds since the ride's start."
      save="Keep the samples"
      limitBytes={LIMIT_BYTES}
      test={test}
      rides={rides}
      rideId={rideId}
      replaces={() => ""}
      problem={actionData?.problem ?? null}
    />
  );
}
