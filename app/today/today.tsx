import { Link } from "react-router";
import { dbContext } from "#app/context";
import { sheetAt } from "#app/planning.server";
import { resultsOf } from "#app/reckoning.server";
import { dayText } from "#app/ui/testLine";
import { standings } from "#core/compare";
import { listBikes } from "#db/bikes";
import type { Database } from "#db/client";
import { listPlans, type PlanLine } from "#db/plans";
import { listTests } from "#db/tests";
import { Figure } from "#ui/figure";
import { Empty, Page } from "#ui/page";
import { useSpoken } from "#ui/system";
import type { Route } from "./+types/today";

/** Lines of the standings shown here, and plans to come. */
const SHORT = 5;
const NEXT = 3;

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const [bikes, tests, plans] = await Promise.all([listBikes(db), listTests(db), listPlans(db)]);
  const results = await resultsOf(db, tests);
  const reckoned = tests.flatMap((line) => {
    const result = results.get(line.id);
    return result?.ok ? [{ line, result: result.value }] : [];
  });
  const waiting = tests.flatMap((line) => {
    const result = results.get(line.id);
    if (!result?.ok)
      return [
        {
          id: line.id,
          title: line.test.title,
          day: line.test.day,
          bike: line.bikeName,
          why: "No check-ins yet: add the start and what followed.",
        },
      ];
    const { flags, odometer, end } = result.value;
    const why = [
      flags.length === 1 ? flags[0]!.sentence : flags.length > 1 ? `${flags.length} readings look off.` : "",
      end.reason === null ? "No end chosen: say how the test ended." : "",
      odometer?.warn ? "The display's distance is off by more than 3 %: check the wheel setting." : "",
    ].filter(Boolean);
    return why.length
      ? [{ id: line.id, title: line.test.title, day: line.test.day, bike: line.bikeName, why: why.join(" ") }]
      : [];
  });
  const { places } = standings(
    reckoned.map(({ line, result }) => ({
      id: line.id,
      bike: line.bikeName,
      title: line.test.title,
      whPerM: result.best.value,
      figure: { mean: result.best.value.mean, effects: { [`measured:${line.id}`]: result.best.value.sd } },
    })),
  );
  const today = new Date().toISOString().slice(0, 10);
  const ahead = plans.filter(({ testId, plan }) => testId === null && plan.day >= today).reverse();
  return {
    toRide: await Promise.all(ahead.slice(0, NEXT).map((line) => readiness(db, line, today))),
    bikeCount: bikes.length,
    testCount: tests.length,
    waiting,
    thriftiest: places.slice(0, SHORT),
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
    plan.ticked.length === 0
      ? `None of ${lines} lines ticked.`
      : `${plan.ticked.length} of ${lines} lines ticked.`,
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

export default function Today({
  loaderData: { toRide, bikeCount, testCount, waiting, thriftiest },
}: Route.ComponentProps) {
  const spoken = useSpoken();
  return (
    <Page
      title="Today"
      line={
        waiting.length
          ? `${waiting.length} of ${testCount} tests wait for a judgement`
          : `${bikeCount} bikes, ${testCount} tests, nothing waits`
      }
      next={
        <Link to={bikeCount ? "/plan/new" : "/bikes/new"} className="button button-main">
          {bikeCount ? "Plan a test" : "Add a bike"}
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 lg:grid-cols-2">
        {bikeCount === 0 ? (
          <Empty
            step={
              <Link to="/bikes/new" className="button button-main">
                Add the first bike
              </Link>
            }
          >
            Begin with a bike and its pack. Then bring in the notes of a range test: Barometron turns them
            into watt-hours per mile with an honest plus-or-minus.
          </Empty>
        ) : (
          <>
            <section className="lg:col-span-2">
              <h2 className="mb-2">Next to ride</h2>
              {toRide.length === 0 ? (
                <p className="text-quiet">
                  Nothing is planned. <Link to="/plan/new">Ask a question</Link> to plan a test.
                </p>
              ) : null}
              <ul>
                {toRide.map(({ id, title, bike, day, isToday, startsAt, states, stop }) => (
                  <li key={id} className="border-b border-rule py-3">
                    <Link to={`/plan/${id}/pocket`} className="font-bold">
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
            </section>
            <section>
              <h2 className="mb-2">Waiting for a judgement</h2>
              {waiting.length === 0 ? <p className="text-quiet">No reading is in question.</p> : null}
              <ul>
                {waiting.map(({ id, title, day, bike, why }) => (
                  <li key={id} className="border-b border-rule py-3">
                    <Link to={`/strip/${id}`} className="font-bold">
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
            </section>
            <section>
              <h2 className="mb-2">Thriftiest, as ridden</h2>
              <ol>
                {thriftiest.map(({ place, row }) => (
                  <li key={row.id} className="flex items-baseline gap-3 border-b border-rule py-3">
                    <span className="w-4 text-quiet">{place}</span>
                    <Link to={`/strip/${row.id}`} className="min-w-0 flex-1">
                      {row.bike}, {row.title}
                    </Link>
                    <Figure value={row.whPerM} dimension="energyPerDistance" />
                  </li>
                ))}
              </ol>
              <p className="mt-3">
                <Link to="/compare">All standings</Link>
              </p>
            </section>
          </>
        )}
      </div>
    </Page>
  );
}
