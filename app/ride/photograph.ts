import { data } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { readUpload } from "#app/ui/forms/upload.server";
import { idOf } from "#app/ui/require.server";
import { isInReach } from "#core/base";
import { readImage } from "#core/io";
import { addEntryPhotograph, MOST_OF_A_RIDE } from "#db/photographs";
import { isRideOf } from "#db/tests";
import type { Route } from "./+types/photograph";

/** A photograph as a phone made it small, with room. */
const LIMIT_BYTES = 6 * 1024 * 1024;

const aboutSchema = z.object({
  id: z.uuid("A photograph's id is a UUID."),
  rideId: z.uuid("A ride's id is a UUID."),
  entryId: z.uuid("An entry's id is a UUID."),
  /** ISO 8601; empty where the camera does not say. */
  takenAt: z
    .union([z.literal(""), z.iso.datetime({ offset: true })])
    .default("")
    .transform((text) => (text && isInReach(Date.parse(text) / 1000) ? new Date(text) : null)),
});

/** Takes a photograph of an entry; one that is there already changes nothing. Its place and camera are left out here too. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, "There is no such test.");
  const refused = (sentence: string, status = 400) => data({ sentences: [sentence] }, { status });
  const { form, file } = await readUpload(request, "photograph", LIMIT_BYTES);
  const about = aboutSchema.safeParse(Object.fromEntries(form));
  if (!about.success) return refused(about.error.issues[0]!.message);
  if (!(await isRideOf(db, about.data.rideId, testId))) return refused("This ride is not of this test.", 404);
  const image = file.ok ? readImage(file.value.bytes) : file;
  if (!image.ok) return refused(image.problems[0]!.sentence);
  if (!(await addEntryPhotograph(db, { ...about.data, image: image.value })))
    return refused(`A ride keeps ${MOST_OF_A_RIDE} photographs: take some off first.`);
  return { kept: true };
}
