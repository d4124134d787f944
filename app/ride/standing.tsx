import type { ReactNode } from "react";
import type { KeptEntry } from "./outbox";
import { isWaiting } from "./sender";
import type { StorageState, Trouble } from "./shelf";
import type { Leaving } from "./useOfflinePrefetch";

const SHELF_WORDS: Readonly<Record<StorageState, string | null>> = {
  unknown: null,
  good: null,
  refused:
    "This browser keeps nothing: entries that are not sent are lost when the page is closed. Allow storage, or use another browser, before you ride.",
  full: "This browser's storage is nearly full: it may not keep a ride's entries. Free some room before you ride.",
};

const TROUBLE = {
  away: " No network: they are kept here and go out by themselves.",
  barred:
    " The desk does not take them from here any more: it took this phone back, or nobody is signed in. They are kept; ask for a new code.",
  failing: " The desk broke on them: they are kept here and are tried again.",
} as const;

const LEAVING: Readonly<Record<Leaving, string>> = {
  unknown: "",
  storing: "Storing this page for use with no network…",
  ready: "Ready to leave: this page works with no network.",
  not: "Not stored for use with no network yet: stay near it, or load the page again.",
};

/** How far off a clock may be before it is told in hours, s. */
const AN_HOUR_S = 3600;

const lengthText = (seconds: number) =>
  seconds < 120
    ? `${Math.round(seconds)} seconds`
    : seconds < 2 * AN_HOUR_S
      ? `${Math.round(seconds / 60)} minutes`
      : `${Math.round(seconds / AN_HOUR_S)} hours`;

interface StandingProps {
  readonly shelf: StorageState;
  /** The last sending got no answer, the desk broke on it, or would not have it from here. */
  readonly trouble: Trouble;
  /** How far this clock is behind the server's, s; null when nobody looked. */
  readonly offsetS: number | null;
  /** Whether this page works with no network by now. */
  readonly leaving: Leaving;
  /** Null until the storage has been looked at. */
  readonly kept: readonly KeptEntry[] | null;
  /** Photographs that wait to be sent. */
  readonly photographs: number;
  /** What else stands on this line. */
  readonly children: ReactNode;
}

/** How the log stands: what waits, where it is kept, and a clock that is off. */
export function Standing({ shelf, trouble, offsetS, kept, photographs, leaving, children }: StandingProps) {
  const waiting = kept?.filter(isWaiting).length ?? null;
  const words = SHELF_WORDS[shelf];
  return (
    <>
      {words ? (
        <p role="alert" className="border-l-4 border-rust bg-sheet px-4 py-3">
          {words}
        </p>
      ) : null}
      {offsetS ? (
        <p role="status" className="border-l-4 border-ochre-fill bg-sheet px-4 py-2">
          This clock is {lengthText(Math.abs(offsetS))} {offsetS > 0 ? "behind" : "ahead of"} the desk&apos;s.
          Times are put right by that much, and the difference is kept with each entry.
        </p>
      ) : null}
      <div className="flex items-center justify-between gap-3">
        <p role="status" className="text-sm text-quiet">
          {waiting === null
            ? "Looking at what this browser holds…"
            : waiting === 0
              ? "Every entry is kept."
              : `${waiting === 1 ? "One entry waits" : `${waiting} entries wait`} to be sent.`}
          {photographs === 0
            ? ""
            : ` ${photographs === 1 ? "One photograph waits" : `${photographs} photographs wait`}.`}
          {trouble && waiting ? TROUBLE[trouble] : ""} {LEAVING[leaving]}
        </p>
        {children}
      </div>
    </>
  );
}
