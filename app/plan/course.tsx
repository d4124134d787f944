import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findCourse, saveCourse } from "#db/plans";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { CourseForm, courseTexts } from "./courseForm";
import { readCourseForm } from "./courseRead";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { staleOf } from "#app/ui/forms/stale";
import type { Route } from "./+types/course";
import { Acts } from "#ui/acts";

const GONE = "There is no such course.";

export async function loader({ params, context }: Route.LoaderArgs) {
  if (params.courseId === "new") return { course: null, id: null };
  const id = idOf(params.courseId, GONE);
  return { course: found(await findCourse(context.get(dbContext), id), GONE), id };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const system = systemOf(request);
  const form = await request.formData();
  const { course, problems } = readCourseForm(form, system);
  if (!course) return data({ problems }, { status: 400 });
  const id = params.courseId === "new" ? madeId(request) : idOf(params.courseId, GONE);
  const { saved, stale } = await saveOrStale(
    () => saveCourse(db, id, course, seenVersion(form)),
    async () => courseTexts(found(await findCourse(db, id), GONE), system),
  );
  return stale
    ? staleReply({ problems: {} }, stale)
    : redirect(afterChange(href("/plan/courses/:courseId", { courseId: id }), saved));
}

export default function CoursePage({ loaderData: { course, id }, actionData }: Route.ComponentProps) {
  return (
    <Page
      title={course?.name ?? "A course"}
      line="Kept, so that every bike rides the same way."
      acts={
        id && course ? (
          <Acts kind="course" id={id} name={course.name} list={href("/plan")} archived={course.archived} />
        ) : null
      }
      next={
        id ? (
          <a href={href("/plan/courses/:courseId/course.gpx", { courseId: id })} className="button">
            GPX
          </a>
        ) : null
      }
    >
      <div className="max-w-4xl p-4 md:p-6">
        <CourseForm
          key={id}
          course={course}
          version={course?.version}
          stale={staleOf(actionData)}
          problems={actionData?.problems ?? {}}
          save="Save the course"
        />
      </div>
      {course && id ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="course" id={id} />
        </div>
      ) : null}
    </Page>
  );
}
