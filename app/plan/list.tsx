import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { legsLength, buildRoute } from "#core/route";
import { questionOf, TEMPLATES } from "#core/planning";
import { dayText, formatQuantity } from "#core/base";
import { listBikes } from "#db/bikes";
import { listCourses, listMethods, listPlans } from "#db/plans";
import { Act } from "#ui/acts";
import { Empty, Page } from "#ui/page";
import { useSystem } from "#ui/system";
import type { Route } from "./+types/list";

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const archived = new URL(request.url).searchParams.has("archived");
  const [plans, courses, methods, bikes] = await Promise.all([
    listPlans(db, { archived }),
    listCourses(db, { archived }),
    listMethods(db),
    listBikes(db),
  ]);
  return {
    archived,
    hasBike: bikes.length > 0,
    plans: plans.map(({ id, plan, bikeName, setUpName, courseName, testId, archived: away }) => ({
      id,
      title: plan.title,
      day: plan.day,
      school: plan.method.name,
      asks: questionOf(plan.question).asks,
      line: [bikeName, setUpName].filter(Boolean).join(", "),
      courseName,
      testId,
      archived: away,
    })),
    courses: courses.map((course) => {
      const way = buildRoute(course);
      return {
        id: course.id,
        name: course.name,
        shape: course.shape,
        laps: course.laps,
        legs: course.legs.length,
        lapM: way.lapM,
        wayOutM: legsLength(course.legs),
        gainM: way.gainM / way.laps,
        track: course.profile !== null,
        archived: course.archived,
      };
    }),
    methods: methods.map(({ id, name, school }) => ({ id, name, school })),
  };
}

type Data = Route.ComponentProps["loaderData"];

/** Plans still to be ridden, and those that were. */
function PlanTable({ plans }: { readonly plans: Data["plans"] }) {
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Tests to ride">
      <table className="table w-full min-w-lg">
        <caption className="sr-only">Plans</caption>
        <thead>
          <tr>
            <th scope="col">Plan</th>
            <th scope="col">Bike</th>
            <th scope="col">Course</th>
            <th scope="col">Day</th>
            <th scope="col" className="number">
              Sheet
            </th>
          </tr>
        </thead>
        <tbody>
          {plans.map((plan) => (
            <tr key={plan.id}>
              <th scope="row">
                <Link to={href("/plan/:planId", { planId: plan.id })} className="font-bold">
                  {plan.title}
                </Link>
                <div className="text-sm text-quiet">
                  {plan.school}. {plan.asks}
                  {plan.archived ? " Archived." : ""}
                </div>
              </th>
              <td>{plan.line}</td>
              <td>{plan.courseName ?? <span className="pencil">none yet</span>}</td>
              <td className="whitespace-nowrap">{dayText(plan.day)}</td>
              <td className="number">
                {plan.testId ? (
                  <Link to={href("/strip/:testId", { testId: plan.testId })}>ridden</Link>
                ) : (
                  <Link to={href("/plan/:planId/sheet", { planId: plan.id })}>Run sheet</Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Courses that are kept. */
function CourseTable({ courses }: { readonly courses: Data["courses"] }) {
  const system = useSystem();
  return (
    <table className="table w-full">
      <caption className="sr-only">Courses</caption>
      <tbody>
        {courses.map((course) => (
          <tr key={course.id}>
            <th scope="row">
              <Link to={href("/plan/courses/:courseId", { courseId: course.id })}>{course.name}</Link>
              <div className="text-sm text-quiet">
                {course.shape}
                {course.laps > 1 ? `, ${course.laps} laps` : ""}
                {course.track ? ", from a track" : `, ${course.legs} legs`}
                {course.archived ? ", archived" : ""}
              </div>
            </th>
            <td className="number">
              {formatQuantity(course.lapM, "distance", system)}
              <div className="text-sm text-quiet">{formatQuantity(course.gainM, "climb", system)} climb</div>
            </td>
            <td className="number text-sm">
              <a href={href("/plan/courses/:courseId/course.gpx", { courseId: course.id })}>GPX</a>
              <Act
                kind="course"
                id={course.id}
                intent={course.archived ? "restore" : "archive"}
                list={href("/plan")}
                name={course.name}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Methods of one's own, and those that ship. */
function MethodList({ methods }: { readonly methods: Data["methods"] }) {
  return (
    <ul className="flex flex-wrap gap-2">
      {methods.map((method) => (
        <li key={method.id} className="sheet px-3 py-2">
          <Link to={href("/plan/methods/:methodId", { methodId: method.id })}>{method.name}</Link>
          <span className="text-sm text-quiet">, your own {method.school}</span>
        </li>
      ))}
      {TEMPLATES.map(({ method, strength }) => (
        <li key={method.name} className="sheet px-3 py-2" title={strength}>
          {method.name}
          <span className="text-sm text-quiet">, {method.school}</span>
        </li>
      ))}
    </ul>
  );
}

export default function Plans({
  loaderData: { plans, courses, methods, hasBike, archived },
}: Route.ComponentProps) {
  const start = hasBike ? href("/plan/new") : href("/bikes/new");
  return (
    <Page
      title="Plan"
      line="From a question to a run sheet: method, course, forecast."
      next={
        <Link to={start} className="button button-main">
          {hasBike ? "Ask a question" : "Add the first bike"}
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6">
        <section>
          <h2 className="mb-2">Tests to ride</h2>
          {plans.length === 0 ? (
            <Empty
              step={
                <Link to={start} className="button button-main">
                  {hasBike ? "Ask the first question" : "Add the first bike"}
                </Link>
              }
            >
              A plan answers one question with one method on one course. It forecasts each check-in and prints
              the run sheet.
            </Empty>
          ) : (
            <PlanTable plans={plans} />
          )}
        </section>
        <section>
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h2 className="mr-auto">Courses</h2>
            <Link to={href("/plan/courses/:courseId", { courseId: "new" })} className="button">
              Type a course
            </Link>
            <Link to={href("/plan/courses/import")} className="button">
              Import a GPX track
            </Link>
          </div>
          {courses.length === 0 ? (
            <p className="text-quiet">
              Courses that are kept stand here, so that several bikes ride the same one.
            </p>
          ) : (
            <CourseTable courses={courses} />
          )}
        </section>
        <section>
          <h2 className="mb-2">Methods</h2>
          <p className="mb-2 max-w-prose text-sm text-quiet">
            A plan starts from a copy of one and may change it. Your own are kept from a plan&apos;s page.
          </p>
          <MethodList methods={methods} />
        </section>
        <p className="text-sm">
          {archived ? (
            <Link to={href("/plan")}>Leave out what is archived</Link>
          ) : (
            <Link to={`${href("/plan")}?archived`}>Show what is archived</Link>
          )}
          {" · "}
          <Link to={href("/settings/trash")}>Trash</Link>
        </p>
      </div>
    </Page>
  );
}
