import { chunksOf, dropChunk, keepChunk, keptOf, markRefused, markSent, type Kept } from "./outbox";
import type { Batch } from "./batch";

/** What came of a sending. "away": no answer, or one that says to try later. */
export type Sent = "sent" | "refused" | "away" | "empty";

/** Asks the server; throws when it does not answer. */
export type Post = (path: string, body: unknown) => Promise<Answer>;

export interface Answer {
  readonly status: number;
  readonly sentences?: readonly string[];
}

/** Most entries to a batch. */
const BATCH = 200;

/** The server understood and will not have it, now or later. */
const isFinal = (status: number) =>
  status >= 400 && status < 500 && ![401, 403, 408, 425, 429].includes(status);

export const isWaiting = ({ sent, refused }: Kept) => !sent && refused === undefined;

/**
 * Sends the oldest waiting entries of a test, those of one ride together, in order. They are marked as sent only once the
 * server said it holds them. A batch that is refused goes out one by one, so that one bad entry holds back no other.
 */
export async function sendNext(testId: string, post: Post, nowMs: () => number = Date.now): Promise<Sent> {
  const waiting = (await keptOf(testId)).filter(isWaiting);
  const [first] = waiting;
  if (!first) return "empty";
  const batch = waiting.filter(({ rideId }) => rideId === first.rideId).slice(0, BATCH);
  const send = async (part: readonly Kept[]) => {
    const body: Batch = {
      rideId: first.rideId,
      sentAt: new Date(nowMs()).toISOString(),
      entries: part.map(({ entry }) => entry),
    };
    return post(`/ride/${testId}/entries`, body).catch((): Answer => ({ status: 0 }));
  };
  const { status } = await send(batch);
  if (status === 200) {
    await markSent(batch.map(({ id }) => id));
    return "sent";
  }
  if (!isFinal(status)) return "away";
  let refused = false;
  for (const one of batch) {
    const answer = await send([one]);
    if (answer.status === 200) await markSent([one.id]);
    else if (isFinal(answer.status)) {
      refused = true;
      await markRefused(one.id, answer.sentences?.join(" ") || `The server answered ${answer.status}.`);
    } else return "away";
  }
  return refused ? "refused" : "sent";
}

/** Sends one finished row of a device's samples. */
export async function sendChunk(testId: string, post: Post): Promise<Sent> {
  const chunk = (await chunksOf(testId)).find(({ open, refused }) => !open && !refused);
  if (!chunk) return "empty";
  const { rideId, record } = chunk;
  const answer = await post(`/ride/${testId}/telemetry`, { rideId, record }).catch((): Answer => ({
    status: 0,
  }));
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
