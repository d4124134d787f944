import { useEffect, useRef, useState, type ReactNode, type RefObject } from "react";
import { useBlocker, useLocation } from "react-router";
import { LeaveDialog } from "#ui/overlays/leaveDialog";
import { draftOf, entriesOf, fillForm, keepDraft } from "#app/ui/forms/drafts";

/** Says that what was typed before is back, and how to begin anew. */
function DraftBack({ onForget }: { readonly onForget: () => void }) {
  return (
    <p role="status" className="border-l-4 border-ochre-fill bg-sheet px-4 py-2 text-sm">
      What you typed here before is back; it was not saved yet.{" "}
      <button
        type="button"
        className="button button-plain"
        onClick={() => {
          onForget();
          location.reload();
        }}
      >
        Start over
      </button>
    </p>
  );
}

/**
 * Keeps what is typed into a form that is saved by its button: put back when the page is opened again, asked about when the
 * page is left, gone when it was saved.
 *
 * @param version of the record as it was opened; undefined for something new
 * @param state whether a save is under way, and whether the last was answered with problems
 * @returns what to show of it, and what the form's events are to call
 */
export function useDraft(
  form: RefObject<HTMLFormElement | null>,
  version: number | undefined,
  { busy, refused }: { readonly busy: boolean; readonly refused: boolean },
): { readonly notice: ReactNode; readonly onInput: () => void; readonly onSubmit: () => void } {
  const { pathname } = useLocation();
  const [isBack, setBack] = useState(false);
  const dirty = useRef(false);
  const sent = useRef(false);
  const path = useRef(pathname);
  useEffect(() => {
    const draft = draftOf(path.current);
    if (!draft || !form.current) return;
    if (draft.version !== (version ?? null)) return keepDraft(path.current, null);
    fillForm(form.current, draft.entries);
    setBack(true);
    dirty.current = true;
    // Only what was there when the page was opened comes back.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    if (busy || !sent.current) return;
    if (refused) sent.current = false;
    else {
      keepDraft(path.current, null);
      dirty.current = false;
    }
  }, [busy, refused]);
  useEffect(() => {
    const at = path.current;
    return () => {
      if (sent.current) keepDraft(at, null);
    };
  }, []);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      dirty.current && !sent.current && currentLocation.pathname !== nextLocation.pathname,
  );
  const forget = () => {
    keepDraft(path.current, null);
    dirty.current = false;
    setBack(false);
  };
  return {
    onInput: () => {
      sent.current = false;
      dirty.current = true;
      if (form.current)
        keepDraft(path.current, {
          entries: entriesOf(new FormData(form.current)),
          version: version ?? null,
          tries: 0,
        });
    },
    onSubmit: () => {
      sent.current = true;
    },
    notice: (
      <>
        {isBack ? <DraftBack onForget={forget} /> : null}
        {blocker.state === "blocked" ? (
          <LeaveDialog
            onStay={() => blocker.reset()}
            onLeave={() => {
              forget();
              blocker.proceed();
            }}
          />
        ) : null}
      </>
    ),
  };
}
