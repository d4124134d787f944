import { useState, type RefObject } from "react";
import { useAnnounced } from "#ui/announce";
import { readLine, type EntryBody, type LineSetting } from "#core/ride/log";

interface LineFieldProps {
  readonly setting: LineSetting;
  readonly input: RefObject<HTMLInputElement | null>;
  /** What is corrected, as its line; empty for a new entry. */
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly correcting: boolean;
  /** Why a time that is typed is none of the ride's day; null where it is. */
  readonly clockProblem: (clock: string) => string | null;
  readonly onKeep: (body: EntryBody, clock: string | null) => void;
}

/** The line: what is typed, and as chips what it was understood as, before it is kept. */
export function LineField({
  setting,
  input,
  text,
  onText,
  correcting,
  clockProblem,
  onKeep,
}: LineFieldProps) {
  const [tried, setTried] = useState(false);
  const read = readLine(text, setting);
  const noTime = read.clock ? clockProblem(read.clock) : null;
  const problem = noTime ?? read.problem ?? null;
  const parts = [
    ...read.chips.map((chip) => ({ ...chip, why: null })),
    ...read.unread.map((left) => ({ ...left, says: null })),
  ].sort((a, b) => a.from - b.from);
  useAnnounced(
    text === "" ? null : parts.map((part) => `${part.text} ${part.why ?? part.says ?? ""}`.trim()).join(", "),
  );
  useAnnounced(tried ? problem : null);
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (!read.body || noTime) return;
        onKeep(read.body, read.clock);
        setTried(false);
      }}
    >
      <label htmlFor="line" className="mb-1 block text-sm font-medium">
        {correcting ? "The line, corrected" : "The line"}
      </label>
      <div className="flex gap-2">
        <input type="hidden" name="intent" value="line" />
        <input
          id="line"
          name="line"
          ref={input}
          value={text}
          onChange={(event) => onText(event.target.value)}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          placeholder="12.4mi 61% L2 #gravel"
          aria-describedby="line-read"
          className="input min-h-12 font-mono"
        />
        <button type="submit" className="button button-main min-h-12">
          Save
        </button>
      </div>
      <div id="line-read" className="mt-2 flex min-h-8 flex-wrap gap-1.5 text-sm">
        {parts.map((part) =>
          part.why === null ? (
            <span key={part.from} className="rounded-sheet border border-spruce px-1.5 py-0.5">
              {part.text} <span className="text-quiet">{part.says}</span>
            </span>
          ) : (
            <span
              key={part.from}
              className="rounded-sheet border border-dashed border-ochre px-1.5 py-0.5 text-ochre italic"
            >
              {part.text} <span>{part.why}</span>
            </span>
          ),
        )}
        {tried && problem ? <span className="text-rust">{problem}</span> : null}
      </div>
    </form>
  );
}
