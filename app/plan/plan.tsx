import { useMemo, useRef, useState } from "react";
import { href, data, Form, redirect, useFetcher } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { PLAN_FIELDS, questionOf, reckonPlan, yieldOf, type PlanResults } from "#core/planning";
import { z } from "zod";
import { dayText, type System } from "#core/base";
import { versionMade } from "#db/entities";
import { findPlan, listCourses, saveMethod, savePlan, startPlan, tickPlan } from "#db/plans";
import { findTest } from "#db/tests";
import { LiveFields } from "#ui/forms/lines";
import { useAnnounced } from "#ui/announce";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { planTexts, readPlanForm, textsOf, type FieldProblems } from "./forms";
import { PlanFields } from "./planFields";
import { loadDesk, planRecord } from "#app/services/planning.server";
import { useMeeting } from "#ui/forms/useMeeting";
import { PlanButtons, PlanLinks, PlanPages } from "./planButtons";
import { PlanOutcome } from "./planOutcome";
import { rehearsalOf, startTest, type PlanLine } from "./start.server";
import type { Database } from "#db/client";
import { usePlan } from "./usePlan";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { staleOf } from "#app/ui/forms/stale";
import type { Route } from "./+types/plan";
import { Acts } from "#ui/acts";

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

/** Ticks a line of the plan's lists, or takes the tick back. */
async function tick(db: Database, line: PlanLine, form: FormData) {
  const what = String(form.get("line")).slice(0, 160);
  const { ready, hold, bring } = line.plan.method;
  if (![...ready, ...hold, ...bring].includes(what))
    return data({ problems: { line: "This line is not on the plan's lists any more." } }, { status: 400 });
  await tickPlan(db, line.id, what, form.get("done") === "on");
  return { problems: null };
}

/** Begins the test a plan becomes, or its rehearsal. */
async function begin(db: Database, line: PlanLine, form: FormData, system: System) {
  const desk = found(await loadDesk(db, line.bikeId), GONE);
  const record = found(await planRecord(db, line, desk), GONE);
  // The page names the test: however often it is pressed, one is made.
  const asked = z.uuid().safeParse(form.get("startId"));
  const id = asked.success ? asked.data : uuidv7();
  if (form.get("intent") === "rehearse") {
    if (!(await findTest(db, id)))
      await startTest(db, id, line, record, system, rehearsalOf(line.id, record));
    return redirect(href("/ride/:testId", { testId: id }));
  }
  const started = await startPlan(db, line.id, (tx) => startTest(tx, id, line, record, system));
  return redirect(href("/ride/:testId", { testId: found(started, GONE) }));
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = found(await findPlan(db, idOf(params.planId, GONE)), GONE);
  const form = await request.formData();
  const intent = String(form.get("intent"));
  if (intent === "tick") return tick(db, line, form);
  if (intent === "start" || intent === "rehearse") return begin(db, line, form, systemOf(request));
  if (intent === "method") {
    const id = madeId(request);
    const change = await saveMethod(db, id, { ...line.plan.method, name: `${line.plan.method.name}, own` });
    return redirect(afterChange(href("/plan/methods/:methodId", { methodId: id }), change));
  }
  const read = readPlanForm(textsOf(form), systemOf(request), line.plan.ticked);
  if (read.problems) return data({ problems: read.problems }, { status: 400 });
  const links = { ...line, ...read.links };
  const { saved, stale } = await saveOrStale(
    () => savePlan(db, line.id, links, read.plan, seenVersion(form)),
    async () => lineTexts(found(await findPlan(db, line.id), GONE), systemOf(request)),
  );
  if (stale) return staleReply({ problems: null }, stale);
  return form.get("intent") === "keep"
    ? redirect(href("/plan/:planId", { planId: line.id }))
    : { problems: null, version: await versionMade(db, saved) };
}

/** How long a person pauses before what they typed is kept, ms. */
const PAUSE_MS = 700;
const LINKS = ["packId", "setUpId", "riderId", "courseId"] as const;

/** A plan and what it links to as the form's texts. */
const lineTexts = (line: PlanLine, system: System): Record<string, string> => ({
  ...planTexts(line.plan, system),
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

type Keep = ReturnType<typeof useMeeting>;

/** Whether what was typed is kept. */
function KeptLine({ keep, trouble }: { readonly keep: Keep; readonly trouble: boolean }) {
  const words = keep.undecided
    ? "Not saved: it was changed meanwhile."
    : trouble
      ? "Not saved: see the fields marked."
      : keep.waiting
        ? "Saving…"
        : "Saved as you type.";
  useAnnounced(keep.undecided || trouble ? words : keep.waiting ? null : "Saved.");
  return <p className="text-sm text-quiet">{words}</p>;
}

export default function PlanPage({ loaderData, actionData }: Route.ComponentProps) {
  const { line, record, choices } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  const fetcher = useFetcher<typeof action>();
  const form = useRef<HTMLFormElement>(null);
  const values = useMemo(() => lineTexts(line, system), [line, system]);
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
    const read = readPlanForm(textsOf(new FormData(form.current!)), system, line.plan.ticked);
    setTyped(read.problems ?? {});
    if (read.problems) return keep.hold();
    const moved = LINKS.some((name) => (read.links[name] ?? null) !== line[name]);
    if (!moved) ask({ ...record, plan: read.plan });
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
      acts={<Acts kind="plan" id={line.id} name={plan.title} list={href("/plan")} archived={line.archived} />}
      next={<PlanPages id={line.id} />}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <PlanOutcome line={line} course={record.course} results={results} yielded={yielded} />
        <aside className="grid h-fit gap-4">
          <Form method="post" ref={form} onInput={onEdit} className="sheet grid gap-4 p-4">
            {keep.fields}
            <LiveFields of={PLAN_FIELDS} values={values} problems={problems}>
              <PlanFields
                plan={plan}
                bike={record.bike}
                choices={choices}
                assumed={assumedTexts(good ?? first, say)}
              />
            </LiveFields>
            <KeptLine keep={keep} trouble={trouble} />
            <noscript>
              <button type="submit" name="intent" value="keep" className="button button-main">
                Save the plan
              </button>
            </noscript>
          </Form>
          <PlanButtons line={line} startId={loaderData.startId} />
          <PlanLinks line={line} />
          <History kind="plan" id={line.id} />
        </aside>
      </div>
    </Page>
  );
}
