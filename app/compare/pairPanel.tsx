import { href, Link } from "react-router";
import { lessText, type JointPair, type Why } from "#core/compare";
import { type Estimate, type Result, formatUncertain } from "#core/base";
import { Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { Difference, verdictOf } from "./difference";
import { WhyUnder, type Under } from "./pairUnder";

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
  /** The two under the reference chosen; null where all is as ridden. */
  readonly brought: {
    readonly key: string;
    readonly name: string;
    readonly under: Under | null;
    readonly why: readonly Why[];
    readonly notBrought: readonly string[];
  } | null;
  readonly oneChosen: boolean;
}

interface SidesTableProps {
  readonly rows: readonly {
    readonly test: PairTest;
    readonly value: Estimate;
    /** As ridden, beside a figure under a reference. */
    readonly ridden: Estimate | null;
  }[];
}

/** What each of the two takes. */
function SidesTable({ rows }: SidesTableProps) {
  const system = useSystem();
  return (
    <table className="table mt-3 w-full text-sm">
      <caption className="sr-only">What each of the two takes</caption>
      <tbody>
        {rows.map(({ test, value, ridden }) => (
          <tr key={test.id}>
            <th scope="row">
              <Link to={href("/strip/:testId", { testId: test.id })}>{test.bike}</Link>
              <div className="text-quiet">{test.title}</div>
            </th>
            <td className="number">
              {formatUncertain(value, "energyPerDistance", system)}
              {ridden ? (
                <div className="text-quiet">
                  {formatUncertain(ridden, "energyPerDistance", system)} as ridden
                </div>
              ) : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Two tests side by side: their difference as asked for, how sure it is, why, and what else differed. */
export function PairPanel({ pair, brought, oneChosen }: PairPanelProps) {
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
  const whole = joint.ok ? joint.value.whole : null;
  const { under = null } = brought ?? {};
  const names = first.bike === second.bike ? [first.title, second.title] : [first.bike, second.bike];
  const [a, b] = [names[0]!, names[1]!];
  return (
    <aside aria-label="Two tests" className="sheet h-fit p-5">
      <h2>
        {first.bike} against {second.bike}
      </h2>
      <p className="text-sm text-quiet">
        {first.title}; {second.title}; {brought ? `under ${brought.name}` : "as ridden"}
      </p>
      {brought && under ? (
        <>
          <Difference difference={under.difference} />
          <p className="mt-3">{lessText(under.chanceA, a, b)}</p>
          <WhyUnder why={brought.why} />
          <SidesTable
            rows={[
              { test: first, value: under.a, ridden: whole?.a ?? null },
              { test: second, value: under.b, ridden: whole?.b ?? null },
            ]}
          />
        </>
      ) : joint.ok ? (
        <>
          {brought ? <Problems sentences={brought.notBrought.map(say)} /> : null}
          <Difference difference={joint.value.whole.difference} />
          <p className="mt-3">{verdictOf(joint.value, [first, second])}</p>
          <SidesTable
            rows={[
              { test: first, value: joint.value.whole.a, ridden: null },
              { test: second, value: joint.value.whole.b, ridden: null },
            ]}
          />
        </>
      ) : (
        <Problems sentences={joint.problems.map(({ sentence }) => say(sentence))} />
      )}
      <p className="mt-2">
        <Link
          to={`${href("/compare/pair")}?${new URLSearchParams({ a: first.id, b: second.id, ...(brought && { under: brought.key }) })}`}
        >
          What would make it surer
        </Link>
      </p>
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
