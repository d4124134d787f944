import { useCallback, useEffect, useRef, useState } from "react";
import type { SweepAsk, SweepTold } from "#app/workers/sweep.worker";
import type { SweepResults } from "#core/compare";

/** A sweep's results: the server's, and from the first edit on a worker's. Only the newest answer counts. */
export function useSweep(sent: SweepResults) {
  const worker = useRef<Worker | null>(null);
  const id = useRef(0);
  const [told, setTold] = useState<SweepResults | null>(null);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  const ask = useCallback((from: Omit<SweepAsk, "id">) => {
    if (!worker.current) {
      worker.current = new Worker(new URL("../workers/sweep.worker.ts", import.meta.url), { type: "module" });
      worker.current.onmessage = ({ data }: MessageEvent<SweepTold>) => {
        if (data.id === id.current) setTold(data.results);
      };
    }
    id.current += 1;
    worker.current.postMessage({ id: id.current, ...from } satisfies SweepAsk);
  }, []);
  return { ask, results: told ?? sent };
}
