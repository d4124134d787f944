import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { newestReferences, referenceKey, referenceName } from "#core/bike";
import { Page, Problems } from "#ui/page";
import { useSpoken } from "#ui/system";
import { sideName } from "./addRun";
import { onDesk } from "#app/services/comparison/answer.server";
import { readPair } from "#app/services/comparison/pair.server";
import { SectionsTable } from "./sectionsTable";
import { Settles } from "./settles";
import { Worths } from "./worths";
import { allReferences, referenceAt } from "#app/services/comparison/references.server";
import { WithoutEach } from "./withoutEach";
import { PairRuns } from "./pairRuns";
import { PairUnder } from "./pairUnder";
import { Verdict } from "./verdict";
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
    : { under: null, why: [], settles: [], notBrought: [] };
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
  const { tests, others, joint, confounders, worths, under, why, reference, references, notBrought } =
    loaderData;
  const { settles } = loaderData;
  const say = useSpoken();
  const [a, b] = [tests.find(({ side }) => side !== "B"), tests.find(({ side }) => side !== "A") ?? tests[0]];
  const title = a && b && a !== b ? `${a.bike} against ${b.bike}` : a ? `${a.title}: A against B` : "A pair";
  const query = tests.map(({ id, side }) => `${sideName(side)}=${id}`).join("&");
  return (
    <Page
      title={title}
      line={`One ledger over ${tests.length === 1 ? "one test" : `${tests.length} tests`}: what the runs share, the pack, a meter, the same hills, cancels in the difference.`}
      next={
        <Link to={`${href("/compare")}?${tests.map(({ id }) => `test=${id}`).join("&")}`} className="button">
          Choose others
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="grid min-w-0 content-start gap-6">
          {joint.ok && a && b ? (
            <>
              <Verdict pair={joint.value} a={a} b={b} />
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
              <WithoutEach key={query} tests={tests} query={query} chanceA={joint.value.whole.chanceA} />
              {reference ? (
                <PairUnder
                  name={reference.name}
                  {...{ under, why, notBrought, settles }}
                  bikes={[a.bike, b.bike]}
                />
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
        <PairRuns tests={tests} others={others} joint={joint} confounders={confounders} />
      </div>
    </Page>
  );
}
