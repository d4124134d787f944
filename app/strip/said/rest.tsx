import { useState } from "react";
import { href, Link, useFetcher } from "react-router";
import { factsOf, type Narration } from "#core/narration";
import type { SaidAnswer } from "../narration";
import { itemText } from "./itemText";

const SHOWN_LEFT = 12;

interface RestProps {
  readonly narration: Narration;
  readonly bikeId: string;
  readonly rideId: string;
}

/** What was heard and is not proposed, and facts that wait in pencil. */
export function Rest({ narration, bikeId, rideId }: RestProps) {
  const { setUp, left, unit } = narration;
  const fetcher = useFetcher<SaidAnswer>();
  const facts = factsOf(setUp, unit);
  const [all, setAll] = useState(false);
  return (
    <>
      {setUp.length ? (
        <section className="border-b border-rule p-3" aria-label="Set-up, in pencil">
          <h2 className="text-base">Set-up, in pencil</h2>
          <p className="mt-2 flex flex-wrap gap-2">
            {setUp.map((item, i) => (
              <span
                key={i}
                className="input-pencil rounded-sheet border border-dashed px-2 py-1"
                title={item.words}
              >
                {itemText(item)}
              </span>
            ))}
          </p>
          <p className="mt-2 text-sm text-quiet">
            Written on <Link to={href("/bikes/:bikeId", { bikeId })}>the bike</Link>, its pack, its set-up and
            the rider it stays in pencil until somebody says that it is so; what stands there in ink stays.
          </p>
          {facts.length ? (
            <button
              type="button"
              className="button mt-2"
              disabled={fetcher.state !== "idle"}
              onClick={() =>
                void fetcher.submit(
                  { intent: "setUp", rideId, facts: JSON.stringify(facts) },
                  { method: "post" },
                )
              }
            >
              Write {facts.length === 1 ? "it" : "them"} there in pencil
            </button>
          ) : null}
          {fetcher.data ? (
            <div role="status" className="mt-2 text-sm">
              {(fetcher.data.problem ? [fetcher.data.problem] : fetcher.data.facts).map((sentence) => (
                <p key={sentence}>{sentence}</p>
              ))}
            </div>
          ) : null}
        </section>
      ) : null}
      {left.length ? (
        <section className="p-3 text-sm" aria-label="Left out">
          <h2 className="inline text-base">Left out</h2>{" "}
          {(all ? left : left.slice(0, SHOWN_LEFT)).map(({ words, because }, i) => (
            <span key={i} className="text-quiet">
              “{words}”: {because} ·{" "}
            </span>
          ))}
          {left.length > SHOWN_LEFT && !all ? (
            <button type="button" className="button button-plain" onClick={() => setAll(true)}>
              {left.length - SHOWN_LEFT} more
            </button>
          ) : null}
        </section>
      ) : null}
    </>
  );
}
