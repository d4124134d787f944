import { href } from "react-router";
import {
  chunksOf,
  dropChunk,
  dropPhotograph,
  keepChunk,
  keepPhotograph,
  keptOf,
  markRefused,
  markSent,
  markTried,
  photographsOf,
  type KeptEntry,
} from "./outbox";
import type { Batch } from "./batch";

/**
 * What came of a sending. "away": nobody answered, or only to say: try later. "failing": the server broke on it, and it is
 * tried again. "barred": this browser may not, be it that a phone was taken back or nobody is signed in; it is kept, and
 * goes out once it may.
 */
export type Sent = "sent" | "refused" | "away" | "failing" | "barred" | "empty";

/** Asks the server; throws when it does not answer. */
export type Post = (path: string, body: unknown) => Promise<ServerAnswer>;

export interface ServerAnswer {
  readonly status: number;
  readonly sentences?: readonly string[];
  /** What became of each entry that was sent. */
  readonly verdicts?: readonly { readonly id: string; readonly told: "kept" | "same" | "conflict" }[];
}

/** Most entries to a batch. */
const BATCH = 200;
/** How often the server may fail on one entry before it is set aside, in sight, and holds back no other. */
const MOST_TRIES = 3;

const CONFLICT =
  "Another entry stands under its number on the desk, so this one was not kept there. Correct it, and it goes out under a number of its own.";
const BROKE = `The desk broke on it ${MOST_TRIES} times, while others went through. It stays here: try it again later, or correct it.`;

/** The server understood and will not have it, now or later. */
const isFinal = (status: number) =>
  status >= 400 && status < 500 && ![401, 403, 408, 425, 429].includes(status);
/** This browser may not, until somebody lets it in again. */
const isBarred = (status: number) => status === 401 || status === 403;
/** The server broke on what was sent; busy, restarting or behind something that is, it only says so. */
const isBroken = (status: number) => status >= 500 && ![502, 503, 504].includes(status);

export const isWaiting = ({ sent, refused }: KeptEntry) => !sent && refused === undefined;

/** Notes of each entry what the server said of it: only what it told as held counts as sent. */
async function settle(
  part: readonly KeptEntry[],
  { verdicts = [] }: ServerAnswer,
): Promise<"sent" | "refused" | "away"> {
  const told = new Map(verdicts.map((verdict) => [verdict.id, verdict.told]));
  const held = part.filter(({ id }) => told.get(id) === "kept" || told.get(id) === "same");
  const clashing = part.filter(({ id }) => told.get(id) === "conflict");
  await markSent(held.map(({ id }) => id));
  for (const { id } of clashing) await markRefused(id, CONFLICT);
  if (clashing.length) return "refused";
  return held.length ? "sent" : "away";
}

/**
 * Sends the oldest waiting entries of a test, those of one ride together, in order. They are marked as sent only once the
 * server said of each that it holds it. A batch that is refused, or that the server breaks on, goes out one by one: one bad
 * entry holds back no other.
 */
export async function sendNext(testId: string, post: Post, nowMs: () => number = Date.now): Promise<Sent> {
  const waiting = (await keptOf(testId)).filter(isWaiting);
  const [first] = waiting;
  if (!first) return "empty";
  const batch = waiting.filter(({ rideId }) => rideId === first.rideId).slice(0, BATCH);
  const send = async (part: readonly KeptEntry[]) => {
    const body: Batch = {
      rideId: first.rideId,
      sentAt: new Date(nowMs()).toISOString(),
      entries: part.map(({ entry }) => entry),
      waiting: waiting.length - part.length,
    };
    return post(href("/ride/:testId/entries", { testId }), body).catch((): ServerAnswer => ({ status: 0 }));
  };
  const whole = await send(batch);
  if (whole.status === 200) return settle(batch, whole);
  if (isBarred(whole.status)) return "barred";
  if (!isFinal(whole.status) && !isBroken(whole.status)) return "away";
  let came: Sent = "sent";
  for (const one of batch) {
    const answer = await send([one]);
    if (answer.status === 200) {
      const settled = await settle([one], answer);
      if (settled !== "sent") came = settled;
    } else if (isFinal(answer.status)) {
      came = "refused";
      await markRefused(one.id, answer.sentences?.join(" ") || `The desk answered ${answer.status}.`);
    } else if (isBroken(answer.status)) {
      const tries = (one.tries ?? 0) + 1;
      await markTried(one.id, tries);
      if (tries >= MOST_TRIES) await markRefused(one.id, BROKE);
      came = tries >= MOST_TRIES ? "refused" : "failing";
    } else return "away";
  }
  return came;
}

/** Sends one finished row of a device's samples. */
export async function sendChunk(testId: string, post: Post): Promise<Sent> {
  const chunk = (await chunksOf(testId)).find(({ open, refused }) => !open && !refused);
  if (!chunk) return "empty";
  const { rideId, record } = chunk;
  const answer = await post(href("/ride/:testId/telemetry", { testId }), { rideId, record }).catch(
    (): ServerAnswer => ({
      status: 0,
    }),
  );
  if (answer.status === 200) {
    await dropChunk(chunk.id);
    return "sent";
  }
  if (!isFinal(answer.status)) return "away";
  await keepChunk({
    ...chunk,
    refused: answer.sentences?.join(" ") || `The server answered ${answer.status}.`,
  });
  return "refused";
}

/** Sends one photograph whose entry the server holds. */
export async function sendPhotograph(testId: string, post: Post): Promise<Sent> {
  const waiting = new Set((await keptOf(testId)).filter(({ sent }) => !sent).map(({ id }) => id));
  const photograph = (await photographsOf(testId)).find(
    ({ entryId, refused }) => !refused && !waiting.has(entryId),
  );
  if (!photograph) return "empty";
  const { id, rideId, entryId, takenAt, picture } = photograph;
  const form = new FormData();
  for (const [name, value] of Object.entries({ id, rideId, entryId, takenAt })) form.set(name, value);
  form.set("photograph", new File([picture], `${id}.jpg`, { type: picture.type }));
  const answer = await post(href("/ride/:testId/photograph", { testId }), form).catch((): ServerAnswer => ({
    status: 0,
  }));
  if (answer.status === 200) {
    await dropPhotograph(id);
    return "sent";
  }
  if (!isFinal(answer.status)) return isBarred(answer.status) ? "barred" : "away";
  await keepPhotograph({
    ...photograph,
    refused: answer.sentences?.join(" ") || `The server answered ${answer.status}.`,
  });
  return "refused";
}
