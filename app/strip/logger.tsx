import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { readUpload } from "#app/ui/forms/upload.server";
import { keepRecording, rideNamed, ridesOf } from "./recording.server";
import { RecordingForm } from "./recordingForm";
import type { Route } from "./+types/logger";

const LIMIT_BYTES = 30 * 1024 * 1024;

export function loader({ request, params, context }: Route.LoaderArgs) {
  return ridesOf(context.get(dbContext), params.testId, request);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const { form, file } = await readUpload(request, "file", LIMIT_BYTES);
  const ride = await rideNamed(db, params.testId, form.get("rideId"));
  if (!file.ok) return data({ problem: file.problems[0]!.sentence }, { status: 400 });
  const recording = { ...file.value, testId: params.testId, rideId: ride.id, format: "logger" } as const;
  const refusal = await keepRecording(db, recording, form, request.signal);
  if (refusal.length) return data({ problem: refusal.join(" ") }, { status: 400 });
  return redirect(href("/strip/:testId", { testId: params.testId }));
}

export default function LoggerPage({
  loaderData: { test, rides, rideId },
  actionData,
}: Route.ComponentProps) {
  return (
    <RecordingForm
      title="Import a logger's file"
      gives="volts and amps give the energy of each stretch between check-ins with a time."
      label="CSV of time, volts and amps"
      accept=".csv,text/csv"
      hint="One sample a row; speed too if the logger has it. Time as 2026-10-18T09:30:00Z, or in seconds since the ride's start."
      save="Save the samples"
      limitBytes={LIMIT_BYTES}
      test={test}
      rides={rides}
      rideId={rideId}
      replaces={() => ""}
      problem={actionData?.problem ?? null}
    />
  );
}
