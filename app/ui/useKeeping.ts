import { useCallback, useEffect, useRef, useState, type RefObject } from "react";
import type { FetcherWithComponents } from "react-router";

/** How soon a save is tried again while another is under way, ms. */
const BUSY_MS = 120;

/**
 * Keeps a form as it is typed: after a pause, and at once when the page is left. Nothing typed is lost by leaving it.
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
  const unsent = useRef<FormData | null>(null);
  const [pending, setPending] = useState(false);
  const { submit } = fetcher;
  const newest = useRef({ version, busy: false });
  useEffect(() => {
    newest.current = { version, busy: fetcher.state !== "idle" };
  }, [version, fetcher.state]);

  const hold = useCallback(() => {
    clearTimeout(timer.current);
    unsent.current = null;
    setPending(false);
  }, []);
  const soon = useCallback(
    (pauseMs: number) => {
      clearTimeout(timer.current);
      unsent.current = new FormData(form.current!);
      setPending(true);
      const send = () => {
        if (newest.current.busy) {
          timer.current = setTimeout(send, BUSY_MS);
          return;
        }
        const body = unsent.current;
        unsent.current = null;
        setPending(false);
        if (!body) return;
        body.set("version", String(newest.current.version));
        void submit(body, { method: "post" });
      };
      timer.current = setTimeout(send, pauseMs);
    },
    [form, submit],
  );

  useEffect(() => {
    const here = window.location.pathname;
    const flush = () => {
      clearTimeout(timer.current);
      unsent.current?.set("version", String(newest.current.version));
      if (unsent.current) void fetch(here, { method: "POST", body: unsent.current, keepalive: true });
      unsent.current = null;
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, []);

  return { soon, hold, waiting: pending || fetcher.state !== "idle" };
}
