import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { writeCourseGpx } from "#core/io";
import { findCourse } from "#db/plans";
import type { Route } from "./+types/courseFile";

const GONE = "There is no such course.";

/** A course as GPX with its extension. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const course = found(await findCourse(context.get(dbContext), idOf(params.courseId, GONE)), GONE);
  return new Response(writeCourseGpx(course), {
    headers: {
      "content-type": "application/gpx+xml",
      "content-disposition": 'attachment; filename="course.gpx"',
    },
  });
}
