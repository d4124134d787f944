import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { dropWaiting, keepWaiting, waitingOf, type Waiting } from "./outbox";

/** How long to wait before the server is tried again, ms. */
const RETRY_MS = 4000;

/**
 * Entries on their way: kept in the browser's storage first, then sent in order, and dropped from it only once the server
 * says it holds them. A failed send is tried again, and at once when the network comes back.
 */
export function useOutbox(testId: string) {
  const { revalidate } = useRevalidator();
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  /** Sent from this page: shown until the server's own answer holds them. */
  const [sent, setSent] = useState<readonly Waiting[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  /** The browser's storage does not keep anything. */
  const [homeless, setHomeless] = useState(false);
  const list = useRef<readonly Waiting[]>([]);
  const sending = useRef(false);

  const show = useCallback((next: readonly Waiting[]) => {
    list.current = next;
    setWaiting(next);
  }, []);

  const flush = useCallback(async () => {
    const [first] = list.current;
    if (sending.current || !first) return;
    sending.current = true;
    const batch = list.current.filter(({ rideId }) => rideId === first.rideId).slice(0, 200);
    try {
      const response = await fetch(`/ride/${testId}/entries`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ rideId: first.rideId, entries: batch.map(({ entry }) => entry) }),
      });
      if (response.ok) {
        const gone = new Set(batch.map(({ id }) => id));
        await dropWaiting([...gone]).catch(() => setHomeless(true));
        setSent((before) => [...before, ...batch]);
        show(list.current.filter(({ id }) => !gone.has(id)));
        setRefused(null);
        void revalidate();
      } else setRefused(`The server did not take them (${response.status}). They stay here.`);
    } catch {
      // No network: they wait.
    }
    sending.current = false;
  }, [revalidate, show, testId]);

  useEffect(() => {
    waitingOf(testId).then(
      (stored) => {
        const known = new Set(list.current.map(({ id }) => id));
        show([...stored.filter(({ id }) => !known.has(id)), ...list.current]);
        void flush();
      },
      () => setHomeless(true),
    );
    const online = () => void flush();
    const again = setInterval(online, RETRY_MS);
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("online", online);
      clearInterval(again);
    };
  }, [flush, show, testId]);

  const add = useCallback(
    (one: Waiting) => {
      show([...list.current, one]);
      keepWaiting(one)
        .catch(() => setHomeless(true))
        .finally(() => void flush());
    },
    [flush, show],
  );

  return { waiting, sent, add, refused, homeless };
}
