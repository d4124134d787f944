import { useMemo, useRef, useState } from "react";
import { data, Form, Link, redirect, useFetcher } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { dayText } from "#app/ui/testLine";
import {
  momentOf,
  questionOf,
  reckonPlan,
  routeOf,
  yieldOf,
  type PlanRecord,
  type PlanResults,
  dayAt,
} from "#core/planning";
import { z } from "zod";
import { err, unitToken, renderUnits, type System } from "#core/base";
import { testSchema } from "#core/records";
import type { Rehearsal } from "#core/simulator";
import { findPlan, listCourses, saveMethod, savePlan, startPlan, tickPlan } from "#db/plans";
import { findTest, saveTest } from "#db/tests";
import { Act } from "#ui/act";
import { Cautions } from "#ui/cautions";
import { LiveFields } from "#ui/lines";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { CheckInTable } from "./checkInTable";
import { ForecastChart } from "./forecastChart";
import { planForm, planWritten, problemsOf, textsOf, type FieldProblems } from "./forms";
import { LearningLines, SpreadLine } from "./learning";
import { Headline, PlanFacts, Warnings } from "./outlook";
import { PlanFields } from "./planFields";
import { loadDesk, planRecord } from "#app/services/planning.server";
import { useMeeting } from "#ui/useMeeting";
import { usePlan } from "./usePlan";
import { YieldPanel } from "./yieldPanel";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/stale.server";
import { staleOf } from "#app/ui/stale";
import type { Route } from "./+types/plan";

const GONE = "There is no such plan.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findPlan(db, idOf(params.planId, GONE)), GONE);
  const desk = found(await loadDesk(db, line.bikeId), GONE);
  const record = found(await planRecord(db, line, desk), "This plan's pack is gone.");
  const courses = await listCourses(db);
  const named = <T extends { readonly id: string; readonly name: string; readonly archived: boolean }>(
    rows: readonly T[],
    chosen: string | null,
  ) => rows.filter(({ id, archived }) => !archived || id === chosen).map(({ id, name }) => ({ id, name }));
  return {
    line,
    record,
    pending: record.known.awaited,
    results: reckonPlan(record),
    yielded: yieldOf(record),
    startId: uuidv7(),
    choices: {
      packs: named(desk.packs, line.packId),
      setUps: named(desk.setUps, line.setUpId),
      riders: named(desk.riders, line.riderId),
      courses: named(courses, line.courseId),
    },
  };
}

type PlanLine = NonNullable<Awaited<ReturnType<typeof findPlan>>>;

/** A run-down is practised to beyond its pack's end. */
const BEYOND = 2;

/** What the stand-in rides of a plan: the plan as it is now, and a seed nobody sees. */
function rehearsalOf(planId: string, record: PlanRecord): Rehearsal {
  const { plan } = record;
  const route = routeOf(record);
  if (!route.ok) throw new Response("Mend the plan first: it cannot be ridden.", { status: 400 });
  const { forecast, endM } = route.value;
  return {
    planId,
    seed: Math.floor(Math.random() * 2 ** 31),
    startMs: momentOf(plan.day, plan.startsAt, plan.utcOffset),
    toM: plan.method.until === "the pack is empty" ? BEYOND * endM : endM,
    input: forecast.input,
  };
}

