import { useCallback, useMemo } from "react";
import { useSearchParams, useSubmit } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { useWho } from "#app/ui/who";
import type { Entry, EntryBody } from "#core/ride/log";
import type { loadTestPage } from "./load.server";
import type { Judgement } from "./tabs/entryRow";
import { useLong } from "./useLong";
import { useReckoning } from "./useReckoning";

/** The worker's answer is drawn before the page turns to sending, ms. */
const SEND_AFTER_MS = 80;

/** A line of the log as the page makes it: it stands after all that the server has. */
const LAST = 4_100_000_000_000;
export const lineOf = (body: EntryBody, supersedes: string | null = null): Entry => ({
  id: uuidv7(),
  seq: LAST + Math.floor(performance.now()),
  at: null,
  body,
  supersedes,
});

type Loaded = Awaited<ReturnType<typeof loadTestPage>>;
type Answered = Parameters<typeof useReckoning>[3];

/** The rides of a test as loaded, those of a long log with what came later. */
function useRides(loaded: Loaded) {
  const { line, isLong } = loaded;
  const long = useLong(isLong ? `/strip/${line.id}/long` : null, line.stamp);
  const rides = useMemo(
    () => loaded.rides.map((ride) => ({ ...ride, ...long?.rides.find(({ id }) => id === ride.id) })),
    [loaded.rides, long],
  );
  return { rides, long };
}

/** A test as its page shows it: rides, results as they follow each edit, and what can be done to the log. */
export function useTest(loaded: Loaded, answered: Answered) {
  const [search] = useSearchParams();
  const submit = useSubmit();
  const { mayChange } = useWho();
  const { line } = loaded;
  const { rides, long } = useRides(loaded);
  const { sent, problems } = long ?? loaded;
  const { results, propose, settled } = useReckoning(`/strip/${line.id}/record`, line.stamp, sent, answered);
  const correcting = rides.flatMap((ride) =>
    ride.log.filter(({ rootId }) => rootId === search.get("correct")).map((entry) => ({ ride, entry })),
  )[0];
  const ride = correcting?.ride ?? rides.find(({ id }) => id === search.get("ride")) ?? rides.at(-1)!;
  const rideAt = useCallback(
    (rootId: string) => rides.findIndex(({ log }) => log.some((entry) => entry.rootId === rootId)),
    [rides],
  );
  const rideIdOf = useCallback((rootId: string) => rides[rideAt(rootId)]?.id ?? null, [rides, rideAt]);
  /** Counts a line at once in the worker, and sends it to the server. */
  const send = useCallback(
    (at: number, entry: Entry, form: Record<string, string>) => {
      if (at < 0 || !mayChange) return;
      propose({ ride: at, entry });
      const body = { ...form, rideId: rides[at]!.id, entryId: entry.id };
      setTimeout(() => void submit(body, { method: "post", preventScrollReset: true }), SEND_AFTER_MS);
    },
    [propose, submit, rides, mayChange],
  );
  const onJudge = useCallback(
    ({ kind, target, field }: Judgement) =>
      send(rideAt(target), lineOf({ kind, target, ...(field && { field }) }), {
        judge: `${kind}/${target}/${field ?? ""}`,
      }),
    [send, rideAt],
  );
  const onSetAside = useCallback(
    ({ rootId, field, struck }: { rootId: string; field: string | null; struck: boolean }) =>
      onJudge({ kind: struck ? "restore" : "strike", target: rootId, field: field as Judgement["field"] }),
    [onJudge],
  );
  const onHandMark = (mark: number) => {
    const { ride: at, alongM } = results!.marks[mark]!;
    const before = results!.end.fullPower;
    // A mark that only this page has yet is of the ride at hand.
    const its = before?.by === "hand" ? rideAt(before.rootId ?? "") : null;
    const supersedes = its === at || its === -1 ? (before?.rootId ?? null) : null;
    send(at, lineOf({ kind: "fullPowerEnd", distanceM: alongM }, supersedes), {
      intent: "handMark",
      alongM: String(alongM),
      supersedes: supersedes ?? "",
    });
  };
  return {
    ...{ rides, ride, correcting, results, settled, problems },
    /** A long log whose strip is still to come. */
    awaitsLong: loaded.isLong && !long,
    ...{ rideIdOf, propose, onJudge, onSetAside, onHandMark },
  };
}

export type TestAtHand = ReturnType<typeof useTest>;
