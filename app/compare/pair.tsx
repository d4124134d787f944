import { useState } from "react";
import { Link } from "react-router";
import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { dayText } from "#app/ui/testLine";
import { fixed, formatQuantity, formatUncertain, METRES_PER_MILE, scale, Z_95 } from "#core/base";
import { newestReferences, referenceKey, referenceName } from "#core/bike";
import { sourceWords } from "#core/analysis";
import { Page, Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { AddRun, sideName } from "./addRun";
import { onDesk } from "#app/services/comparison/answer.server";
import { Difference, verdictOf } from "./difference";
import { readPair } from "#app/services/comparison/pair.server";
import { SectionsTable } from "./sectionsTable";
import { SettleList } from "./settleList";
import { Settles } from "./settles";
import { Worths } from "./worths";
import { Confounders, type PairTest } from "./pairPanel";
import { allReferences, referenceAt } from "#app/services/comparison/references.server";
import { WithoutEach } from "./withoutEach";
import type { Route } from "./+types/pair";

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const ask = readPair(new URL(request.url).searchParams);
  const [{ value, pending }, reference, references] = await Promise.all([
    onDesk(db, request, "pair", { ask, system: systemOf(request) }),
    referenceAt(db, request),
    allReferences(db),
  ]);
  const { tests, others, joint, confounders } = value;
  const sideOf = (side: "A" | "B") => tests.filter((test) => test.side === side).map(({ id }) => id);
  const brought = reference
    ? (await onDesk(db, request, "pairUnder", { a: sideOf("A"), b: sideOf("B"), reference })).value
    : { under: null, settles: [], notBrought: [] };
  const [first, second] = [sideOf("A")[0], sideOf("B")[0]];
  const worths =
    first && second ? (await onDesk(db, request, "pairWorth", { a: first, b: second })).value : [];
  return {
    worths,
    tests,
    others,
    joint,
    confounders,
    pending,
    reference: reference && { key: referenceKey(reference), name: referenceName(reference) },
    references: newestReferences(references).map(({ name }) => name),
    ...brought,
  };
}

