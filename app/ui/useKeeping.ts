import { useCallback, useEffect, useRef, useState, type RefObject } from "react";
import type { FetcherWithComponents } from "react-router";

/**
 * Keeps a form as it is typed: after a pause, and at once when the page is left. Nothing typed is lost by leaving it.
 *
 * @returns `soon` to keep after a pause, `hold` while what is typed cannot be kept, and whether something still waits
 */
export function useKeeping(form: RefObject<HTMLFormElement | null>, fetcher: FetcherWithComponents<unknown>) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const unsent = useRef<FormData | null>(null);
  const [pending, setPending] = useState(false);
  const { submit } = fetcher;

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
      timer.current = setTimeout(() => {
        const body = unsent.current;
        unsent.current = null;
        setPending(false);
        if (body) void submit(body, { method: "post" });
      }, pauseMs);
    },
    [form, submit],
  );

  useEffect(() => {
    const here = window.location.pathname;
    const flush = () => {
      clearTimeout(timer.current);
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
