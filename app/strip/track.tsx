import { data, Form, redirect, useNavigation } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { uploadedText } from "#app/ui/upload.server";
import { readGpx } from "#core/formats";
import { findTest, listRides, saveTrack } from "#db/tests";
import { FileField } from "#ui/fileField";
import { Page } from "#ui/page";
import type { Route } from "./+types/track";

const GONE = "There is no such test.";
const LIMIT_BYTES = 30 * 1024 * 1024;
/** A recorder's clock may run this far ahead. */
const CLOCK_SLACK_S = 3600;

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const rides = await listRides(db, line.id);
  const asked = new URL(request.url).searchParams.get("ride");
  return { line, rides, rideId: (rides.find(({ id }) => id === asked) ?? rides.at(-1)!).id };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const form = await request.formData();
  const ride = found(
    (await listRides(db, testId)).find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  const file = await uploadedText(form.get("file"), LIMIT_BYTES);
  const read = file.ok ? readGpx(file.value.text) : file;
  if (!read.ok) return data({ problem: read.problems[0]!.sentence }, { status: 400 });
  if (read.value.timeS.at(-1)! > Date.now() / 1000 + CLOCK_SLACK_S)
    return data(
      { problem: "The track's times lie in the future: check the recorder's clock and export it again." },
      { status: 400 },
    );
  await saveTrack(db, uuidv7(), ride.id, {
    ...read.value,
    name: read.value.name || (file.ok ? file.value.name : ""),
  });
  return redirect(`/strip/${testId}`);
}

export default function TrackPage({ loaderData: { line, rides, rideId }, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <Page
      title="Bring in a track"
      line={`${line.bikeName}, ${line.test.title}: the recording gives distance, moving time, speed and climb.`}
    >
      <Form method="post" encType="multipart/form-data" className="grid max-w-xl gap-5 p-4 md:p-6">
        <FileField
          name="file"
          label="GPX 1.1 file of the ride"
          accept=".gpx,application/gpx+xml"
          limitBytes={LIMIT_BYTES}
          hint="Check-ins with a time take their distance from the track; those with a display distance show how far off the display is."
          problem={actionData?.problem ?? null}
        />
        <label className="block text-sm font-medium">
          Ride
          <select name="rideId" defaultValue={rideId} className="input mt-1">
            {rides.map(({ id, name, track }) => (
              <option key={id} value={id}>
                {name}
                {track ? " (replaces its track)" : ""}
              </option>
            ))}
          </select>
        </label>
        <div>
          <button type="submit" className="button button-main" disabled={busy}>
            {busy ? "Reading ..." : "Keep the track"}
          </button>
        </div>
      </Form>
    </Page>
  );
}
