import { startTransition, useCallback, useEffect, useRef, useState, type RefObject } from "react";
import { useLocation, type FetcherWithComponents } from "react-router";
import { useWho } from "#app/ui/who";
import { draftOf, entriesOf, fillForm, formOf, keepDraft, type Draft } from "#app/ui/forms/drafts";

/** Own saves that are named with the next one. */
const MOST_OWN = 20;
/** How soon a save is tried again while another is under way, ms. */
const BUSY_MS = 120;
/** How often what an earlier visit could not save is sent by itself; after that it is only shown. */
const MOST_TRIES = 2;

/** What an earlier visit typed and could not save: shown as the page is opened, and sent upon the version it was typed on. */
function useEarlierVisit(
  path: string,
  form: RefObject<HTMLFormElement | null>,
  send: (draft: Draft) => void,
): void {
  useEffect(() => {
    const draft = draftOf(path);
    if (!draft || !form.current) return;
    fillForm(form.current, draft.entries);
    if (draft.tries >= MOST_TRIES) return;
    keepDraft(path, { ...draft, tries: draft.tries + 1 });
    send(draft);
    // Once, as the page is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
}

/** Sends what is left when the page is left; once it is taken, its draft is gone. */
function useSentAtLeave(path: string, takeLeft: () => FormData | null): void {
  useEffect(() => {
    const flush = () => {
      const left = takeLeft();
      if (left)
        void fetch(path, { method: "POST", body: left, keepalive: true }).then(
          ({ ok }) => ok && keepDraft(path, null),
          () => undefined,
        );
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
    // Of the page as it was opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
}

/**
 * Keeps a form as it is typed: after a pause, and at once when the page is left. Nothing typed is lost by leaving it, not
 * even while a save is under way.
 *
 * @param version of the record as the page knows it: each save names the newest one, and waits for the save before it
 * @param answer what came of the last save: taken, or not, and then the draft stays in the browser; or it met another's
 *   change, and until somebody decided nothing more is sent
 * @returns `soon` to keep after a pause, `hold` while what is typed cannot be kept, `forget` for what is not wanted any more, and whether something still waits
 */
export function useKeeping(
  form: RefObject<HTMLFormElement | null>,
  fetcher: FetcherWithComponents<unknown>,
  version: number,
  answer: "taken" | "not taken" | "undecided",
) {
  const { mayChange } = useWho();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** What is typed and waits; and what is on its way, until the page has its answer. */
  const unsent = useRef<FormData | null>(null);
  const sending = useRef<FormData | null>(null);
  const [pending, setPending] = useState(false);
  const [answered, setAnswered] = useState(0);
  const { submit } = fetcher;
  const newest = useRef(version);
  /** The form's own saves: one hand, so that none of them is met as another's. */
  const own = useRef<readonly string[]>([]);
  const { pathname } = useLocation();
  const path = useRef(pathname);
  const last = useRef(answer);
  useEffect(() => {
    newest.current = version;
    last.current = answer;
  }, [version, answer]);
  useEffect(() => {
    sending.current = null;
    if (last.current === "undecided") {
      clearTimeout(timer.current);
      unsent.current = null;
    }
    setPending(unsent.current !== null);
    if (answered && !unsent.current && last.current === "taken") keepDraft(path.current, null);
  }, [answered]);

  const hold = useCallback(() => {
    clearTimeout(timer.current);
    unsent.current = null;
    setPending(sending.current !== null);
  }, []);
  const sign = useCallback((body: FormData) => {
    const id = crypto.randomUUID();
    body.set("saveId", id);
    body.set("own", own.current.join(","));
    own.current = [...own.current, id].slice(-MOST_OWN);
  }, []);
  const forget = useCallback(() => keepDraft(path.current, null), []);
  const deliver = useCallback(
    (body: FormData, upon: number) => {
      sending.current = body;
      setPending(true);
      body.set("version", String(upon));
      sign(body);
      // The answer's version is shown by a transition of the router's: ours comes with it or after it.
      const done = () => startTransition(() => setAnswered((count) => count + 1));
      void submit(body, { method: "post" }).then(done, done);
    },
    [submit, sign],
  );
  const soon = useCallback(
    (pauseMs: number) => {
      if (!mayChange) return;
      clearTimeout(timer.current);
      unsent.current = new FormData(form.current!);
      keepDraft(path.current, {
        entries: entriesOf(unsent.current),
        version: newest.current,
        tries: 0,
        own: own.current,
      });
      setPending(true);
      const send = () => {
        if (sending.current) {
          timer.current = setTimeout(send, BUSY_MS);
          return;
        }
        const body = unsent.current;
        unsent.current = null;
        if (!body) return;
        deliver(body, newest.current);
      };
      timer.current = setTimeout(send, pauseMs);
    },
    [form, deliver, mayChange],
  );

  useEarlierVisit(pathname, form, (draft) => {
    own.current = draft.own ?? [];
    clearTimeout(timer.current);
    unsent.current = null;
    deliver(formOf(draft.entries), draft.version ?? newest.current);
  });

  const takeLeft = useCallback(() => {
    clearTimeout(timer.current);
    const left = unsent.current ?? sending.current;
    left?.set("version", String(newest.current));
    // What is on its way already goes under its own id: it is carried out once.
    if (unsent.current) sign(unsent.current);
    unsent.current = sending.current = null;
    const draft = draftOf(path.current);
    if (draft) keepDraft(path.current, { ...draft, own: own.current });
    return left;
  }, [sign]);
  useSentAtLeave(pathname, takeLeft);

  return { soon, hold, forget, waiting: pending };
}
