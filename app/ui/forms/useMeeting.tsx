import { useState, type ReactNode, type RefObject } from "react";
import type { FetcherWithComponents } from "react-router";
import { StaleNotice } from "#ui/forms/staleNotice";
import { savedOf, type Stale } from "./stale";
import { useKeeping } from "./useKeeping";

interface Meeting {
  /** Keeps after a pause; while two versions await a decision, only what is typed stays in the form. */
  soon(pauseMs: number): void;
  /** While what is typed cannot be kept. */
  hold(): void;
  readonly waiting: boolean;
  /** How it stands with what is typed, in words. */
  readonly status: "saving…" | "saved as typed" | "not saved yet";
  /** Another change was saved meanwhile, and it is not decided yet which stands. */
  readonly undecided: boolean;
  /** Stands in the form: the two versions side by side when they met, and the version it is saved over. */
  readonly fields: ReactNode;
}

/**
 * A form kept as it is typed, of a record others may change too.
 *
 * @param version of the record as it was loaded
 * @param stale what an answer to a save said of a newer version, null when there was none
 */
export function useMeeting(
  form: RefObject<HTMLFormElement | null>,
  fetcher: FetcherWithComponents<unknown>,
  version: number,
  stale: Stale | null,
): Meeting {
  const [decided, setDecided] = useState(0);
  const open = stale !== null && stale.version > decided ? stale : null;
  const saved = savedOf(fetcher.data);
  const isTaken = fetcher.data === undefined || saved !== null;
  const newest = Math.max(version, stale?.version ?? 0, saved ?? 0);
  const keep = useKeeping(form, fetcher, newest, open ? "undecided" : isTaken ? "taken" : "not taken");
  return {
    hold: keep.hold,
    status: keep.waiting ? "saving…" : open || !isTaken ? "not saved yet" : "saved as typed",
    waiting: keep.waiting,
    undecided: open !== null,
    soon: (pauseMs) => {
      if (!open) keep.soon(pauseMs);
    },
    fields: (
      <>
        {open ? (
          <StaleNotice
            stale={open}
            form={form}
            onMine={() => {
              setDecided(open.version);
              keep.soon(0);
            }}
            onTheirs={keep.forget}
          />
        ) : null}
        <input type="hidden" name="version" value={newest} />
      </>
    ),
  };
}
