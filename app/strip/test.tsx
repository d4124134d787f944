import { parseWithZod } from "@conform-to/zod/v4";
import { useCallback } from "react";
import { data, Form, Link, redirect, useSearchParams, useSubmit } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { resultsOf } from "#app/reckoning.server";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { testSentence } from "#app/ui/testLine";
import { foldLog } from "#core/log";
import { fixed, formatQuantity } from "#core/quantities";
import type { DrawnReading } from "#core/results";
import { addRide, findTest, listRides, loadRecord } from "#db/tests";
import { Empty, Page, Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { CheckIn } from "./checkIn";
import { entryForm, entryTexts } from "./entryForm";
import { Doubt, Ledger, Parts } from "./ledger";
import { clientId, judge, keepEntry, momentOf } from "./log.server";
import { ReadingsTable } from "./readingsTable";
import { Strip } from "./strip";
import { stripResults } from "./view";
import type { Route } from "./+types/test";

const GONE = "There is no such test.";
const TABS = ["readings", "parts", "doubt"] as const;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const [record, rides, results] = await Promise.all([
    loadRecord(db, line.id),
    listRides(db, line.id),
    resultsOf(db, [line]),
  ]);
  const { bike, rides: logs } = found(record, GONE);
  const result = results.get(line.id)!;
  return {
    line,
    bike,
    rides: rides.map((ride, i) => ({ ...ride, log: foldLog(logs[i]!.entries) })),
    results: result.ok ? stripResults(result.value) : null,
    problems: result.ok ? [] : result.problems.map(({ sentence }) => sentence),
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const record = found(await loadRecord(db, testId), GONE);
  const rides = await listRides(db, testId);
  const form = await request.formData();
  const here = `/strip/${testId}`;
  const intent = form.get("intent");
  if (intent === "addRide") {
    await addRide(db, uuidv7(), testId, "");
    return redirect(here);
  }
  const ride = found(
    rides.find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  const [judgement, target, field] = String(form.get("judge") ?? "").split("/");
  if (judgement === "strike" || judgement === "restore") {
    await judge(db, ride.id, judgement, idOf(target, "There is no such entry."), field);
    return redirect(`${here}${new URL(request.url).search}`);
  }
  const system = systemOf(request);
  const submission = parseWithZod(form, { schema: entryForm(system), disableAutoCoercion: true });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const supersedes = form.get("supersedes");
  const problems = await keepEntry(
    db,
    record,
    {
      id: clientId(form.get("entryId")),
      rideId: ride.id,
      at: momentOf(record.test.day, submission.value.time, ride.utcOffset),
      typed: submission.value,
      supersedes: typeof supersedes === "string" ? idOf(supersedes, "There is no such entry.") : null,
    },
    system,
  );
  if (problems.length) {
    const fieldErrors: Record<string, string[]> = {};
    for (const { path, sentence } of problems) fieldErrors[path] = [...(fieldErrors[path] ?? []), sentence];
    return data(submission.reply({ fieldErrors }), { status: 400 });
  }
  return redirect(here);
}

export default function TestPage({
  loaderData: { line, bike, rides, results, problems },
  actionData,
}: Route.ComponentProps) {
  const system = useSystem();
  const [search] = useSearchParams();
  const submit = useSubmit();
  const tab = TABS.find((each) => each === search.get("tab")) ?? "readings";
  const here = `/strip/${line.id}`;
  const correcting = rides.flatMap((ride) =>
    ride.log.filter(({ rootId }) => rootId === search.get("correct")).map((entry) => ({ ride, entry })),
  )[0];
  const ride = correcting?.ride ?? rides.find(({ id }) => id === search.get("ride")) ?? rides.at(-1)!;
  const count = rides.reduce((sum, { log }) => sum + log.length, 0);
  const rideOf = useCallback(
    (rootId: string) => rides.find(({ log }) => log.some((entry) => entry.rootId === rootId))?.id ?? "",
    [rides],
  );
  const setAside = useCallback(
    ({ rootId, field, struck }: DrawnReading) =>
      void submit(
        { judge: `${struck ? "restore" : "strike"}/${rootId}/${field ?? ""}`, rideId: rideOf(rootId) },
        { method: "post", preventScrollReset: true },
      ),
    [submit, rideOf],
  );
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
            Bring in a track
          </Link>
          {results ? (
            <Link to={`/compare?test=${line.id}`} className="button button-main">
              Compare
            </Link>
          ) : (
            <Link to={`${here}/import?ride=${ride.id}`} className="button button-main">
              Bring in notes
            </Link>
          )}
        </div>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="order-2 min-w-0 p-4 md:px-6 lg:order-1">
          {results ? (
            <>
              <Strip results={results} levels={bike.levels} onSetAside={setAside} />
              {results.flags.map(({ rootId, field, sentence }) => (
                <div
                  key={`${rootId}/${field ?? ""}`}
                  className="mt-3 flex flex-wrap items-center justify-between gap-3 border-l-4 border-ochre-fill bg-sheet px-4 py-2"
                >
                  <p className="min-w-0 flex-1 basis-72">{sentence}</p>
                  <Form method="post" preventScrollReset className="flex gap-2">
                    <input type="hidden" name="rideId" value={rideOf(rootId)} />
                    <button name="judge" value={`strike/${rootId}/${field ?? ""}`} className="button">
                      Set it aside
                    </button>
                    <Link to={`?correct=${rootId}`} className="button" preventScrollReset>
                      Correct it
                    </Link>
                  </Form>
                </div>
              ))}
              {results.odometer?.warn ? (
                <p className="mt-3 border-l-4 border-ochre-fill bg-sheet px-4 py-2">
                  The display's distance times {fixed(results.odometer.k, 3)} is the recorder's.
                  {results.odometer.impliedCircumferenceMm === null
                    ? " Check the wheel setting."
                    : ` Its wheel setting should be ${fixed(results.odometer.impliedCircumferenceMm, 0)} mm.`}{" "}
                  Distances read from the display alone are corrected by it.
                </p>
              ) : null}
              {results.notices.length ? (
                <div className="mt-3">
                  <Problems sentences={results.notices} />
                </div>
              ) : null}
            </>
          ) : count === 0 ? (
            <Empty
              step={
                <Link to={`${here}/import?ride=${ride.id}`} className="button button-main">
                  Bring in notes as CSV
                </Link>
              }
            >
              The strip appears with the second check-in. Bring in the notes of the ride as a table, or type
              them below: the start first, then each check-in.
            </Empty>
          ) : (
            <Problems sentences={problems} title="Nothing to reckon yet" />
          )}
          <nav aria-label="Parts of the test" className="mt-6 flex gap-5 border-b border-rule">
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
            {tab === "parts" && results ? <Parts results={results} /> : null}
            {tab === "doubt" && results ? <Doubt results={results} /> : null}
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
                            clockOf(correcting.entry.timeS, ride.utcOffset),
                            system,
                          ),
                        }
                      : null
                  }
                  lastResult={actionData}
                  onCancel={here}
                />
                {rides.map((each) => (
                  <ReadingsTable key={each.id} ride={each} results={results} only={rides.length === 1} />
                ))}
                <div className="flex flex-wrap items-center gap-3">
                  <Link to={`${here}/import?ride=${ride.id}`} className="button">
                    Bring in notes as CSV
                  </Link>
                  <Form method="post">
                    <button name="intent" value="addRide" className="button">
                      Another ride on this charge
                    </button>
                  </Form>
                  {rides.map((each) =>
                    each.track ? (
                      <span key={each.id} className="text-sm text-quiet">
                        Track: {each.track.name || "unnamed"}
                        {results?.topSpeedMps
                          ? `, top speed ${formatQuantity(results.topSpeedMps, "speed", system)}`
                          : ""}
                      </span>
                    ) : null,
                  )}
                </div>
              </div>
            ) : null}
          </div>
        </div>
        {results ? (
          <div className="order-1 p-4 lg:order-2 lg:pl-0">
            <Ledger results={results} />
          </div>
        ) : null}
      </div>
    </Page>
  );
}

/** "10:41" at the ride's offset, for the time field. */
function clockOf(timeS: number | null, utcOffset: string): string {
  if (timeS === null) return "";
  const [, sign, hours, minutes] = /^([+-])(\d\d):(\d\d)$/.exec(utcOffset) ?? ["", "+", "0", "0"];
  const shift = (sign === "-" ? -1 : 1) * (Number(hours) * 3600 + Number(minutes) * 60);
  return new Date((timeS + shift) * 1000).toISOString().slice(11, 16);
}
