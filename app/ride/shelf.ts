import { href } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { clockOffset } from "./batch";
import { dropOld, fact, keepFact, type KeptEntry } from "./outbox";
import { isWaiting, sendChunk, sendNext, sendPhotograph, type ServerAnswer } from "./sender";

/** A sending that has no answer by then is given up, and tried again: a weak network may hold it for ever, ms. */
const GIVEN_UP_MS = 20_000;
/** A picture takes longer over a weak network. */
const PICTURE_GIVEN_UP_MS = 90_000;
/** A clock answer slower than this says too little, ms. */
const SLOW_MS = 4000;
/** Less room than this for a ride's log and samples is too little, bytes. */
const LEAST_ROOM = 5_000_000;

/** Why what waits did not go out, where it did not. */
export type Trouble = "away" | "failing" | "barred" | null;

/** How the browser's storage stands: whether a ride can be trusted to it. */
export type StorageState = "unknown" | "good" | "refused" | "full";

/** Sends to the server; what it answers, or why not. */
async function post(path: string, body: unknown): Promise<ServerAnswer> {
  const response = await fetch(path, {
    method: "POST",
    ...(body instanceof FormData
      ? { body, signal: AbortSignal.timeout(PICTURE_GIVEN_UP_MS) }
      : {
          headers: { "content-type": "application/json" },
          body: JSON.stringify(body),
          signal: AbortSignal.timeout(GIVEN_UP_MS),
        }),
  });
  const told = (await response.json().catch(() => null)) as Partial<ServerAnswer> | null;
  return {
    status: response.status,
    ...(told?.sentences && { sentences: told.sentences }),
    ...(told?.verdicts && { verdicts: told.verdicts }),
  };
}

/** How far this browser's clock is behind the server's, s; null when the server does not answer in time. */
export async function askClock(testId: string): Promise<number | null> {
  const before = Date.now();
  const response = await fetch(href("/ride/:testId/entries", { testId }), { cache: "no-store" });
  const { now } = (await response.json()) as { now: number };
  const after = Date.now();
  return after - before > SLOW_MS ? null : clockOffset((before + after) / 2, now);
}

/** Tries the storage: writes, reads, and asks how much room there is. */
async function tryShelf(): Promise<StorageState> {
  try {
    await keepFact("tried", Date.now());
    if ((await fact("tried")) === undefined) return "refused";
  } catch {
    return "refused";
  }
  void navigator.storage?.persist?.();
  const room = await navigator.storage?.estimate?.().catch(() => null);
  return room?.quota !== undefined && room.quota - (room.usage ?? 0) < LEAST_ROOM ? "full" : "good";
}

/** The browser's storage for the log: whether it can be used, this browser's name among those that write, its clock at last. */
export async function openShelf(nowMs: number) {
  const shelf = await tryShelf();
  let device = (await fact<string>("device").catch(() => undefined)) ?? null;
  if (device === null) {
    device = uuidv7().slice(-4);
    await keepFact("device", device).catch(() => undefined);
  }
  const clock = (await fact<number>("clock").catch(() => undefined)) ?? null;
  await dropOld(nowMs).catch(() => undefined);
  return { shelf, device, clock };
}

/** Sends everything that waits: what the storage holds, then what it would not take, then a device's samples and photographs. */
export async function sendWaiting(testId: string, loose: { current: readonly KeptEntry[] }) {
  let sent = false;
  let came: Awaited<ReturnType<typeof sendNext>>;
  do {
    came = await sendNext(testId, post).catch(() => "away" as const);
    if (came === "sent" || came === "refused") sent = true;
  } while (came === "sent" || came === "refused");
  const trouble: Trouble = came === "away" || came === "failing" || came === "barred" ? came : null;
  // What the storage would not take goes out from here, one by one.
  for (const one of loose.current.filter(isWaiting)) {
    const body = { rideId: one.rideId, sentAt: new Date().toISOString(), entries: [one.entry] };
    const answer = await post(href("/ride/:testId/entries", { testId }), body).catch(() => null);
    if (answer?.status !== 200 || answer.verdicts?.[0]?.told === "conflict") break;
    loose.current = loose.current.map((each) => (each === one ? { ...one, sent: true } : each));
    sent = true;
  }
  while ((await sendChunk(testId, post).catch(() => "away")) === "sent");
  if (!trouble) while ((await sendPhotograph(testId, post).catch(() => "away")) === "sent") sent = true;
  return { sent, trouble };
}
