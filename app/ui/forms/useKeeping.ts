import { startTransition, useCallback, useEffect, useRef, useState, type RefObject } from "react";
import { useLocation, type FetcherWithComponents } from "react-router";
import { draftOf, entriesOf, fillForm, formOf, keepDraft } from "#app/ui/forms/drafts";

/** How soon a save is tried again while another is under way, ms. */
const BUSY_MS = 120;
/** How often what an earlier visit could not save is sent by itself; after that it is only shown. */
const MOST_TRIES = 2;

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
  const { pathname } = useLocation();
  const path = useRef(pathname);
  useEffect(() => {
    newest.current = version;
  }, [version]);
  useEffect(() => {
    sending.current = null;
    setPending(unsent.current !== null);
    if (answered && !unsent.current) keepDraft(path.current, null);
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
      keepDraft(path.current, { entries: entriesOf(unsent.current), version: newest.current, tries: 0 });
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

  // What an earlier visit typed and could not save: shown and saved now, upon the version it was typed on.
  useEffect(() => {
    const draft = draftOf(path.current);
    if (!draft || !form.current) return;
    fillForm(form.current, draft.entries);
    if (draft.tries >= MOST_TRIES) return;
    keepDraft(path.current, { ...draft, tries: draft.tries + 1 });
    clearTimeout(timer.current);
    unsent.current = null;
    const body = formOf(draft.entries);
    body.set("version", String(draft.version ?? newest.current));
    sending.current = body;
    setPending(true);
    const done = () => startTransition(() => setAnswered((count) => count + 1));
    void submit(body, { method: "post" }).then(done, done);
    // Once, as the page is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  useEffect(() => {
    const here = window.location.pathname;
    const at = path.current;
    const flush = () => {
      clearTimeout(timer.current);
      const left = unsent.current ?? sending.current;
      left?.set("version", String(newest.current));
      if (left)
        void fetch(here, { method: "POST", body: left, keepalive: true }).then(
          ({ ok }) => ok && keepDraft(at, null),
          () => undefined,
        );
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
