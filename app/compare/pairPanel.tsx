import { href, Link } from "react-router";
import type { JointPair } from "#core/compare";
import { type Result, formatUncertain } from "#core/base";
import { Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { Difference, verdictOf } from "./difference";

export interface PairTest {
  readonly id: string;
  readonly bike: string;
  readonly title: string;
  readonly day: string;
  readonly setUp: string | null;
  readonly side: "A" | "B" | null;
}

interface PairPanelProps {
  readonly pair: {
    readonly joint: Result<JointPair>;
    readonly tests: readonly PairTest[];
    readonly confounders: readonly string[];
  } | null;
  readonly oneChosen: boolean;
}

/** Two tests side by side by one ledger: the difference, whether it is real, and what else differed. */
export function PairPanel({ pair, oneChosen }: PairPanelProps) {
  const system = useSystem();
  const say = useSpoken();
  const [first, second] = pair?.tests ?? [];
  if (!pair || !first || !second)
    return (
      <aside aria-label="Two tests" className="sheet h-fit p-5">
        <h2>Compare two</h2>
        <p className="mt-1 text-quiet">
          {oneChosen
            ? "One is chosen. Tick another to see the difference."
            : "Tick two tests to see their difference, whether it is real, and what else differed."}
        </p>
      </aside>
    );
  const { joint, confounders } = pair;
  return (
    <aside aria-label="Two tests" className="sheet h-fit p-5">
      <h2>
        {first.bike} against {second.bike}
      </h2>
      <p className="text-sm text-quiet">
        {first.title}; {second.title}; as ridden
      </p>
      {joint.ok ? (
        <>
          <Difference difference={joint.value.whole.difference} />
          <p className={`mt-3 ${joint.value.whole.resolved ? "" : "text-ochre"}`}>
            {verdictOf(joint.value, [first, second])}
          </p>
          <p className="mt-2">
            <Link to={`${href("/compare/pair")}?a=${first.id}&b=${second.id}`}>
              What would settle it, and why
            </Link>
          </p>
          <table className="table mt-3 w-full text-sm">
            <caption className="sr-only">What each of the two runs was</caption>
            <tbody>
              {[[first, joint.value.whole.a] as const, [second, joint.value.whole.b] as const].map(
                ([test, value]) => (
                  <tr key={test.id}>
                    <th scope="row">
                      <Link to={href("/strip/:testId", { testId: test.id })}>{test.bike}</Link>
                      <div className="text-quiet">{test.title}</div>
                    </th>
                    <td className="number">{formatUncertain(value, "energyPerDistance", system)}</td>
                  </tr>
                ),
              )}
            </tbody>
          </table>
        </>
      ) : (
        <Problems sentences={joint.problems.map(({ sentence }) => say(sentence))} />
      )}
      <h3 className="mt-4 font-bold">What else differed</h3>
      <Confounders sentences={confounders} />
    </aside>
  );
}

/** What else differed between two tests. */
export function Confounders({ sentences }: { readonly sentences: readonly string[] }) {
  if (sentences.length === 0)
    return <p className="text-sm text-quiet">Nothing on file or in the logs differs.</p>;
  return (
    <ul className="mt-1 list-disc pl-5 text-sm">
      {sentences.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ul>
  );
}
