import { href } from "react-router";
import { useMemo } from "react";
import { foldLog, type EntryBody } from "#core/ride/log";
import { useSystem } from "#ui/system";
import type { LoadedRide } from "./load.server";
import { stateOf } from "./state";
import { useLive } from "./useLive";
import { useOutbox } from "./useOutbox";

/** When and instead of what an entry is kept. */
export interface Keeping {
  /** ISO 8601, or null for an entry without a time of its own. */
  readonly at: string | null;
  /** What its clock is off, where that is known otherwise than by this browser. */
  readonly clockOffsetS?: number;
  readonly supersedes?: string | null;
}

/** A ride's log as this browser knows it: the server's entries and its own, folded, with what they come to. */
export function useLog(loaded: LoadedRide) {
  const { line, ride, bike, entries } = loaded;
  const system = useSystem();
  const outbox = useOutbox(line.id);
  const first = { level: line.test.firstLevel || bike.levels[0]!, ground: line.test.firstGround };
  const { own, log, live, edits } = useMemo(() => {
    const held = new Set(entries.map(({ id }) => id));
    const mine = outbox.log.filter(({ rideId }) => rideId === ride.id);
    const pending = mine.filter(({ id }) => !held.has(id)).map(({ entry }) => entry);
    const all = [...entries, ...pending];
    return {
      own: mine,
      log: all,
      live: foldLog(all),
      edits: pending.map((entry) => ({ ride: ride.place, entry })),
    };
  }, [entries, outbox.log, ride.id, ride.place]);
  const { results, isOld } = useLive(
    href("/strip/:testId/record", { testId: line.id }),
    {
      stamp: line.stamp,
      results: loaded.results,
      pending: loaded.pending > 0,
      entries: entries.length,
    },
    edits,
  );
  const keepAt = (body: EntryBody, { at, clockOffsetS, supersedes = null }: Keeping) => {
    const lastSeq = log.reduce((most, entry) => Math.max(most, entry.seq), -1);
    return outbox.add(ride.id, lastSeq, {
      at,
      body,
      supersedes,
      ...(clockOffsetS !== undefined && { clockOffsetS }),
    });
  };
  return { outbox, own, live, state: stateOf(live, bike, first, system), results, isOld, keepAt };
}
