import { useSyncExternalStore } from "react";
import { dayText } from "#core/base";
import { today } from "./typing";

export type Typing = "riding" | "notes";

const keyOf = (rideId: string) => `barometron-typing-${rideId}`;

const watchers = new Set<() => void>();
const watch = (told: () => void) => {
  watchers.add(told);
  return () => watchers.delete(told);
};
/** What was said of a ride, for browsers that keep nothing. */
const heard = new Map<string, string>();

function saidOf(rideId: string): Typing | null {
  let kept = heard.get(rideId) ?? null;
  try {
    kept ??= window.localStorage.getItem(keyOf(rideId));
  } catch {
    // Storage that is refused: what this page heard holds.
  }
  return kept === "riding" || kept === "notes" ? kept : null;
}

/**
 * Whether entries are made as the ride goes on, or typed up from notes: on the test's own day the first, on another day the
 * second until the person says otherwise. What was said is kept by this browser. Null on the test's own day.
 */
export function useTyping(rideId: string, testDay: string, zone: string, offsetS: number) {
  const typing = useSyncExternalStore(
    watch,
    () => (today(zone, offsetS) !== testDay ? (saidOf(rideId) ?? "notes") : null),
    () => null,
  );
  const say = (said: Typing) => {
    heard.set(rideId, said);
    try {
      window.localStorage.setItem(keyOf(rideId), said);
    } catch {
      // Storage that is full or refused: the answer holds for this page.
    }
    for (const told of watchers) told();
  };
  return { typing, say };
}

interface TypingNoticeProps {
  readonly day: string;
  readonly typing: Typing;
  readonly onSay: (typing: Typing) => void;
}

/** On another day than the test's: whether times are taken from this clock. */
export function TypingNotice({ day, typing, onSay }: TypingNoticeProps) {
  return (
    <section aria-label="When was it?" className="border-l-4 border-ochre-fill bg-sheet px-4 py-3">
      <p>
        This test is of {dayText(day)}.{" "}
        {typing === "notes"
          ? "Entries are kept without a time, unless you type it with them, such as 14:32."
          : "You ride on today: entries get the time of this clock."}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {(
          [
            ["riding", "I am riding now"],
            ["notes", "I am typing up notes"],
          ] as const
        ).map(([value, words]) => (
          <button
            key={value}
            type="button"
            aria-pressed={typing === value}
            className={`button ${typing === value ? "button-main" : ""}`}
            onClick={() => onSay(value)}
          >
            {words}
          </button>
        ))}
      </div>
    </section>
  );
}
