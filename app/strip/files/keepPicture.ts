import { href } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { smaller, takenAt } from "#app/ui/photograph";
import { momentOf } from "#core/base";

interface Where {
  readonly testId: string;
  readonly rideId: string;
  readonly zone: string;
}

const NO_TIME =
  "Its camera wrote no time into it, so that its place in the ride is not known: choose it with a check-in on Ride.";
const AWAY = "The desk did not answer: see that it runs, and import it again.";

const sentencesIn = async (answer: Response | null): Promise<readonly string[]> => {
  if (answer?.ok) return [];
  const told = (await answer?.json().catch(() => null)) as { readonly sentences?: readonly string[] } | null;
  return told?.sentences?.length ? told.sentences : [AWAY];
};

/**
 * Keeps a photograph as a check-in at the moment it was taken, to be read off later: made small, without its place.
 *
 * @returns why not; empty when it was kept
 */
export async function keepPicture({ testId, rideId, zone }: Where, file: File): Promise<readonly string[]> {
  const told = await takenAt(file).catch(() => null);
  const ms = told ? momentOf(told.day, told.clock, told.zone || zone) : NaN;
  if (Number.isNaN(ms)) return [NO_TIME];
  const at = new Date(ms).toISOString();
  const entry = { id: uuidv7(), seq: 0, at, body: { kind: "checkIn" }, supersedes: null, clockOffsetS: 0 };
  const logged = await fetch(href("/ride/:testId/entries", { testId }), {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ rideId, entries: [entry] }),
  }).catch(() => null);
  const refused = await sentencesIn(logged);
  if (refused.length) return refused;
  const form = new FormData();
  const about = { id: uuidv7(), rideId, entryId: entry.id, takenAt: at };
  for (const [name, value] of Object.entries(about)) form.set(name, value);
  form.set("photograph", await smaller(file));
  const sent = await fetch(href("/ride/:testId/photograph", { testId }), {
    method: "POST",
    body: form,
  }).catch(() => null);
  return sentencesIn(sent);
}
