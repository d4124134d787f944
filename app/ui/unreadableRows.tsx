import type { Unreadable } from "#db/unreadable";

const WHAT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    bike: "A bike",
    pack: "A pack",
    rider: "A rider",
    instrument: "An instrument",
    bench: "A bench test",
    set_up: "A set-up",
    course: "A course",
    method: "A method",
    plan: "A plan",
    test: "A test",
    entry: "An entry of the log",
    track: "A track",
    telemetry_import: "A logger's recording",
    sweep: "A sweep",
    climb: "A climb",
  }),
);

interface UnreadableRowsProps {
  readonly rows: readonly Unreadable[];
  readonly className?: string;
}

/** Stored rows that cannot be read, where they would stand: what they are, what is wrong, and what sets them aside. */
export function UnreadableRows({ rows, className = "" }: UnreadableRowsProps) {
  if (rows.length === 0) return null;
  return (
    <section className={`sheet border-l-4 border-l-rust p-4 ${className}`} aria-label="What cannot be read">
      <p className="font-bold text-rust">
        {rows.length === 1 ? "One stored row cannot be read" : `${rows.length} stored rows cannot be read`}
      </p>
      <ul className="my-2">
        {rows.map(({ table, id, label, sentences }) => (
          <li key={`${table}/${id}`}>
            {WHAT.get(table) ?? "A row"} {label === "without a name" ? "" : `“${label}” `}
            <span className="text-sm text-quiet">{sentences.join(" ")}</span>
          </li>
        ))}
      </ul>
      <p className="text-sm">
        {rows.length === 1 ? "It is" : "They are"} left out of every figure. The command{" "}
        <code>./barometron check</code> lists such rows and sets them aside; nothing of them is lost.
      </p>
    </section>
  );
}
