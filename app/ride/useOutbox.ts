import { useCallback, useEffect, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { Entry } from "#core/ride/log";
import { useLookAgain } from "#app/ui/network/useLookAgain";
import { smaller, takenAt } from "#app/ui/photograph";
import { keep, keepFact, keepPhotograph, keptOf, photographsOf, sendAgain, type KeptEntry } from "./outbox";
import { askClock, openShelf, sendWaiting, type StorageState, type Trouble } from "./shelf";

/** How long to wait before the server is tried again, and before its log is asked for what others noted, ms. */
const RETRY_MS = 4000;
const LOOK_MS = 20_000;

interface Making {
  device: string | null;
  /** Seconds to add to this browser's clock; null before the server was asked. */
  offsetS: number | null;
  lastSeq: number;
}

/**
 * An entry with its id, its place in the log and its clock. The place is the time, so that what two phones noted falls in
 * order; never before what was there.
 */
function placed(
  entry: Omit<Entry, "seq" | "id" | "device">,
  afterSeq: number,
  { device, offsetS, lastSeq }: Making,
): Entry {
  const isTimed = entry.at !== null && entry.clockOffsetS === undefined && offsetS !== null;
  return {
    id: uuidv7(),
    seq: Math.max(afterSeq + 1, lastSeq + 1, Date.now() + 1000 * (offsetS ?? 0)),
    ...entry,
    ...(isTimed && { clockOffsetS: offsetS }),
    ...(device && { device }),
  };
}

interface Kept {
  readonly opened: (stored: Awaited<ReturnType<typeof openShelf>>) => void;
  readonly clockFound: (offsetS: number) => void;
  readonly show: () => Promise<void>;
  readonly flush: () => Promise<void>;
}

/** Opens the storage, then sends again and again while the page is open; looks at the server's clock and log meanwhile. */
function useKeptSending(testId: string, { opened, clockFound, show, flush }: Kept): void {
  const lookAgain = useLookAgain();
  useEffect(() => {
    const checkClock = async () => {
      const found = await askClock(testId).catch(() => null);
      if (found === null) return;
      clockFound(found);
      await keepFact("clock", found).catch(() => undefined);
    };
    const begin = async () => {
      opened(await openShelf(Date.now()));
      await show();
      void checkClock();
      await flush();
    };
    void begin();
    const online = () => void flush();
    const look = () => {
      if (document.visibilityState !== "visible") return;
      void checkClock();
      if (navigator.onLine) lookAgain();
    };
    const retry = setInterval(online, RETRY_MS);
    const looking = setInterval(look, LOOK_MS);
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("online", online);
      clearInterval(retry);
      clearInterval(looking);
    };
  }, [clockFound, flush, lookAgain, opened, show, testId]);
}

/**
 * A ride's log in this browser: every entry is kept in its storage first, then sent in order, and counted as sent only once
 * the server says it holds it. A failed send is tried again, and at once when the network comes back.
 */
export function useOutbox(testId: string) {
  const lookAgain = useLookAgain();
  const [log, setLog] = useState<readonly KeptEntry[]>([]);
  /** Whether the storage was looked at: before, nobody knows what waits. */
  const [looked, setLooked] = useState(false);
  /** Photographs that wait to be sent. */
  const [photographs, setPhotographs] = useState(0);
  const [shelf, setShelf] = useState<StorageState>("unknown");
  const [trouble, setTrouble] = useState<Trouble>(null);
  const [offsetS, setOffsetS] = useState<number | null>(null);
  const [device, setDevice] = useState<string | null>(null);
  /** How the next entry is named: by this browser, by the server's clock, after the last made here. */
  const making = useRef<Making>({ device: null, offsetS: null, lastSeq: -1 });
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
    setPhotographs((await photographsOf(testId).catch(() => [])).filter(({ refused }) => !refused).length);
    setLooked(true);
  }, [testId]);

  const flush = useCallback(async () => {
    again.current = true;
    if (sending.current) return;
    sending.current = true;
    while (again.current) {
      again.current = false;
      const { sent, trouble: came } = await sendWaiting(testId, loose);
      setTrouble(came);
      if (sent) await show().then(() => lookAgain());
    }
    sending.current = false;
  }, [lookAgain, show, testId]);

  const opened = useCallback((stored: Awaited<ReturnType<typeof openShelf>>) => {
    setShelf(stored.shelf);
    setDevice((making.current.device = stored.device));
    making.current.offsetS ??= stored.clock;
  }, []);
  const clockFound = useCallback((foundS: number) => {
    setOffsetS((making.current.offsetS = foundS));
  }, []);
  useKeptSending(testId, { opened, clockFound, show, flush });

  /** Keeps an entry of a ride; its place in the log and its clock are seen to here. */
  const add = useCallback(
    (rideId: string, lastSeq: number, entry: Omit<Entry, "seq" | "id" | "device">) => {
      const whole = placed(entry, lastSeq, making.current);
      making.current.lastSeq = whole.seq;
      const kept: KeptEntry = { id: whole.id, testId, rideId, entry: whole, sent: false };
      setLog((all) => [...all, kept]);
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

  /** Keeps a photograph of an entry, made small and without what its camera wrote beside it; it goes out after the entry. */
  const addPhotograph = useCallback(
    async (rideId: string, entry: Entry, file: File) => {
      const told = await takenAt(file).catch(() => null);
      const zoned = told?.zone ? `${told.day}T${told.clock}${told.zone}` : "";
      const picture = await smaller(file);
      await keepPhotograph({
        ...{ id: uuidv7(), testId, rideId, entryId: entry.supersedes ?? entry.id, picture },
        takenAt: zoned || (entry.at ?? ""),
      }).catch(() => setShelf("refused"));
      await show();
      await flush();
    },
    [flush, show, testId],
  );

  /** Lets an entry that was set aside go out again. */
  const resend = async (id: string) => {
    await sendAgain(id).catch(() => undefined);
    await show();
    await flush();
  };
  return {
    log,
    looked,
    photographs,
    add,
    addPhotograph,
    flush,
    sendAgain: resend,
    shelf,
    trouble,
    offsetS,
    device,
  };
}
