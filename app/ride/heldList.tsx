interface HeldListProps {
  /** What the plan holds constant, a line each. */
  readonly lines: readonly string[];
  readonly held: ReadonlySet<string>;
  readonly onHeld: (line: string) => void;
}

/** What must stay the same, ticked as it is seen to be so; a tick is an entry of the log. */
export function HeldList({ lines, held, onHeld }: HeldListProps) {
  if (lines.length === 0) return null;
  const open = lines.filter((line) => !held.has(line)).length;
  return (
    <details className="sheet p-3">
      <summary className="cursor-pointer py-1">
        Held constant: {open === 0 ? "all seen to" : `${open} of ${lines.length} to see to`}
      </summary>
      <ul>
        {lines.map((line) => (
          <li key={line}>
            <button
              type="button"
              aria-pressed={held.has(line)}
              disabled={held.has(line)}
              className="flex min-h-12 w-full items-center gap-3 border-b border-rule text-left"
              onClick={() => onHeld(line)}
            >
              <span
                aria-hidden
                className={`grid size-6 shrink-0 place-items-center border ${held.has(line) ? "border-spruce bg-spruce text-onspruce" : "border-ink"}`}
              >
                {held.has(line) ? "✓" : ""}
              </span>
              {line}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
