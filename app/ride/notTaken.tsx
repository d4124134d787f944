import { useSystem } from "#ui/system";
import { type LineSetting, writeLine } from "#core/ride/log";
import type { KeptEntry } from "./outbox";

interface NotTakenProps {
  readonly kept: readonly KeptEntry[];
  readonly setting: LineSetting;
  readonly onAgain: (id: string) => void;
}

/** What an entry says, in the words of the line where there are some. */
function wordsOf(
  { body }: KeptEntry["entry"],
  setting: LineSetting,
  system: ReturnType<typeof useSystem>,
): string {
  return writeLine(body, setting, system, 1) || body.kind;
}

/** Entries the desk did not take, all of them in sight: why, and what to do. They are safe in this browser. */
export function NotTaken({ kept, setting, onAgain }: NotTakenProps) {
  const system = useSystem();
  const refused = kept.filter(({ sent, refused: why }) => !sent && why !== undefined);
  if (refused.length === 0) return null;
  return (
    <section
      role="alert"
      className="border-l-4 border-rust bg-sheet px-4 py-3"
      aria-label="Not taken by the desk"
    >
      <p className="font-bold text-rust">
        {refused.length === 1
          ? "One entry was not taken by the desk. It is kept in this browser; all others go through."
          : `${refused.length} entries were not taken by the desk. They are kept in this browser; all others go through.`}
      </p>
      <ul>
        {refused.map(({ id, entry, refused: why }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 py-1">
            <span className="font-mono text-sm">{wordsOf(entry, setting, system)}</span>
            <span className="min-w-0 flex-1 basis-48 text-sm">{why}</span>
            <button type="button" className="button" onClick={() => onAgain(id)}>
              Try again
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
