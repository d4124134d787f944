import { useSpoken } from "#ui/system";
import { Difference, verdictOf } from "./difference";
import type { PairTest } from "./pairPanel";

interface VerdictProps {
  readonly pair: Parameters<typeof verdictOf>[0];
  readonly a: PairTest;
  readonly b: PairTest;
}

/** The difference of a pair, how sure it is, and what may have drifted. */
export function Verdict({ pair, a, b }: VerdictProps) {
  const say = useSpoken();
  return (
    <section>
      <Difference difference={pair.whole.difference} />
      <p className="mt-2 text-lg">
        {verdictOf(
          pair,
          a === b
            ? [
                { bike: "", title: "A" },
                { bike: "", title: "B" },
              ]
            : [a, b],
        )}
      </p>
      <p className="mt-1">{say(pair.rounding.sentence)}</p>
      {pair.lastBar ? <p className="mt-1 text-ochre">{pair.lastBar}</p> : null}
      {pair.orderWarning ? (
        <p className="mt-1 text-ochre">{pair.orderWarning}</p>
      ) : (
        <p className="mt-1 text-quiet">
          {pair.together
            ? "Ridden side by side: wind and warmth met both alike."
            : `Ridden ${pair.order.join(" ")}: a steady drift cancels.`}
        </p>
      )}
    </section>
  );
}
