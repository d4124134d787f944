import { useCallback, useEffect, useRef, useState } from "react";
import type { QuickAsk, QuickTold } from "#app/workers/quick.worker";

/** A quick figure by a worker, as the words are typed; only the newest answer counts. */
export function useQuick(day: string) {
  const worker = useRef<Worker | null>(null);
  const id = useRef(0);
  const [told, setTold] = useState<QuickTold | null>(null);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  const ask = useCallback(
    (notes: string) => {
      id.current += 1;
      if (notes.trim() === "") {
        setTold(null);
        return;
      }
      if (!worker.current) {
        worker.current = new Worker(new URL("../workers/quick.worker.ts", import.meta.url), {
          type: "module",
        });
        worker.current.onmessage = ({ data }: MessageEvent<QuickTold>) => {
          if (data.id === id.current) setTold(data);
        };
      }
      worker.current.postMessage({ id: id.current, notes, day } satisfies QuickAsk);
    },
    [day],
  );
  return { ask, told };
}
