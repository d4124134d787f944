import { useCallback, useEffect, useRef, useState } from "react";
import type { PlanAsk, PlanTold } from "#app/workers/plan.worker";
import type { Result } from "#core/base";
import type { PlanRecord, PlanResults, PlanYield } from "#core/planning";

export interface Reckoned {
  readonly results: Result<PlanResults>;
  readonly yielded: Result<PlanYield>;
}

/**
 * The reckoning on the page: the server's, and from the first edit on that of a worker. A change of bike, pack or course
 * comes with a new reckoning from the server, under another stamp.
 *
 * @param stamp of what the server sent that a worker cannot know
 */
export function usePlan(sent: Reckoned, stamp: string) {
  const worker = useRef<Worker | null>(null);
  const asked = useRef({ id: 0, stamp });
  const [told, setTold] = useState<(Partial<Reckoned> & { readonly stamp: string }) | null>(null);

  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );

  const ask = useCallback(
    (record: PlanRecord) => {
      if (!worker.current) {
        worker.current = new Worker(new URL("../workers/plan.worker.ts", import.meta.url), {
          type: "module",
        });
        worker.current.onmessage = ({ data: { id, ...news } }: MessageEvent<PlanTold>) => {
          if (id === asked.current.id)
            setTold((before) => ({ ...before, ...news, stamp: asked.current.stamp }));
        };
      }
      asked.current = { id: asked.current.id + 1, stamp };
      worker.current.postMessage({ id: asked.current.id, record } satisfies PlanAsk);
    },
    [stamp],
  );

  const fresh = told?.stamp === stamp ? told : null;
  return {
    ask,
    results: fresh?.results ?? sent.results,
    yielded: fresh?.yielded ?? sent.yielded,
  };
}
