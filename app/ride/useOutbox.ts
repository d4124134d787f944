import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { v7 as uuidv7 } from "uuid";
import type { Entry } from "#core/ride/log";
import { clockOffset } from "./batch";
import { dropOld, fact, keep, keepFact, keptOf, sendAgain, type KeptEntry } from "./outbox";
import { isWaiting, sendChunk, sendNext, type ServerAnswer } from "./sender";

/** How long to wait before the server is tried again, and before its log is asked for what others noted, ms. */
const RETRY_MS = 4000;
const LOOK_MS = 20_000;
/** A sending that has no answer by then is given up, and tried again: a weak network may hold it for ever, ms. */
const GIVEN_UP_MS = 20_000;
/** A clock answer slower than this says too little, ms. */
const SLOW_MS = 4000;
/** Less room than this for a ride's log and samples is too little, bytes. */
const LEAST_ROOM = 5_000_000;

/** How the browser's storage stands: whether a ride can be trusted to it. */
export type StorageState = "unknown" | "good" | "refused" | "full";

async function post(path: string, body: unknown): Promise<ServerAnswer> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(GIVEN_UP_MS),
  });
  const told = (await response.json().catch(() => null)) as Partial<ServerAnswer> | null;
  return {
    status: response.status,
    ...(told?.sentences && { sentences: told.sentences }),
    ...(told?.verdicts && { verdicts: told.verdicts }),
  };
}

/** How far this browser's clock is behind the server's, s; null when the server does not answer in time. */
async function askClock(testId: string): Promise<number | null> {
  const before = Date.now();
  const response = await fetch(`/ride/${testId}/entries`, { cache: "no-store" });
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

/**
 * A ride's log in this browser: every entry is kept in its storage first, then sent in order, and counted as sent only once
 * the server says it holds it. A failed send is tried again, and at once when the network comes back.
 */
export function useOutbox(testId: string) {
  const { revalidate } = useRevalidator();
  const [log, setLog] = useState<readonly KeptEntry[]>([]);
  /** The storage has been looked at: before that nobody knows what waits. */
  const [looked, setLooked] = useState(false);
  const [shelf, setShelf] = useState<StorageState>("unknown");
  const [trouble, setTrouble] = useState<"away" | "failing" | null>(null);
  const [offsetS, setOffsetS] = useState<number | null>(null);
  const [device, setDevice] = useState<string | null>(null);
  const deviceName = useRef<string | null>(null);
  const offset = useRef<number | null>(null);
  /** Place of the last entry made here: several made at one moment follow one another. */
  const lastMade = useRef(-1);
  const sending = useRef(false);
  const again = useRef(false);
  /** Entries on their way into the storage: a look at it meanwhile does not lose them from sight. */
  const inHand = useRef<readonly KeptEntry[]>([]);
  /** Entries kept here that the storage would not take. */
  const loose = useRef<readonly KeptEntry[]>([]);

  const show = useCallback(async () => {
    const stored = await keptOf(testId).catch(() => []);
    const known = new Set(stored.map(({ id }) => id));
    setLog([...stored, ...[...loose.current, ...inHand.current].filter(({ id }) => !known.has(id))]);
    setLooked(true);
  }, [testId]);

  const flush = useCallback(async () => {
    again.current = true;
    if (sending.current) return;
    sending.current = true;
    while (again.current) {
      again.current = false;
      let sent = false;
      for (;;) {
        const came = await sendNext(testId, post).catch(() => "away" as const);
        setTrouble(came === "away" || came === "failing" ? came : null);
        if (came === "sent" || came === "refused") sent = true;
        else break;
      }
      // What the storage would not take goes out from here, one by one.
      for (const one of loose.current.filter(isWaiting)) {
        const body = { rideId: one.rideId, sentAt: new Date().toISOString(), entries: [one.entry] };
        const answer = await post(`/ride/${testId}/entries`, body).catch(() => null);
        if (answer?.status !== 200 || answer.verdicts?.[0]?.told === "conflict") break;
        loose.current = loose.current.map((each) => (each === one ? { ...one, sent: true } : each));
        sent = true;
      }
      while ((await sendChunk(testId, post).catch(() => "away")) === "sent");
      if (sent) {
        await show();
        void revalidate();
      }
    }
    sending.current = false;
  }, [revalidate, show, testId]);

  useEffect(() => {
    const checkClock = async () => {
      const found = await askClock(testId).catch(() => null);
      if (found === null) return;
      offset.current = found;
      setOffsetS(found);
      await keepFact("clock", found).catch(() => undefined);
    };
    const begin = async () => {
      setShelf(await tryShelf());
      deviceName.current = (await fact<string>("device").catch(() => undefined)) ?? null;
      if (deviceName.current === null) {
        deviceName.current = uuidv7().slice(-4);
        await keepFact("device", deviceName.current).catch(() => undefined);
      }
      setDevice(deviceName.current);
      const last = await fact<number>("clock").catch(() => undefined);
      if (last !== undefined && offset.current === null) offset.current = last;
      await dropOld(Date.now()).catch(() => undefined);
      await show();
      void checkClock();
      await flush();
    };
    void begin();
    const online = () => void flush();
    const look = () => {
      if (document.visibilityState !== "visible") return;
      void checkClock();
      if (navigator.onLine) void revalidate();
    };
    const retry = setInterval(online, RETRY_MS);
    const looking = setInterval(look, LOOK_MS);
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("online", online);
      clearInterval(retry);
      clearInterval(looking);
    };
  }, [flush, revalidate, show, testId]);

  /** Keeps an entry of a ride; its place in the log and its clock are seen to here. */
  const add = useCallback(
    (rideId: string, lastSeq: number, entry: Omit<Entry, "seq" | "id" | "device">) => {
      const offsetNow = offset.current;
      // The place is the time, so that what two phones noted falls in order; never before what was there.
      const seq = Math.max(lastSeq + 1, lastMade.current + 1, Date.now() + 1000 * (offsetNow ?? 0));
      lastMade.current = seq;
      const whole: Entry = {
        id: uuidv7(),
        seq,
        ...entry,
        ...(entry.at !== null &&
          entry.clockOffsetS === undefined &&
          offsetNow !== null && { clockOffsetS: offsetNow }),
        ...(deviceName.current && { device: deviceName.current }),
      };
      const kept: KeptEntry = { id: whole.id, testId, rideId, entry: whole, sent: false };
      setLog((before) => [...before, kept]);
      inHand.current = [...inHand.current, kept];
      keep(kept)
        .catch(() => {
          loose.current = [...loose.current, kept];
          setShelf("refused");
        })
        .finally(() => {
          inHand.current = inHand.current.filter((each) => each !== kept);
          void flush();
        });
      return whole;
    },
    [flush, testId],
  );

  /** Lets an entry that was set aside go out again. */
  const resend = useCallback(
    async (id: string) => {
      await sendAgain(id).catch(() => undefined);
      await show();
      await flush();
    },
    [flush, show],
  );

  return { log, looked, add, flush, sendAgain: resend, shelf, trouble, offsetS, device };
}
