import { useEffect, useRef, useState } from "react";
import type { WorkerRequest, Edit, WorkerResponse } from "#app/workers/reckon.worker";
import type { TestResults } from "#core/analysis";

/** What a log comes to, as far as it is known. */
export interface Live {
  readonly results: TestResults | null;
  /** They are of the log as it was: the newest entry is not in them yet. */
  readonly isOld: boolean;
}

/** What the server sent: its results, whether they are of an earlier log, and how many entries the log has. */
interface Sent {
  readonly stamp: string;
  readonly results: TestResults | null;
  readonly pending: boolean;
  readonly entries: number;
}

/** What a worker answered, to which question, over how many entries. */
interface Answered {
  readonly key: string;
  readonly entries: number;
  readonly results: TestResults;
}

/**
 * The newest results there are: a worker's over the entries still on their way, or that the server has and has not counted yet;
 * else the server's.
 *
 * @param key of the question about the log as it is now; @param waits whether an entry is still on its way
 */
export function newest(sent: Sent, answered: Answered | null, key: string, waits: boolean): Live {
  if (!waits && !sent.pending) return { results: sent.results, isOld: false };
  const isOfNow = answered !== null && (waits ? answered.key === key : answered.entries === sent.entries);
  if (isOfNow) return { results: answered.results, isOld: false };
  const older = answered && answered.results.readings.length > (sent.results?.readings.length ?? 0);
  const results = older ? answered.results : sent.results;
  return { results, isOld: results !== null };
}

/**
 * Results with the entries that are still on their way: the server's while none are, else a worker's.
 *
 * @param address of the test's record
 */
export function useLive(address: string, sent: Sent, edits: readonly Edit[]): Live {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answered, setAnswered] = useState<Answered | null>(null);
  const { stamp } = sent;
  const entries = sent.entries + edits.length;
  const key = `${stamp} ${edits.map(({ entry }) => entry.id).join(" ")}`;
  useEffect(() => {
    if (edits.length === 0) return;
    worker.current ??= new Worker(new URL("../workers/reckon.worker.ts", import.meta.url), {
      type: "module",
    });
    worker.current.onmessage = ({ data: { id, result } }: MessageEvent<WorkerResponse>) => {
      if (id === asked.current && result?.ok) setAnswered({ key, entries, results: result.value });
    };
    asked.current += 1;
    worker.current.postMessage({ id: asked.current, address, stamp, edits } satisfies WorkerRequest);
  }, [address, stamp, edits, entries, key]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  return newest(sent, answered, key, edits.length > 0);
}
