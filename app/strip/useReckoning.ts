import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { WorkerRequest, Edit, WorkerResponse } from "#app/workers/reckon.worker";
import { stripResults, type StripResults } from "#app/services/strip/view";

/** Marks above which new results are drawn in slices. */
const MANY_MARKS = 120;
/** How long the page settles before the worker starts, ms. */
const AHEAD_MS = 400;

/**
 * The results on the page: those of the server, and while an edit is on its way there, those a worker reckons with the
 * edit already counted. A new stamp from the server brings its own results and ends the wait; so does a refusal.
 *
 * @param address of the test's record; @param stamp of the results the server sent; @param refusal its answer to an
 *   edit it did not take
 */
export function useReckoning(address: string, stamp: string, sent: StripResults | null, refusal: unknown) {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const edits = useRef<{ stamp: string; refusal: unknown; list: readonly Edit[] }>({
    stamp,
    refusal,
    list: [],
  });
  const [told, setTold] = useState<{ stamp: string; refusal: unknown; results: StripResults } | null>(null);

  const post = useCallback((ask: Omit<WorkerRequest, "id">) => {
    if (!worker.current) {
      worker.current = new Worker(new URL("../workers/reckon.worker.ts", import.meta.url), {
        type: "module",
      });
      worker.current.onmessage = ({ data: { id, result } }: MessageEvent<WorkerResponse>) => {
        if (id !== asked.current || !result?.ok || edits.current.list.length === 0) return;
        const results = stripResults(result.value);
        const by = { stamp: edits.current.stamp, refusal: edits.current.refusal };
        const show = () => setTold({ ...by, results });
        // A long strip is drawn in slices, so that no frame is held up; a short one at once.
        if (results.marks.length > MANY_MARKS) startTransition(show);
        else show();
      };
    }
    asked.current += 1;
    worker.current.postMessage({ ...ask, id: asked.current } satisfies WorkerRequest);
  }, []);

  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );

  // Once the page has settled, the record is read and reckoned ahead, so that the first edit is answered at once.
  useEffect(() => {
    edits.current = { stamp, refusal, list: [] };
    const timer = setTimeout(() => {
      if (edits.current.list.length === 0) post({ address, stamp, edits: [] });
    }, AHEAD_MS);
    return () => clearTimeout(timer);
  }, [address, stamp, refusal, post]);

  const propose = useCallback(
    (edit: Edit) => {
      const list = [...edits.current.list, edit];
      edits.current = { ...edits.current, list };
      post({ address, stamp, edits: list });
    },
    [address, stamp, post],
  );

  const settled = told?.stamp !== stamp || told.refusal !== refusal;
  // An edit that only the page has yet is not to be lost by closing it.
  useEffect(() => {
    if (settled) return;
    const hold = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", hold);
    return () => window.removeEventListener("beforeunload", hold);
  }, [settled]);
  const results = settled ? sent : told.results;
  return useMemo(() => ({ results, propose, settled }), [results, propose, settled]);
}
