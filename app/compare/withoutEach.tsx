import { href } from "react-router";
import { useEffect, useRef, useState } from "react";
import type { PairTold, PairWork } from "#app/workers/pair.worker";
import { lessShort, type PairedTest, type WithoutOne } from "#core/compare";
import { certaintyOf } from "#core/base";
import { useSigned } from "./difference";
import type { PairTest } from "./pairPanel";

interface WithoutEachProps {
  readonly tests: readonly PairTest[];
  /** The pair's own address, behind the question mark. */
  readonly query: string;
  /** Chance that A used less, with all of them. */
  readonly chanceA: number;
}

type State = "idle" | "running" | "failed";

/** Which side is said to use less, and how surely. */
const verdict = (chanceA: number) =>
  `${certaintyOf(chanceA)} ${certaintyOf(chanceA) === "open" || chanceA > 0.5}`;

/** Solves the pair without each of its tests in turn, in the background: does one run alone decide it? */
export function WithoutEach({ tests, query, chanceA }: WithoutEachProps) {
  const signed = useSigned();
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<State>("idle");
  const [told, setTold] = useState<readonly WithoutOne[]>([]);
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setState("idle");
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const start = async () => {
    setTold([]);
    setState("running");
    const answer = await fetch(`${href("/compare/pair/tests")}?${query}`);
    if (!answer.ok) return setState("failed");
    const paired = (await answer.json()) as readonly PairedTest[];
    worker.current = new Worker(new URL("../workers/pair.worker.ts", import.meta.url), { type: "module" });
    worker.current.onmessage = ({ data: { without } }: MessageEvent<PairTold>) =>
      setTold((before) => {
        const now = [...before, without];
        if (now.length === paired.length) stop();
        return now;
      });
    worker.current.postMessage({ tests: paired } satisfies PairWork);
  };
  if (tests.length < 3) return null;
  const turns = told.filter((each) => each.difference && verdict(each.chanceA) !== verdict(chanceA));
  return (
    <section>
      <h2 className="mb-1">Does one run alone decide it?</h2>
      {told.length ? (
        <ul className="text-sm">
          {told.map(({ id, difference, chanceA: chance }) => (
            <li key={id}>
              Without “{tests.find((each) => each.id === id)?.title}”:{" "}
              {difference ? `${signed(difference)}, ${lessShort(chance)}` : "one side has no run left"}
            </li>
          ))}
        </ul>
      ) : null}
      {state === "running" ? (
        <p className="mt-2 flex items-center gap-3 text-sm">
          <progress value={told.length} max={tests.length} aria-label="Runs left out" className="w-40" />
          <button type="button" className="button button-plain" onClick={stop}>
            Stop
          </button>
        </p>
      ) : (
        <p className="mt-1 text-sm">
          {told.length === tests.length ? (
            <span role="status">
              {turns.length
                ? "Yes: without one of them the verdict is another. "
                : "No: every one may be left out. "}
            </span>
          ) : null}
          {state === "failed" ? <span className="text-rust">The server did not answer. </span> : null}
          <button type="button" className="button button-plain" onClick={() => void start()}>
            Leave each out in turn
          </button>
        </p>
      )}
    </section>
  );
}