/** Makes the test a plan becomes: the same bike, pack, day and conditions, with its first ride. Or its rehearsal. */
async function startTest(
  db: Parameters<typeof saveTest>[0],
  id: string,
  line: PlanLine,
  record: PlanRecord,
  system: System,
  rehearsal?: Rehearsal,
) {
  const { plan, course } = record;
  const { method } = plan;
  const wind =
    plan.windMps === undefined
      ? ""
      : renderUnits(
          `${unitToken(plan.windMps, "speed", 0)}${plan.windFromDeg === undefined ? "" : ` from ${plan.windFromDeg} degrees`}`,
          system,
        );
  const test = testSchema.parse({
    title: plan.title,
    school: method.school === "bench" ? "run-down" : method.school,
    drive: method.drive,
    // A ride is of the day it is begun, in its own zone; a rehearsal of the day that was planned.
    day: rehearsal ? plan.day : dayAt(Date.now(), plan.utcOffset),
    airTempC: plan.airTempC,
    packTempC: plan.packTempC,
    wind,
    course: line.courseId ? course.name : "",
    firstLevel: method.drive === "throttle" ? "throttle" : plan.level,
    firstGround: course.legs[0]!.ground,
    effort: plan.effort,
    riderW: plan.riderW,
    bpm: plan.bpm,
    windMps: plan.windMps,
    windFromDeg: plan.windMps ? plan.windFromDeg : undefined,
    altitudeM: course.altitudeM,
  });
  const { bikeId, packId, setUpId, riderId } = line;
  const links = { bikeId, packId, secondPackId: null, setUpId, riderId };
  const firstRide = { id: uuidv7(), utcOffset: plan.utcOffset };
  await saveTest(db, id, links, test, { firstRide, ...(rehearsal && { rehearsal }) });
  return id;
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = found(await findPlan(db, idOf(params.planId, GONE)), GONE);
  const form = await request.formData();
  const intent = form.get("intent");
  if (intent === "tick") {
    const what = String(form.get("line")).slice(0, 160);
    const { ready, hold, bring } = line.plan.method;
    if (![...ready, ...hold, ...bring].includes(what))
      return data({ problems: { line: "This line is not on the plan's lists any more." } }, { status: 400 });
    await tickPlan(db, line.id, what, form.get("done") === "on");
    return { problems: null };
  }
  if (intent === "start" || intent === "rehearse") {
    const desk = found(await loadDesk(db, line.bikeId), GONE);
    const record = found(await planRecord(db, line, desk), GONE);
    // The page names the test: however often it is pressed, one is made.
    const asked = z.uuid().safeParse(form.get("startId"));
    const id = asked.success ? asked.data : uuidv7();
    const system = systemOf(request);
    if (intent === "rehearse") {
      if (!(await findTest(db, id)))
        await startTest(db, id, line, record, system, rehearsalOf(line.id, record));
      return redirect(`/ride/${id}`);
    }
    const started = await startPlan(db, line.id, (tx) => startTest(tx, id, line, record, system));
    return redirect(`/ride/${found(started, GONE)}`);
  }
  if (intent === "method") {
    const id = uuidv7();
    const change = await saveMethod(db, id, { ...line.plan.method, name: `${line.plan.method.name}, own` });
    return redirect(afterChange(`/plan/methods/${id}`, change));
  }
  const parsed = planForm(systemOf(request)).safeParse({ ...textsOf(form), ticked: line.plan.ticked });
  if (!parsed.success) return data({ problems: problemsOf(parsed.error) }, { status: 400 });
  const links = { ...line, ...parsed.data.links };
  const { stale } = await saveOrStale(
    () => savePlan(db, line.id, links, parsed.data.plan, seenVersion(form)),
    async () => planTexts(found(await findPlan(db, line.id), GONE), systemOf(request)),
  );
  if (stale) return staleReply({ problems: null }, stale);
  return form.get("intent") === "keep" ? redirect(`/plan/${line.id}`) : { problems: null };
}

/** How long a person pauses before what they typed is kept, ms. */
const PAUSE_MS = 700;
const LINKS = ["packId", "setUpId", "riderId", "courseId"] as const;

/** A plan and what it links to as the form's texts. */
const planTexts = (line: PlanLine, system: System): Record<string, string> => ({
  ...planWritten(line.plan, system),
  ...Object.fromEntries(LINKS.map((name) => [name, line[name] ?? ""])),
});

/** What is assumed where a field is empty, written for its placeholder. */
function assumedTexts(results: PlanResults | null, say: (sentence: string) => string) {
  const of = (what: string) => {
    const taken = results?.taken.find((each) => each.what.startsWith(what));
    return taken ? say(taken.value) : "";
  };
  return {
    speed: of("speed on"),
    rider: of("rider puts in"),
    stops: "1",
    air: of("air"),
    wind: of("wind").replace(/,.*/, ""),
  };
}

