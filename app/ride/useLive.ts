import { useEffect, useRef, useState } from "react";
import type { WorkerRequest, Edit, WorkerResponse } from "#app/workers/reckon.worker";
import type { TestResults } from "#core/analysis";

/** The results that hold more of the log: while the server still reckons what it was sent, the page knows more. */
function furtherOf(sent: TestResults | null, told: TestResults | null): TestResults | null {
  if (!sent || !told) return sent ?? told;
  return told.readings.length > sent.readings.length ? told : sent;
}

/**
 * Results with the entries that are still on their way: the server's while none are, else a worker's.
 *
 * @param address of the test's record; @param stamp of the results the server sent
 */
export function useLive(address: string, stamp: string, sent: TestResults | null, edits: readonly Edit[]) {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [told, setTold] = useState<{ key: string; results: TestResults } | null>(null);
  const key = `${stamp} ${edits.map(({ entry }) => entry.id).join(" ")}`;
  useEffect(() => {
    if (edits.length === 0) return;
    worker.current ??= new Worker(new URL("../workers/reckon.worker.ts", import.meta.url), {
      type: "module",
    });
    worker.current.onmessage = ({ data: { id, result } }: MessageEvent<WorkerResponse>) => {
      if (id === asked.current && result?.ok) setTold({ key, results: result.value });
    };
    asked.current += 1;
    worker.current.postMessage({ id: asked.current, address, stamp, edits } satisfies WorkerRequest);
  }, [address, stamp, edits, key]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  if (edits.length === 0) return furtherOf(sent, told?.results ?? null);
  return told?.results ?? sent;
}
