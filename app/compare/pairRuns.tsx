import { useState } from "react";
import { href, Link } from "react-router";
import { sourceWords } from "#core/analysis";
import { dayText, fixed, formatQuantity, formatUncertain, METRES_PER_MILE, scale, Z_95 } from "#core/base";
import { useSystem } from "#ui/system";
import { AddRun, sideName } from "./addRun";
import { Confounders, type PairTest } from "./pairPanel";
import type { Route } from "./+types/pair";

type Data = Route.ComponentProps["loaderData"];
type PairRunsProps = Pick<Data, "tests" | "others" | "joint" | "confounders">;
type JointPair = Extract<Data["joint"], { ok: true }>["value"];

/** What the doubt of a difference is made of. */
function Doubt({ pair }: { readonly pair: JointPair }) {
  const system = useSystem();
  const [drawn, setDrawn] = useState(false);
  return (
    <>
      <h3 className="mt-4 font-bold">What the doubt is made of</h3>
      <ul className="mt-1 text-sm">
        {pair.budget.slice(0, drawn ? undefined : 5).map(({ source, share }) => (
          <li key={source} className="flex justify-between">
            <span>{sourceWords(source)}</span>
            <span>{fixed(100 * share, 0)} %</span>
          </li>
        ))}
      </ul>
      {pair.budget.length > 5 && !drawn ? (
        <button type="button" className="button button-plain mt-1" onClick={() => setDrawn(true)}>
          all sources
        </button>
      ) : null}
      <p className="mt-3 text-sm text-quiet">
        Counted separately, the plus-or-minus would be{" "}
        {formatQuantity(Z_95 * pair.sdApart, "energyPerDistance", system)}. Over{" "}
        {formatQuantity(20 * METRES_PER_MILE, "distance", system, 0)} the difference is{" "}
        {formatUncertain(scale(pair.whole.difference, 20 * METRES_PER_MILE), "energy", system, true)}.
      </p>
    </>
  );
}

/** The runs of a pair, what else differed between them, and what the doubt is made of. */
export function PairRuns({ tests, others, joint, confounders }: PairRunsProps) {
  const toggled = (side: PairTest["side"], id: string) =>
    tests
      .filter((each) => each.id !== id)
      .map((each) => `${sideName(each.side)}=${each.id}`)
      .concat(side ? [`${side === "A" ? "b" : "a"}=${id}`] : [])
      .join("&");
  return (
    <aside aria-label="The runs" className="sheet h-fit p-5">
      <h2>The runs</h2>
      <ul className="mt-2 grid gap-2 text-sm">
        {tests.map(({ id, side, bike, title: test, day }) => (
          <li key={id} className="flex items-baseline gap-2">
            <b className="w-6 shrink-0">{side ?? "A B"}</b>
            <span className="min-w-0 flex-1">
              <Link to={href("/strip/:testId", { testId: id })} className="underline">
                {bike}
              </Link>
              , {test}, {dayText(day)}
            </span>
            {side ? (
              <Link
                to={`?${toggled(side, id)}`}
                className="underline"
                aria-label={`Count ${test} as ${side === "A" ? "B" : "A"}`}
              >
                as {side === "A" ? "B" : "A"}
              </Link>
            ) : null}
          </li>
        ))}
      </ul>
      <AddRun tests={tests} others={others} />
      <h3 className="mt-4 font-bold">What else differed</h3>
      <Confounders sentences={confounders} />
      {joint.ok ? <Doubt pair={joint.value} /> : null}
    </aside>
  );
}
