import { useCallback, useMemo, useState } from "react";
import { Form, Link, useSearchParams, useSubmit } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import { type Entry, type EntryBody } from "#core/ride/log";
import { Empty, Page, Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { CheckIn } from "./checkIn";
import { Strip } from "./drawing/strip";
import { entryTexts } from "./entryForm";
import { ReviewedReadings } from "./reviewedReadings";
import { Ledger } from "./ledger";
import { actOnTest } from "./act.server";
import { loadTestPage } from "./load.server";
import { clockOf, momentOf } from "./moment";
import { Doubt } from "./tabs/doubt";
import { End } from "./tabs/end";
import { Evidence } from "./tabs/evidence";
import { Parts } from "./tabs/parts";
import { ReadingsTable, type Judgement } from "./tabs/readingsTable";
import { TakeAway } from "./takeAway";
import { Summary } from "./summary";
import { UnreadableRows } from "#ui/unreadableRows";
import { Loggers } from "./loggers";
import { useLong } from "./useLong";
import { useReckoning } from "./useReckoning";
import type { Route } from "./+types/test";

const GONE = "There is no such test.";
const TABS = ["readings", "evidence", "parts", "doubt", "end"] as const;

export const loader = ({ params, context }: Route.LoaderArgs) =>
  loadTestPage(context.get(dbContext), idOf(params.testId, GONE));

export const action = ({ request, params, context }: Route.ActionArgs) =>
  actOnTest(context.get(dbContext), idOf(params.testId, GONE), request);

/** The worker's answer is drawn before the page turns to sending, ms. */
const SEND_AFTER_MS = 80;

/** A line of the log as the page makes it: it stands after all that the server has. */
const LAST = 4_100_000_000_000;
const lineOf = (body: EntryBody, supersedes: string | null = null): Entry => ({
  id: uuidv7(),
  seq: LAST + Math.floor(performance.now()),
  at: null,
  body,
  supersedes,
});

export default function TestPage({ loaderData, actionData }: Route.ComponentProps) {
  const system = useSystem();
  const [search] = useSearchParams();
  const submit = useSubmit();
  const { line, bike, notes, pending, isLong, nextRideId } = loaderData;
  const long = useLong(isLong ? `/strip/${line.id}/long` : null, line.stamp);
  const { sent, problems } = long ?? loaderData;
  const rides = useMemo(
    () => loaderData.rides.map((ride) => ({ ...ride, ...long?.rides.find(({ id }) => id === ride.id) })),
    [loaderData.rides, long],
  );
  const tab = TABS.find((each) => each === search.get("tab")) ?? "readings";
  const here = `/strip/${line.id}`;
  const { results, propose, settled } = useReckoning(`${here}/record`, line.stamp, sent, actionData);
  const [cursor, setCursor] = useState<number | null>(null);
  const correcting = rides.flatMap((ride) =>
    ride.log.filter(({ rootId }) => rootId === search.get("correct")).map((entry) => ({ ride, entry })),
  )[0];
  const ride = correcting?.ride ?? rides.find(({ id }) => id === search.get("ride")) ?? rides.at(-1)!;
  const count = rides.reduce((sum, { log }) => sum + log.length, 0);
  const rideAt = useCallback(
    (rootId: string) => rides.findIndex(({ log }) => log.some((entry) => entry.rootId === rootId)),
    [rides],
  );
  const rideIdOf = useCallback((rootId: string) => rides[rideAt(rootId)]?.id ?? null, [rides, rideAt]);
  /** Counts a line at once in the worker, and sends it to the server. */
  const send = useCallback(
    (at: number, entry: Entry, form: Record<string, string>) => {
      if (at < 0) return;
      propose({ ride: at, entry });
      const sent = { ...form, rideId: rides[at]!.id, entryId: entry.id };
      setTimeout(() => void submit(sent, { method: "post", preventScrollReset: true }), SEND_AFTER_MS);
    },
    [propose, submit, rides],
  );
  const onJudge = useCallback(
    ({ kind, target, field }: Judgement) =>
      send(rideAt(target), lineOf({ kind, target, ...(field && { field }) }), {
        judge: `${kind}/${target}/${field ?? ""}`,
      }),
    [send, rideAt],
  );
  const onSetAside = useCallback(
    ({ rootId, field, struck }: { rootId: string; field: string | null; struck: boolean }) =>
      onJudge({
        kind: struck ? "restore" : "strike",
        target: rootId,
        field: field as Judgement["field"],
      }),
    [onJudge],
  );
  const onHandMark = (mark: number) => {
    const { ride: at, alongM } = results!.marks[mark]!;
    const before = results!.end.fullPower;
    // A mark that only this page has yet is of the ride at hand.
    const its = before?.by === "hand" ? rideAt(before.rootId ?? "") : null;
    const supersedes = its === at || its === -1 ? (before?.rootId ?? null) : null;
    send(at, lineOf({ kind: "fullPowerEnd", distanceM: alongM }, supersedes), {
      intent: "handMark",
      alongM: String(alongM),
      supersedes: supersedes ?? "",
    });
  };
  const showTab = () => {
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
  };
  return (
    <Page
      title={`${line.bikeName}, ${line.test.title}`}
      line={testSentence(line.test, { setUp: line.setUpName, rider: line.riderName }, system)}
      next={
        <div className="flex flex-wrap gap-2">
          <Link to={`${here}/conditions`} className="button">
            Conditions
          </Link>
          <Link to={`${here}/track?ride=${ride.id}`} className="button">
            Import a track
          </Link>
          {results?.legs.some(({ side }) => side !== null) ? (
            <Link to={`/compare/pair?runs=${line.id}`} className="button">
              A against B
            </Link>
          ) : null}
          {results ? (
            <Link to={`/compare?test=${line.id}`} className="button button-main">
              Compare
            </Link>
          ) : (
            <Link to={`${here}/import?ride=${ride.id}`} className="button button-main">
              Import a file
            </Link>
          )}
        </div>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="order-2 min-w-0 p-4 md:px-6 lg:order-1 print:order-1">
          <Problems sentences={notes} />
          {results ? (
            <>
              <Summary results={results} airTempC={line.test.airTempC} totals={`${here}/totals`} />
              <Strip
                results={results}
                levels={bike.levels}
                cursor={cursor}
                onCursor={setCursor}
                onSetAside={onSetAside}
              />
              <ReviewedReadings results={results} rideIdOf={rideIdOf} onJudge={onJudge} />
            </>
          ) : isLong && !long ? (
            <p className="text-quiet" role="status" data-pending={1}>
              A long log: its strip comes in a moment.
            </p>
          ) : count === 0 ? (
            <Empty
              step={
                <Link to={`${here}/import?ride=${ride.id}`} className="button button-main">
                  Import a file
                </Link>
              }
            >
              The strip appears with the second check-in. Import the notes of the ride as a table, or type
              them below: the start first, then each check-in.
            </Empty>
          ) : (
            <Problems
              sentences={problems}
              title={pending && problems.length === 0 ? "" : "Nothing to reckon yet"}
            />
          )}
          <nav
            aria-label="Parts of the test"
            className="mt-6 flex gap-5 overflow-x-auto border-b border-rule"
          >
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
          <div className="pt-4">
            {tab === "readings" ? (
              <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
                <CheckIn
                  key={`${count}/${ride.id}/${correcting?.entry.id ?? ""}`}
                  bike={bike}
                  rideId={ride.id}
                  isFirst={ride.log.length === 0}
                  corrects={
                    correcting
                      ? {
                          rootId: correcting.entry.rootId,
                          texts: entryTexts(
                            correcting.entry,
                            clockOf(correcting.entry.timeS, ride.zone),
                            system,
                          ),
                        }
                      : null
                  }
                  lastResult={actionData}
                  onTyped={({ time, body }, supersedes) =>
                    propose({
                      ride: rides.indexOf(ride),
                      entry: {
                        ...lineOf(body, supersedes),
                        at: momentOf(line.test.day, time, ride.zone),
                      },
                    })
                  }
                  onCancel={here}
                />
                {rides.map((each) => (
                  <UnreadableRows key={`${each.id}/unreadable`} rows={each.unreadable} />
                ))}
                {rides.map((each) => (
                  <Loggers key={`${each.id}/loggers`} ride={each} only={rides.length === 1} />
                ))}
                {rides.map((each) => (
                  <ReadingsTable
                    key={each.id}
                    ride={each}
                    results={results}
                    only={rides.length === 1}
                    onJudge={onJudge}
                  />
                ))}
                <div className="flex flex-wrap items-center gap-3">
                  <Link to={`${here}/import?ride=${ride.id}`} className="button">
                    Import a file
                  </Link>
                  <Link to={`${here}/logger?ride=${ride.id}`} className="button">
                    Import a logger's file
                  </Link>
                  <Form method="post">
                    <input type="hidden" name="nextRideId" value={nextRideId} />
                    <button name="intent" value="addRide" className="button">
                      Another ride on this charge
                    </button>
                  </Form>
                  {rides.map((each) =>
                    each.track ? (
                      <span key={each.id} className="text-sm text-quiet">
                        Track: {each.track.name || "unnamed"}
                      </span>
                    ) : null,
                  )}
                </div>
                <TakeAway testId={line.id} results={results} />
              </div>
            ) : (
              showTab()
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
