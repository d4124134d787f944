import { startTransition, useCallback, useEffect, useRef, useState, type RefObject } from "react";
import type { FetcherWithComponents } from "react-router";

/** How soon a save is tried again while another is under way, ms. */
const BUSY_MS = 120;

/**
 * Keeps a form as it is typed: after a pause, and at once when the page is left. Nothing typed is lost by leaving it, not
 * even while a save is under way.
 *
 * @param version of the record as the page knows it: each save names the newest one, and waits for the save before it
 * @returns `soon` to keep after a pause, `hold` while what is typed cannot be kept, and whether something still waits
 */
export function useKeeping(
  form: RefObject<HTMLFormElement | null>,
  fetcher: FetcherWithComponents<unknown>,
  version: number,
) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** What is typed and waits; and what is on its way, until the page has its answer. */
  const unsent = useRef<FormData | null>(null);
  const sending = useRef<FormData | null>(null);
  const [pending, setPending] = useState(false);
  const [answered, setAnswered] = useState(0);
  const { submit } = fetcher;
  const newest = useRef(version);
  useEffect(() => {
    newest.current = version;
  }, [version]);
  useEffect(() => {
    sending.current = null;
    setPending(unsent.current !== null);
  }, [answered]);

  const hold = useCallback(() => {
    clearTimeout(timer.current);
    unsent.current = null;
    setPending(sending.current !== null);
  }, []);
  const soon = useCallback(
    (pauseMs: number) => {
      clearTimeout(timer.current);
      unsent.current = new FormData(form.current!);
      setPending(true);
      const send = () => {
        if (sending.current) {
          timer.current = setTimeout(send, BUSY_MS);
          return;
        }
        const body = unsent.current;
        unsent.current = null;
        if (!body) return;
        sending.current = body;
        body.set("version", String(newest.current));
        // The answer's version is shown by a transition of the router's: ours comes with it or after it.
        const done = () => startTransition(() => setAnswered((count) => count + 1));
        void submit(body, { method: "post" }).then(done, done);
      };
      timer.current = setTimeout(send, pauseMs);
    },
    [form, submit],
  );

  useEffect(() => {
    const here = window.location.pathname;
    const flush = () => {
      clearTimeout(timer.current);
      const left = unsent.current ?? sending.current;
      left?.set("version", String(newest.current));
      if (left) void fetch(here, { method: "POST", body: left, keepalive: true });
      unsent.current = sending.current = null;
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, []);

  return { soon, hold, waiting: pending };
}
