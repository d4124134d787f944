import { useEffect, useRef, useState } from "react";
import type { DrawsAsk, DrawsTold } from "#app/workers/draws.worker";
import type { Drawable } from "#core/compare";
import { formatUncertain, Z_95, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";

interface DrawsCheckProps {
  readonly drawable: Drawable;
  readonly whPerM: Estimate;
}

const COUNT = 5_000;
const SEED = 1;
/** Spans alike to this share agree. */
const ALIKE = 0.15;

type State =
  | { readonly is: "idle" }
  | { readonly is: "running"; readonly done: number }
  | { readonly is: "done"; readonly mean: number; readonly low: number; readonly high: number };

/** Checks a figure's plus-or-minus by drawing every unknown many times over, in the background; it can be stopped. */
export function DrawsCheck({ drawable, whPerM }: DrawsCheckProps) {
  const system = useSystem();
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<State>({ is: "idle" });
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => stop, []);
  const start = () => {
    stop();
    setState({ is: "running", done: 0 });
    worker.current = new Worker(new URL("../workers/draws.worker.ts", import.meta.url), { type: "module" });
    worker.current.onmessage = ({ data }: MessageEvent<DrawsTold>) => {
      if ("done" in data) return setState({ is: "running", done: data.done });
      stop();
      setState({ is: "done", ...data.spread });
    };
    worker.current.postMessage({ drawable, count: COUNT, seed: SEED } satisfies DrawsAsk);
  };
  if (state.is === "running")
    return (
      <div className="mt-3 flex flex-wrap items-center gap-3 text-sm">
        {/* First, so that the growing count does not move it from under the pointer. */}
        <button
          type="button"
          className="button button-plain"
          onClick={() => {
            stop();
            setState({ is: "idle" });
          }}
        >
          Stop
        </button>
        <progress value={state.done} max={COUNT} aria-label="Draws made" className="w-40" />
        <span className="text-quiet">
          {state.done} of {COUNT} draws
        </span>
      </div>
    );
  const drawn = state.is === "done" ? { mean: state.mean, sd: (state.high - state.low) / (2 * Z_95) } : null;
  const off = drawn && drawn.sd / whPerM.sd - 1;
  return (
    <div className="mt-3 text-sm">
      {drawn ? (
        <p role="status">
          {COUNT} draws of every unknown give {formatUncertain(drawn, "energyPerDistance", system)}:{" "}
          {Math.abs(off!) < ALIKE
            ? "the plus-or-minus above holds."
            : `the plus-or-minus above is ${off! > 0 ? "too narrow" : "too wide"} for so far a way.`}
        </p>
      ) : null}
      <button type="button" className="button button-plain" onClick={start}>
        {drawn ? "Draw again" : "Check the plus-or-minus by drawing"}
      </button>
    </div>
  );
}
