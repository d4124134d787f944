import { data, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findCourse, saveCourse } from "#db/plans";
import { Page } from "#ui/page";
import { CourseForm } from "./courseForm";
import { readCourseForm } from "./forms";
import type { Route } from "./+types/course";

const GONE = "There is no such course.";

export async function loader({ params, context }: Route.LoaderArgs) {
  if (params.courseId === "new") return { course: null, id: null };
  const id = idOf(params.courseId, GONE);
  return { course: found(await findCourse(context.get(dbContext), id), GONE), id };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const read = readCourseForm(await request.formData(), systemOf(request));
  if (!read.course) return data({ problems: read.problems }, { status: 400 });
  const id = params.courseId === "new" ? uuidv7() : idOf(params.courseId, GONE);
  const change = await saveCourse(context.get(dbContext), id, read.course);
  return redirect(afterChange(`/plan/courses/${id}`, change));
}

export default function CoursePage({ loaderData: { course, id }, actionData }: Route.ComponentProps) {
  return (
    <Page
      title={course?.name ?? "A course"}
      line="Kept, so that every bike rides the same way."
      next={
        id ? (
          <a href={`/plan/courses/${id}/course.gpx`} className="button">
            GPX
          </a>
        ) : null
      }
    >
      <div className="max-w-4xl p-4 md:p-6">
        <CourseForm key={id} course={course} problems={actionData?.problems ?? {}} save="Keep the course" />
      </div>
    </Page>
  );
}
