import { href, Link } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { sheetAt } from "#app/services/planning.server";
import { freshenDesk } from "#app/services/analysis.server";
import { deskNotices } from "#app/services/notices.server";
import { dayText, countOf } from "#core/base";
import { listBikes } from "#db/bikes";
import type { Database } from "#db/client";
import { listPlans, type PlanLine } from "#db/plans";
import { thriftiestTests, waitingTests } from "#db/results";
import type { Unreadable } from "#db/unreadable";
import { Figure } from "#ui/figure";
import { Notices } from "#ui/notices";
import { Page } from "#ui/page";
import { LookAround } from "#ui/lookAround";
import { QuickBox } from "./quick";
import { useSpoken } from "#ui/system";
import { UnreadableRows } from "#ui/unreadableRows";
import type { Route } from "./+types/today";

/** Lines of the standings shown here, and plans to come. */
const SHORT = 5;
const NEXT = 3;
/** Tests that wait for a judgement and are shown. */
const MOST_WAITING = 12;

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const unreadable: Unreadable[] = [];
  const { stale, all } = await freshenDesk(db);
  const [bikes, plans, waiting, thriftiest] = await Promise.all([
    listBikes(db, { unreadable }),
    listPlans(db, { unreadable }),
    waitingTests(db, MOST_WAITING),
    thriftiestTests(db, SHORT),
  ]);
  const today = deskDay();
  const ahead = plans.filter(({ testId, plan }) => testId === null && plan.day >= today).reverse();
  return {
    toRide: await Promise.all(ahead.slice(0, NEXT).map((line) => readiness(db, line, today))),
    day: today,
    bikeCount: bikes.length,
    testCount: all,
    pending: stale,
    waiting: waiting.rows,
    waitingCount: waiting.all,
    thriftiest,
    unreadable,
    notices: await deskNotices(),
  };
}

/** A plan to come and how ready it is, in short sentences. */
async function readiness(db: Database, line: PlanLine, today: string) {
  const { plan } = line;
  const { results } = await sheetAt(db, line.id);
  const { ready, hold, bring } = plan.method;
  const lines = ready.length + hold.length + bring.length;
  const found = results.ok ? results.value : null;
  const states = [
    found?.charge ? `Charge from ${found.charge.startsAt} on ${dayText(found.charge.startsOn)}.` : "",
    found?.daylight?.latestStart ? `Start by ${found.daylight.latestStart} for daylight.` : "",
    plan.airTempC === undefined ? "No weather typed yet." : "",
    line.courseId ? "" : "No course chosen yet.",
    `Checklist ${plan.ticked.length} of ${lines}.`,
  ].filter(Boolean);
  const stops = results.ok
    ? results.value.warnings.filter(({ weight }) => weight === "stop").map(({ sentence }) => sentence)
    : results.problems.map(({ sentence }) => sentence);
  return {
    id: line.id,
    title: plan.title,
    bike: line.bikeName,
    day: plan.day,
    isToday: plan.day === today,
    startsAt: plan.startsAt,
    states,
    stop: stops[0] ?? null,
  };
}

type Data = Route.ComponentProps["loaderData"];

/** Plans that come next, with what must be done for each. */
function ToRide({ toRide }: { readonly toRide: Data["toRide"] }) {
  const spoken = useSpoken();
  return (
    <ul>
      {toRide.map(({ id, title, bike, day, isToday, startsAt, states, stop }) => (
        <li key={id} className="border-b border-rule py-3">
          <Link to={href("/plan/:planId/pocket", { planId: id })} className="font-bold">
            {title}
          </Link>
          <span className="text-sm text-quiet">
            {" "}
            {bike}, {isToday ? "today" : dayText(day)}, {startsAt}
          </span>
          <p>{states.join(" ")}</p>
          {stop ? <p className="text-rust">{spoken(stop)}</p> : null}
        </li>
      ))}
    </ul>
  );
}

/** Tests with a reading in question. */
function Waiting({ waiting, count }: { readonly waiting: Data["waiting"]; readonly count: number }) {
  const spoken = useSpoken();
  return (
    <section>
      <h2 className="mb-2">Waiting for a judgement</h2>
      {waiting.length === 0 ? <p className="text-quiet">No reading is in question.</p> : null}
      <ul>
        {waiting.map(({ id, title, day, bike, why }) => (
          <li key={id} className="border-b border-rule py-3">
            <Link to={href("/strip/:testId", { testId: id })} className="font-bold">
              {title}
            </Link>
            <span className="text-sm text-quiet">
              {" "}
              {bike}, {dayText(day)}
            </span>
            <p className="text-ochre">{spoken(why)}</p>
          </li>
        ))}
      </ul>
      {count > waiting.length ? (
        <p className="mt-3 text-quiet">
          And {count - waiting.length} more, under <Link to={href("/strip")}>Strip</Link>.
        </p>
      ) : null}
    </section>
  );
}

/** Tests that took the least. */
function Thriftiest({ rows }: { readonly rows: Data["thriftiest"] }) {
  return (
    <ol>
      {rows.map((row, i) => (
        <li key={row.id} className="flex items-baseline gap-3 border-b border-rule py-3">
          <span className="w-4 text-quiet">{i + 1}</span>
          <Link to={href("/strip/:testId", { testId: row.id })} className="min-w-0 flex-1">
            {row.bike}, {row.title}
          </Link>
          <Figure value={row.whPerM} dimension="energyPerDistance" />
        </li>
      ))}
    </ol>
  );
}

export default function Today({
  loaderData: { day, toRide, bikeCount, testCount, waiting, waitingCount, thriftiest, unreadable, notices },
}: Route.ComponentProps) {
  return (
    <Page
      title="Today"
      line={
        waitingCount
          ? `${waitingCount} of ${countOf(testCount, "test")} to review`
          : `${countOf(bikeCount, "bike")}, ${countOf(testCount, "test")}, nothing to review`
      }
      next={
        <div className="flex flex-wrap gap-2">
          {bikeCount ? (
            <Link to={href("/quick")} className="button">
              Quick figure
            </Link>
          ) : null}
          <Link
            to={bikeCount ? href("/plan/new") : href("/bikes/new")}
            className={`button ${bikeCount ? "button-main" : ""}`}
          >
            {bikeCount ? "Plan a test" : "Add a bike"}
          </Link>
        </div>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 lg:grid-cols-2">
        <Notices notices={notices} className="lg:col-span-2" />
        <UnreadableRows rows={unreadable} className="lg:col-span-2" />
        {bikeCount === 0 ? (
          <section className="lg:col-span-2">
            <p className="mb-4 max-w-prose">
              Barometron turns the notes of a range test into watt-hours per mile with an honest
              plus-or-minus. Begin with what you know of one ride, or{" "}
              <Link to={href("/bikes/new")}>add a bike</Link> and its pack.
            </p>
            <QuickBox day={day} refused={null} />
            <LookAround className="mt-6" />
          </section>
        ) : (
          <>
            <section className="lg:col-span-2">
              <h2 className="mb-2">Next to ride</h2>
              {toRide.length === 0 ? (
                <p className="text-quiet">
                  Nothing is planned. <Link to={href("/plan/new")}>Ask a question</Link> to plan a test.
                </p>
              ) : null}
              <ToRide toRide={toRide} />
            </section>
            <Waiting waiting={waiting} count={waitingCount} />
            <section>
              <h2 className="mb-2">Least Wh/mi, as ridden</h2>
              <Thriftiest rows={thriftiest} />
              <p className="mt-3">
                <Link to={href("/compare")}>All standings</Link>
              </p>
            </section>
          </>
        )}
      </div>
    </Page>
  );
}
