import { href, Form, Link } from "react-router";
import type { PlanLine } from "./start.server";

/** Other views of a plan. */
export function PlanPages({ id }: { readonly id: string }) {
  return (
    <div className="flex flex-wrap gap-3">
      <Link to={href("/plan/:planId/sheet", { planId: id })} className="button button-main">
        Run sheet
      </Link>
      <Link to={href("/plan/:planId/pocket", { planId: id })} className="button">
        On the phone
      </Link>
      <a href={href("/plan/:planId/calendar.ics", { planId: id })} className="button">
        Calendar
      </a>
    </div>
  );
}

/** What a plan can become. */
export function PlanButtons({ line, startId }: { readonly line: PlanLine; readonly startId: string }) {
  const { plan } = line;
  return (
    <Form method="post" className="flex flex-wrap gap-2">
      <input type="hidden" name="startId" value={startId} />
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
        Save the method as my own
      </button>
    </Form>
  );
}

/** Where its course is changed. */
export function PlanLinks({ line }: { readonly line: PlanLine }) {
  return (
    <div className="text-sm">
      {line.courseId ? (
        <Link to={href("/plan/courses/:courseId", { courseId: line.courseId })}>Change the course</Link>
      ) : (
        <Link to={href("/plan/courses/:courseId", { courseId: "new" })}>Type a course</Link>
      )}
    </div>
  );
}
