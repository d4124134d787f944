import { data, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { uploadedBytes } from "#app/ui/upload.server";
import { compute } from "#app/services/compute/pool.server";
import { trackSchema } from "#core/records";
import { saveTrack } from "#db/tests";
import { liesAhead, rideNamed, ridesOf } from "./recording.server";
import { RecordingForm } from "./recordingForm";
import type { Route } from "./+types/track";

const LIMIT_BYTES = 30 * 1024 * 1024;

export function loader({ request, params, context }: Route.LoaderArgs) {
  return ridesOf(context.get(dbContext), params.testId, request);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const ride = await rideNamed(db, params.testId, form.get("rideId"));
  const file = await uploadedBytes(form.get("file"), LIMIT_BYTES);
  const read = file.ok ? await compute(db, "readTrack", { bytes: file.value.bytes }, request.signal) : file;
  if (!read.ok) return data({ problem: read.problems[0]!.sentence }, { status: 400 });
  if (liesAhead(read.value.timeS.at(-1)))
    return data(
      { problem: "The track's times lie in the future: check the recorder's clock and export it again." },
      { status: 400 },
    );
  const track = trackSchema.safeParse({
    ...read.value,
    name: read.value.name || (file.ok ? file.value.name : ""),
  });
  if (!track.success) return data({ problem: track.error.issues[0]!.message }, { status: 400 });
  await saveTrack(db, uuidv7(), ride.id, track.data);
  return redirect(`/strip/${params.testId}`);
}

export default function TrackPage({ loaderData: { test, rides, rideId }, actionData }: Route.ComponentProps) {
  return (
    <RecordingForm
      title="Bring in a track"
      gives="the recording gives distance, moving time, speed and climb."
      label="GPX 1.1 file of the ride"
      accept=".gpx,application/gpx+xml"
      hint="Check-ins with a time take their distance from the track; those with a display distance show how far off the display is."
      save="Keep the track"
      limitBytes={LIMIT_BYTES}
      test={test}
      rides={rides}
      rideId={rideId}
      replaces={({ track }) => (track ? " (replaces its track)" : "")}
      problem={actionData?.problem ?? null}
    />
  );
}
