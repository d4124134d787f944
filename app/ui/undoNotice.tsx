import { useEffect } from "react";
import { announce } from "#app/ui/announcer";
import type { Did } from "#app/ui/safePath";
import { href, Form, useLocation, useSearchParams } from "react-router";

const UNDONE: ReadonlyMap<string, string> = new Map([
  ["yes", "Undone."],
  ["changed", "It was changed again since, so that was not undone: undo the later change first."],
]);

const DONE: ReadonlyMap<string, string> = new Map<Did, string>([
  ["archived", "Archived."],
  ["back", "Brought back."],
  ["deleted", "In the trash for 30 days: see Settings."],
  ["copied", "Copied. This is the copy."],
  ["renamed", "Renamed."],
  ["merged", "Merged."],
]);

const TOO_LATE = "That change is too long ago to undo.";

/** After a change: a line that says so, with its undoing. */
export function UndoNotice() {
  const [search] = useSearchParams();
  const { pathname, search: query } = useLocation();
  const change = search.get("changed");
  const undone = search.get("undone");
  const words = change
    ? (DONE.get(search.get("did") ?? "") ?? "Saved.")
    : undone
      ? (UNDONE.get(undone) ?? TOO_LATE)
      : null;
  useEffect(() => announce(words ?? ""), [words, change]);
  if (!words) return null;
  return (
    <div className="flex items-center gap-3 border-b border-rule bg-sheet px-4 py-1.5 text-sm md:px-6 print:hidden">
      {change ? (
        <>
          <span>{words}</span>
          <Form method="post" action={href("/undo")}>
            <input type="hidden" name="change" value={change} />
            <input type="hidden" name="to" value={`${pathname}${query}`} />
            <button type="submit" className="button button-plain">
              Undo
            </button>
          </Form>
        </>
      ) : (
        <span>{words}</span>
      )}
    </div>
  );
}