export default function PlanPage({ loaderData, actionData }: Route.ComponentProps) {
  const { line, record, choices } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  const fetcher = useFetcher<typeof action>();
  const form = useRef<HTMLFormElement>(null);
  const schema = useMemo(() => planForm(system), [system]);
  const values = useMemo(() => planTexts(line, system), [line, system]);
  const [typed, setTyped] = useState<FieldProblems | null>(null);
  const stale = staleOf(fetcher.data) ?? staleOf(actionData);
  const keep = useMeeting(form, fetcher, line.version, stale);
  const { knowledge, awaited } = record.known;
  const stamp = [...LINKS.map((name) => line[name] ?? ""), knowledge.results, awaited].join(" ");
  const { ask, results, yielded } = usePlan(
    { results: loaderData.results, yielded: loaderData.yielded },
    stamp,
  );
  const good = results.ok ? results.value : null;
  const [first] = useState(good);

  const onEdit = () => {
    const texts = textsOf(new FormData(form.current!));
    const parsed = schema.safeParse({ ...texts, ticked: line.plan.ticked });
    setTyped(parsed.success ? {} : problemsOf(parsed.error));
    if (!parsed.success) return keep.hold();
    const moved = LINKS.some((name) => (parsed.data.links[name] ?? null) !== line[name]);
    if (!moved) ask({ ...record, plan: parsed.data.plan });
    keep.soon(moved ? 0 : PAUSE_MS);
  };
  const problems = typed ?? actionData?.problems ?? fetcher.data?.problems ?? {};
  const trouble = Object.keys(problems).length > 0;
  const { plan } = line;
  return (
    <Page
      title={plan.title}
      line={
        <>
          {questionOf(plan.question).asks} {plan.method.name}, {line.bikeName}
          {line.setUpName ? `, ${line.setUpName}` : ""}, {line.courseName ?? "a plain loop"},{" "}
          {dayText(plan.day)}
        </>
      }
      next={
        <div className="flex flex-wrap gap-3">
          <Link to={`/plan/${line.id}/sheet`} className="button button-main">
            Run sheet
          </Link>
          <Link to={`/plan/${line.id}/pocket`} className="button">
            On the phone
          </Link>
          <a href={`/plan/${line.id}/calendar.ics`} className="button">
            Calendar
          </a>
        </div>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-6" aria-live="polite">
          {plan.method.school === "bench" ? (
            <section className="sheet p-4">
              <p>
                A bench discharge rides nowhere: charge until the charger is green, let the pack come to the
                room, then some hours on a tester made for it, attended.
              </p>
              <p className="mt-3">
                <Link to={`/bikes/${line.bikeId}/packs/${line.packId}/bench/new`} className="button">
                  Record the bench test
                </Link>
              </p>
            </section>
          ) : good ? (
            <>
              <Headline results={good} plan={plan} />
              <Warnings warnings={good.warnings} />
              <section className="sheet p-4">
                <ForecastChart results={good} course={record.course} />
                <p className="mt-1 text-sm text-quiet">
                  Charge left, expected, and where it lies on 95 of 100 such days. {good.restsOn}
                </p>
                <SpreadLine results={good} />
                <LearningLines results={good} />
              </section>
              <section>
                <h2 className="mb-2">Check-ins</h2>
                <CheckInTable checkIns={good.checkIns} />
              </section>
              <PlanFacts results={good} />
            </>
          ) : (
            <Warnings
              warnings={(results.ok ? [] : results.problems).map(({ code, sentence }) => ({
                code,
                sentence,
                weight: "stop",
              }))}
            />
          )}
          <YieldPanel yielded={results.ok ? yielded : err("none", "", "Mend the plan first.")} />
          <Cautions of={plan.method.school === "bench" ? "pack" : "riding"} />
        </div>
        <aside className="grid h-fit gap-4">
          <Form method="post" ref={form} onInput={onEdit} className="sheet grid gap-4 p-4">
            {keep.fields}
            <LiveFields values={values} problems={problems}>
              <PlanFields
                plan={plan}
                bike={record.bike}
                choices={choices}
                assumed={assumedTexts(good ?? first, say)}
              />
            </LiveFields>
            <p role="status" className="text-sm text-quiet">
              {keep.undecided
                ? "Not kept: it was changed meanwhile."
                : trouble
                  ? "Not kept: see the fields marked."
                  : keep.waiting
                    ? "Keeping…"
                    : "Kept as you type."}
            </p>
            <noscript>
              <button type="submit" name="intent" value="keep" className="button button-main">
                Keep the plan
              </button>
            </noscript>
          </Form>
          <Form method="post" className="flex flex-wrap gap-2">
            <input type="hidden" name="startId" value={loaderData.startId} />
            {plan.method.school === "bench" ? null : (
              <>
                <button type="submit" name="intent" value="start" className="button">
                  {line.testId ? "To the ride" : "Start the test"}
                </button>
                <button type="submit" name="intent" value="rehearse" className="button">
                  Rehearse
                </button>
              </>
            )}
            <button type="submit" name="intent" value="method" className="button">
              Keep the method as my own
            </button>
          </Form>
          <div className="text-sm">
            {line.courseId ? (
              <Link to={`/plan/courses/${line.courseId}`}>Change the course</Link>
            ) : (
              <Link to="/plan/courses/new">Type a course</Link>
            )}
            <Act
              kind="plan"
              id={line.id}
              intent={line.archived ? "restore" : "archive"}
              to="/plan"
              name={plan.title}
            />
          </div>
        </aside>
      </div>
    </Page>
  );
}