/** Two put against each other by one ledger: the verdict, what confounds it, and what would settle it. */
export default function PairPage({ loaderData }: Route.ComponentProps) {
  const { tests, others, joint, confounders, worths, under, reference, references, notBrought, settles } =
    loaderData;
  const system = useSystem();
  const say = useSpoken();
  const [drawn, setDrawn] = useState(false);
  const [a, b] = [tests.find(({ side }) => side !== "B"), tests.find(({ side }) => side !== "A") ?? tests[0]];
  const title = a && b && a !== b ? `${a.bike} against ${b.bike}` : a ? `${a.title}: A against B` : "A pair";
  const query = tests.map(({ id, side }) => `${sideName(side)}=${id}`).join("&");
  const toggled = (side: PairTest["side"], id: string) =>
    tests
      .filter((each) => each.id !== id)
      .map((each) => `${sideName(each.side)}=${each.id}`)
      .concat(side ? [`${side === "A" ? "b" : "a"}=${id}`] : [])
      .join("&");
  return (
    <Page
      title={title}
      line={`One ledger over ${tests.length === 1 ? "one test" : `${tests.length} tests`}: what the runs share, the pack, a meter, the same hills, cancels in the difference.`}
      next={
        <Link to={`/compare?${tests.map(({ id }) => `test=${id}`).join("&")}`} className="button">
          Choose others
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="grid min-w-0 content-start gap-6">
          {joint.ok && a && b ? (
            <>
              <section>
                <Difference difference={joint.value.whole.difference} />
                <p className={`mt-2 text-lg ${joint.value.whole.resolved ? "" : "text-ochre"}`}>
                  {verdictOf(
                    joint.value,
                    a === b
                      ? [
                          { bike: "", title: "A" },
                          { bike: "", title: "B" },
                        ]
                      : [a, b],
                  )}
                </p>
                <p className="mt-1">{say(joint.value.rounding.sentence)}</p>
                {joint.value.lastBar ? <p className="mt-1 text-ochre">{joint.value.lastBar}</p> : null}
                {joint.value.orderWarning ? (
                  <p className="mt-1 text-ochre">{joint.value.orderWarning}</p>
                ) : (
                  <p className="mt-1 text-quiet">
                    {joint.value.together
                      ? "Ridden side by side: wind and warmth met both alike."
                      : `Ridden ${joint.value.order.join(" ")}: a steady drift cancels.`}
                  </p>
                )}
              </section>
              <section className="sheet p-4">
                <SectionsTable pair={joint.value} tests={tests} />
              </section>
              {worths.length ? (
                <section className="sheet p-4">
                  <Worths worths={worths} difference={joint.value.whole.difference} />
                </section>
              ) : null}
              <section>
                <h2 className="mb-1">What would settle it</h2>
                <Settles pair={joint.value} />
              </section>
              <WithoutEach key={query} tests={tests} query={query} resolved={joint.value.whole.resolved} />
              {reference ? (
                <section>
                  <h2 className="mb-1">Under {reference.name}</h2>
                  {under ? (
                    <p>
                      {formatUncertain(under.a, "energyPerDistance", system)} against{" "}
                      {formatUncertain(under.b, "energyPerDistance", system)}: a difference of{" "}
                      {formatUncertain(under.difference, "energyPerDistance", system)},{" "}
                      {Math.abs(under.difference.mean) > 2 * under.difference.sd
                        ? "resolved."
                        : "not resolved. What would make it surer:"}
                    </p>
                  ) : (
                    <ul>
                      {notBrought.map((sentence) => (
                        <li key={sentence}>{say(sentence)}</li>
                      ))}
                    </ul>
                  )}
                  {under && Math.abs(under.difference.mean) <= 2 * under.difference.sd ? (
                    <SettleList sd={under.difference.sd} dimension="energyPerDistance" settles={settles} />
                  ) : null}
                </section>
              ) : null}
            </>
          ) : (
            <Problems
              title="There is no difference to show"
              sentences={
                joint.ok
                  ? ["Choose a test for each side."]
                  : joint.problems.map(({ sentence }) => say(sentence))
              }
            />
          )}
          {a && b && a !== b ? (
            <nav aria-label="References" className="flex flex-wrap gap-x-4 text-sm">
              <span className="text-quiet">The same under</span>
              {references.map((name) => (
                <Link key={name} to={`?${query}&under=${encodeURIComponent(name)}`} className="underline">
                  {name}
                </Link>
              ))}
            </nav>
          ) : null}
        </div>
        <aside aria-label="The runs" className="sheet h-fit p-5">
          <h2>The runs</h2>
          <ul className="mt-2 grid gap-2 text-sm">
            {tests.map(({ id, side, bike, title: test, day }) => (
              <li key={id} className="flex items-baseline gap-2">
                <b className="w-6 shrink-0">{side ?? "A B"}</b>
                <span className="min-w-0 flex-1">
                  <Link to={`/strip/${id}`} className="underline">
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
          {joint.ok ? (
            <>
              <h3 className="mt-4 font-bold">What the doubt is made of</h3>
              <ul className="mt-1 text-sm">
                {joint.value.budget.slice(0, drawn ? undefined : 5).map(({ source, share }) => (
                  <li key={source} className="flex justify-between">
                    <span>{sourceWords(source)}</span>
                    <span>{fixed(100 * share, 0)} %</span>
                  </li>
                ))}
              </ul>
              {joint.value.budget.length > 5 && !drawn ? (
                <button type="button" className="button button-plain mt-1" onClick={() => setDrawn(true)}>
                  all sources
                </button>
              ) : null}
              <p className="mt-3 text-sm text-quiet">
                Taken apart, as if they shared nothing, the plus-or-minus would be{" "}
                {formatQuantity(Z_95 * joint.value.sdApart, "energyPerDistance", system)}. Over{" "}
                {formatQuantity(20 * METRES_PER_MILE, "distance", system, 0)} the difference is{" "}
                {formatUncertain(scale(joint.value.whole.difference, 20 * METRES_PER_MILE), "energy", system)}
                .
              </p>
            </>
          ) : null}
        </aside>
      </div>
    </Page>
  );
}
