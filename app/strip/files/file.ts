import { data } from "react-router";
import { dbContext } from "#app/context";
import { compute } from "#app/services/compute/pool.server";
import type { Look } from "#app/services/recordings/lookAt";
import { readUpload } from "#app/ui/forms/upload.server";
import { rideNamed } from "../recording.server";
import { choicesOf, offsetTyped } from "./sent";
import type { Route } from "./+types/file";

const MOST_BYTES = 30 * 1024 * 1024;

/** What came of a file that was sent: what it is, or that it is kept, or why not. */
export type FileAnswer =
  { readonly look: Look } | { readonly kept: true } | { readonly problems: readonly string[] };

/** One file of several: looked at, or kept beside its ride. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const { form, file } = await readUpload(request, "file", MOST_BYTES);
  const ride = await rideNamed(db, params.testId, form.get("rideId"));
  const refused = (problems: readonly string[]) => data<FileAnswer>({ problems }, { status: 400 });
  if (!file.ok) return refused([file.problems[0]!.sentence]);
  const offset = offsetTyped(String(form.get("offset") ?? ""));
  if (!offset.ok) return refused([offset.problems[0]!.sentence]);
  const sent = {
    ...file.value,
    testId: params.testId,
    rideId: ride.id,
    logger:
      String(form.get("logger") ?? "")
        .trim()
        .slice(0, 40) || "logger",
    ...choicesOf(form),
  };
  if (form.get("intent") !== "keep")
    return { look: await compute(db, "lookAtFile", sent, request.signal) } satisfies FileAnswer;
  const refusal = await compute(db, "keepFile", { ...sent, offsetS: offset.value }, request.signal);
  return refusal.length ? refused(refusal) : ({ kept: true } satisfies FileAnswer);
}
