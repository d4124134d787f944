import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Ask, Edit, Told } from "#app/workers/reckon.worker";
import { stripResults, type StripResults } from "./view";

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

  const post = useCallback((ask: Omit<Ask, "id">) => {
    asked.current += 1;
    worker.current?.postMessage({ ...ask, id: asked.current } satisfies Ask);
  }, []);

  useEffect(() => {
    const made = new Worker(new URL("../workers/reckon.worker.ts", import.meta.url), { type: "module" });
    worker.current = made;
    made.onmessage = ({ data: { id, result } }: MessageEvent<Told>) => {
      if (id !== asked.current || !result?.ok || edits.current.list.length === 0) return;
      const results = stripResults(result.value);
      const by = { stamp: edits.current.stamp, refusal: edits.current.refusal };
      startTransition(() => setTold({ ...by, results }));
    };
    return () => {
      made.terminate();
      worker.current = null;
    };
  }, []);

  // The record is read and reckoned once ahead, so that the first edit is answered at once.
  useEffect(() => {
    edits.current = { stamp, refusal, list: [] };
    post({ address, stamp, edits: [] });
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
