import { href, Form, Link, redirect, useSubmit } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { deskDay, deskZone } from "#app/ui/clock.server";
import { halfWidthText, PriceLine } from "./yieldText";
import {
  planSchema,
  proposalsFor,
  QUESTION_IDS,
  questionOf,
  QUESTIONS,
  TEMPLATES,
  templateNamed,
  yieldOf,
  type Method,
  type Plan,
  type Proposal,
} from "#core/planning";
import { listBikes, listPacks } from "#db/bikes";
import type { Database } from "#db/client";
import { findCourse, listCourses, listMethods, savePlan } from "#db/plans";
import { usualRider } from "#db/tests";
import { Choose, LiveFields } from "#ui/forms/lines";
import { Empty, Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { knownFor, loadDesk, type Desk } from "#app/services/planning.server";
import type { Route } from "./+types/new";

const GONE = "There is no such bike.";
const questionSchema = z.enum(QUESTION_IDS).catch("claim");
const DAY_MS = 86_400_000;

/** A plan as it begins: the question and the method, the day after today, the rest assumed. */
function freshPlan(question: Plan["question"], method: Method): Plan {
  const day = deskDay(Date.now() + DAY_MS);
  return planSchema.parse({
    title: method.name,
    question,
    method,
    day,
    zone: deskZone(),
  });
}

/** A person's own templates that are of the same school as one the question proposes. */
async function ownProposals(
  db: Database,
  question: Plan["question"],
  record: Parameters<typeof proposalsFor>[1],
  course: Parameters<typeof proposalsFor>[2],
): Promise<readonly (Proposal & { readonly ownId: string })[]> {
  const schools = new Set(questionOf(question).methods.map((name) => templateNamed(name)!.method.school));
  const own = (await listMethods(db)).filter(({ school }) => schools.has(school));
  return own.map(({ id, archived: _, ...method }) => {
    const result = course && yieldOf({ ...record, course, plan: { ...record.plan, method } });
    return {
      ownId: id,
      method,
      strength: "your own",
      weakness: "",
      yield: result?.ok ? result.value : null,
      problem:
        result && !result.ok ? result.problems[0]!.sentence : course ? "" : "Choose a course to price it.",
    };
  });
}

async function recordOf(db: Database, desk: Desk, packId: string | null, question: Plan["question"]) {
  const open = desk.packs.filter(({ archived }) => !archived);
  const pack = open.find(({ id }) => id === packId) ?? open[0];
  if (!pack) return null;
  const setUp = desk.setUps.find(({ archived }) => !archived) ?? null;
  return {
    plan: freshPlan(question, TEMPLATES[0]!.method),
    bike: desk.bike,
    pack,
    setUp,
    rider: null,
    known: await knownFor(db, { bikeId: desk.bike.id, setUpId: setUp?.id ?? null, riderId: null }),
  };
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const search = new URL(request.url).searchParams;
  const [bikes, packs, courses] = await Promise.all([listBikes(db), listPacks(db), listCourses(db)]);
  const able = bikes.filter(({ id }) => packs.some(({ bikeId }) => bikeId === id));
  const bike = able.find(({ id }) => id === search.get("bike")) ?? able[0];
  const question = questionSchema.parse(search.get("question"));
  const choices = {
    bikes: able.map(({ id, name }) => ({ id, name })),
    courses: courses.map(({ id, name }) => ({ id, name })),
  };
  if (!bike) return { ...choices, bikeId: null, courseId: null, question, proposals: [] };
  const desk = found(await loadDesk(db, bike.id), GONE);
  const courseId = search.get("course");
  const course = courseId ? await findCourse(db, idOf(courseId, "There is no such course.")) : null;
  const record = found(await recordOf(db, desk, null, question), GONE);
  const standard = proposalsFor(question, record, course).map((each) => ({ ...each, ownId: null }));
  return {
    ...choices,
    bikeId: bike.id,
    courseId: course ? courseId : null,
    question,
    proposals: [...standard, ...(await ownProposals(db, question, record, course))],
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const bikeId = idOf(String(form.get("bike") ?? ""), GONE);
  const question = questionSchema.parse(form.get("question"));
  const desk = found(await loadDesk(db, bikeId), GONE);
  const own = (await listMethods(db)).find(({ id }) => id === form.get("own"));
  const method = found(own ?? templateNamed(String(form.get("method")))?.method, "There is no such method.");
  const record = found(await recordOf(db, desk, null, question), "This bike has no pack: add one first.");
  const courseId = form.get("course") ? idOf(String(form.get("course")), "There is no such course.") : null;
  const id = madeId(request);
  const links = {
    bikeId,
    packId: record.pack.id,
    setUpId: record.setUp?.id ?? null,
    riderId: await usualRider(db, bikeId),
    courseId,
    testId: null,
  };
  const title = `${method.name}, ${desk.bike.name}`.slice(0, 120);
  await savePlan(db, id, links, { ...freshPlan(question, method), title });
  return redirect(href("/plan/:planId", { planId: id }));
}

function ProposalCard({
  proposal,
  hidden,
}: {
  readonly proposal: Proposal & { readonly ownId: string | null };
  readonly hidden: Readonly<Record<string, string>>;
}) {
  const system = useSystem();
  const { method, strength, weakness, yield: will, problem, ownId } = proposal;
  return (
    <li className="sheet grid content-start gap-2 p-4">
      <h3 className="font-bold">{method.name}</h3>
      <p className="text-sm text-quiet first-letter:uppercase">
        {strength}
        {weakness ? `. But: ${weakness}` : ""}.
      </p>
      {will ? (
        <>
          <p className="text-2xl leading-tight font-bold">{halfWidthText(will, system)}</p>
          <PriceLine will={will} />
        </>
      ) : (
        <p className="text-ochre">{problem}</p>
      )}
      <Form method="post" className="mt-auto pt-2">
        {Object.entries({ ...hidden, method: method.name, own: ownId ?? "" }).map(([name, value]) => (
          <input key={name} type="hidden" name={name} value={value} />
        ))}
        <button type="submit" className="button">
          Plan this
        </button>
      </Form>
    </li>
  );
}

export default function NewPlan({
  loaderData: { bikes, courses, bikeId, courseId, question, proposals },
}: Route.ComponentProps) {
  const submit = useSubmit();
  if (!bikeId)
    return (
      <Page title="Ask a question" line="Which bike is it about?">
        <div className="p-4 md:p-6">
          <Empty
            step={
              <Link to={href("/bikes/new")} className="button button-main">
                Add a bike
              </Link>
            }
          >
            A plan needs a bike with a pack.
          </Empty>
        </div>
      </Page>
    );
  return (
    <Page
      title="Ask a question"
      line="One question a test. Each method below answers it, at its price, with the plus-or-minus it will leave."
    >
      <div className="grid gap-6 p-4 md:p-6">
        <Form
          method="get"
          className="grid gap-4 sm:grid-cols-3"
          onChange={(event) => void submit(event.currentTarget, { replace: true })}
        >
          <LiveFields values={{ question, bike: bikeId, course: courseId ?? "" }} problems={{}}>
            <Choose
              name="question"
              label="Question"
              options={QUESTIONS.map(({ id, asks }) => ({ value: id, label: asks }))}
            />
            <Choose
              name="bike"
              label="Bike"
              options={bikes.map(({ id, name }) => ({ value: id, label: name }))}
            />
            <Choose
              name="course"
              label="Course"
              options={[
                { value: "", label: "not chosen yet: a plain one of its kind" },
                ...courses.map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
          </LiveFields>
          <noscript>
            <button type="submit" className="button">
              Show the methods
            </button>
          </noscript>
        </Form>
        <section>
          <h2 className="mb-3">{questionOf(question).asks}</h2>
          <ul className="grid gap-4 md:grid-cols-2 xl:grid-cols-3">
            {proposals.map((proposal) => (
              <ProposalCard
                key={`${question} ${proposal.method.name} ${proposal.ownId}`}
                proposal={proposal}
                hidden={{ bike: bikeId, question, course: courseId ?? "" }}
              />
            ))}
          </ul>
          <p className="mt-4 max-w-prose text-sm text-quiet">
            The plus-or-minus is what the ledger would have left, solved on the readings each method would
            yield on this bike. Hours include rests and handling.
          </p>
        </section>
      </div>
    </Page>
  );
}
