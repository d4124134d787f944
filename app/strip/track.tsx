import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { readUpload } from "#app/ui/forms/upload.server";
import { keepRecording, rideNamed, ridesOf } from "./recording.server";
import { RecordingForm } from "./recordingForm";
import type { Route } from "./+types/track";

const LIMIT_BYTES = 30 * 1024 * 1024;

export function loader({ request, params, context }: Route.LoaderArgs) {
  return ridesOf(context.get(dbContext), params.testId, request);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const { form, file } = await readUpload(request, "file", LIMIT_BYTES);
  const ride = await rideNamed(db, params.testId, form.get("rideId"));
  if (!file.ok) return data({ problem: file.problems[0]!.sentence }, { status: 400 });
  const recording = { ...file.value, testId: params.testId, rideId: ride.id, format: "track" } as const;
  const refusal = await keepRecording(db, recording, form, request.signal);
  if (refusal.length) return data({ problem: refusal.join(" ") }, { status: 400 });
  return redirect(href("/strip/:testId", { testId: params.testId }));
}

export default function TrackPage({ loaderData: { test, rides, rideId }, actionData }: Route.ComponentProps) {
  return (
    <RecordingForm
      title="Import a track"
      gives="the recording gives distance, moving time, speed and climb."
      label="GPX 1.1 file of the ride"
      accept=".gpx,application/gpx+xml"
      hint="Check-ins with a time take their distance from the track; those with a display distance show how far off the display is."
      save="Save the track"
      limitBytes={LIMIT_BYTES}
      test={test}
      rides={rides}
      rideId={rideId}
      replaces={({ track }) => (track ? " (replaces its track)" : "")}
      problem={actionData?.problem ?? null}
    />
  );
}
