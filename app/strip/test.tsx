import { useState } from "react";
import { href, Link, useSearchParams } from "react-router";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import { Empty, Page, Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { Strip } from "./drawing/strip";
import { ReviewedReadings } from "./reviewedReadings";
import { Ledger } from "./ledger";
import { actOnTest } from "./act.server";
import { loadTestPage } from "./load.server";
import { Doubt } from "./tabs/doubt";
import { End } from "./tabs/end";
import { Evidence } from "./tabs/evidence";
import { Parts } from "./tabs/parts";
import { Readings } from "./tabs/readings";
import { Summary } from "./summary";
import { useTest, type TestAtHand } from "./useTest";
import type { Route } from "./+types/test";
import { Acts } from "#ui/acts";

const GONE = "There is no such test.";
const TABS = ["readings", "evidence", "parts", "doubt", "end"] as const;
type Tab = (typeof TABS)[number];

export const loader = ({ params, context }: Route.LoaderArgs) =>
  loadTestPage(context.get(dbContext), idOf(params.testId, GONE));

export const action = ({ request, params, context }: Route.ActionArgs) =>
  actOnTest(context.get(dbContext), idOf(params.testId, GONE), request);

/** Where one goes from a test: on to comparing it, or to bring in what it lacks. */
function Ways({ at: { results, ride }, testId }: { readonly at: TestAtHand; readonly testId: string }) {
  const here = `/strip/${testId}`;
  return (
    <div className="flex flex-wrap gap-2">
      <Link to={`${here}/conditions`} className="button">
        Conditions
      </Link>
      {results ? (
        <Link to={`${here}/import?ride=${ride.id}`} className="button">
          Import files
        </Link>
      ) : null}
      {results?.legs.some(({ side }) => side !== null) ? (
        <Link to={`/compare/pair?runs=${testId}`} className="button">
          A against B
        </Link>
      ) : null}
      {results ? (
        <Link to={`/compare?test=${testId}`} className="button button-main">
          Compare
        </Link>
      ) : (
        <Link to={`${here}/import?ride=${ride.id}`} className="button button-main">
          Import files
        </Link>
      )}
    </div>
  );
}

/** What stands where the strip will be. */
function NoStripYet({
  at,
  testId,
  pending,
}: {
  readonly at: TestAtHand;
  readonly testId: string;
  readonly pending: boolean;
}) {
  if (at.awaitsLong)
    return (
      <p className="text-quiet" role="status" data-pending={1}>
        A long log: its strip comes in a moment.
      </p>
    );
  if (at.rides.every(({ log }) => log.length === 0))
    return (
      <Empty
        step={
          <Link to={`/strip/${testId}/import?ride=${at.ride.id}`} className="button button-main">
            Import files
          </Link>
        }
      >
        The strip appears with the second check-in. Import the notes of the ride as a table, or type them
        below: the start first, then each check-in.
      </Empty>
    );
  return (
    <Problems
      sentences={at.problems}
      title={pending && at.problems.length === 0 ? "" : "Nothing to reckon yet"}
    />
  );
}

function TabLinks({ tab }: { readonly tab: Tab }) {
  return (
    <nav aria-label="Parts of the test" className="mt-6 flex gap-5 overflow-x-auto border-b border-rule">
      {TABS.map((each) => (
        <Link
          key={each}
          to={`?tab=${each}`}
          preventScrollReset
          aria-current={tab === each ? "page" : undefined}
          className={`pb-2 capitalize no-underline ${tab === each ? "border-b-2 border-spruce font-bold text-spruce" : "text-ink"}`}
        >
          {each}
        </Link>
      ))}
    </nav>
  );
}

interface ShownTabProps {
  readonly tab: Exclude<Tab, "readings">;
  readonly at: TestAtHand;
  readonly cursor: number | null;
}

/** A part that says what the results are; none without them. */
function ShownTab({ tab, at: { results, onHandMark, onJudge }, cursor }: ShownTabProps) {
  if (!results) return null;
  if (tab === "evidence") return <Evidence results={results} />;
  if (tab === "parts") return <Parts results={results} />;
  if (tab === "doubt") return <Doubt results={results} />;
  return (
    <End
      results={results}
      cursor={cursor}
      onHandMark={onHandMark}
      onClearHandMark={(target) => onJudge({ kind: "strike", target, field: null })}
    />
  );
}

export default function TestPage({ loaderData, actionData }: Route.ComponentProps) {
  const system = useSystem();
  const [search] = useSearchParams();
  const [cursor, setCursor] = useState<number | null>(null);
  const { line, bike, notes, pending, nextRideId } = loaderData;
  const at = useTest(loaderData, actionData);
  const { results, settled, rideIdOf, onSetAside, onJudge } = at;
  const tab = TABS.find((each) => each === search.get("tab")) ?? "readings";
  return (
    <Page
      title={`${line.bikeName}, ${line.test.title}`}
      line={testSentence(line.test, { setUp: line.setUpName, rider: line.riderName }, system)}
      acts={
        <Acts
          kind="test"
          id={line.id}
          name={line.test.title}
          list={href("/strip")}
          archived={line.archived}
        />
      }
      next={<Ways at={at} testId={line.id} />}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="order-2 min-w-0 p-4 md:px-6 lg:order-1 print:order-1">
          {line.archived ? (
            <p className="mb-4 text-ochre" role="status">
              {line.deletedAt ? "In the trash" : "Archived"}: it counts in no list or comparison until it is
              brought back.
            </p>
          ) : null}
          <Problems sentences={notes} />
          {results ? (
            <>
              <Summary results={results} airTempC={line.test.airTempC} totals={`/strip/${line.id}/totals`} />
              <Strip
                results={results}
                levels={bike.levels}
                cursor={cursor}
                onCursor={setCursor}
                onSetAside={onSetAside}
              />
              <ReviewedReadings results={results} rideIdOf={rideIdOf} onJudge={onJudge} />
            </>
          ) : (
            <NoStripYet at={at} testId={line.id} pending={pending > 0} />
          )}
          <TabLinks tab={tab} />
          <div className="pt-4">
            {tab === "readings" ? (
              <Readings
                at={at}
                testId={line.id}
                day={line.test.day}
                bike={bike}
                nextRideId={nextRideId}
                lastResult={actionData}
              />
            ) : (
              <ShownTab tab={tab} at={at} cursor={cursor} />
            )}
          </div>
        </div>
        {results ? (
          <div className="order-1 p-4 lg:order-2 lg:pl-0 print:order-2">
            <Ledger results={results} settled={settled} />
          </div>
        ) : null}
      </div>
    </Page>
  );
}
