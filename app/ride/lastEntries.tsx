import type { LineSetting, LiveEntry } from "#core/ride/log";
import { clockText } from "#core/base";
import { useSystem } from "#ui/system";
import type { KeptEntry } from "./outbox";
import { entryText, hasLine } from "./state";

/** Entries shown. */
const MOST = 12;

interface LastEntriesProps {
  /** Newest first. */
  readonly entries: readonly LiveEntry[];
  readonly setting: LineSetting;
  readonly zone: string;
  /** This browser's own name: entries of another are marked. */
  readonly device: string | null;
  readonly kept: readonly KeptEntry[];
  readonly onCorrect: (entry: LiveEntry) => void;
  readonly onStrike: (entry: LiveEntry) => void;
}

/** The last entries, each to be corrected or struck; what waits is hollow, what another phone noted says so. */
export function LastEntries(props: LastEntriesProps) {
  const { entries, setting, zone, device, kept, onCorrect, onStrike } = props;
  const system = useSystem();
  const byId = new Map(kept.map((one) => [one.id, one]));
  return (
    <ul aria-label="Last entries">
      {entries.slice(0, MOST).map((entry) => {
        const words = entryText(entry, setting, system);
        const own = byId.get(entry.id);
        const waits = own !== undefined && !own.sent;
        const other = device !== null && entry.device !== null && entry.device !== device;
        return (
          <li key={entry.rootId} className="flex flex-wrap items-center gap-x-2 border-b border-rule py-1">
            <span
              aria-hidden
              className={`size-2 shrink-0 rounded-full border border-spruce ${waits ? "" : "bg-spruce"}`}
            />
            <span className="w-11 text-sm text-quiet">
              {entry.timeS === null ? "" : clockText(entry.timeS * 1000, zone)}
            </span>
            <span
              className={`min-w-0 flex-1 font-mono text-sm ${entry.struck ? "text-quiet line-through" : ""}`}
            >
              {words}
              {other ? <span className="font-sans text-quiet"> other phone</span> : null}
              {waits ? <span className="sr-only"> waits to be sent</span> : null}
            </span>
            {entry.struck || !hasLine(entry, setting, system) ? null : (
              <button
                type="button"
                className="button button-plain"
                aria-label={`Correct ${words}`}
                onClick={() => onCorrect(entry)}
              >
                Correct
              </button>
            )}
            <button
              type="button"
              className="button button-plain"
              aria-label={`${entry.struck ? "Restore" : "Strike"} ${words}`}
              onClick={() => onStrike(entry)}
            >
              {entry.struck ? "Restore" : "Strike"}
            </button>
            {own?.refused ? (
              <p className="w-full text-sm text-rust">
                Kept here only: {own.refused} Correct it, and it goes out anew.
              </p>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}
