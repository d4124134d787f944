import { courseSchema, type Course } from "#core/route";
import { there, nth, METRES_PER_MILE } from "#core/base";
import { questionOf, type QuestionId } from "./questions.ts";
import type { PlanRecord } from "./record.ts";
import type { Method } from "./method.ts";
import { templateNamed } from "./templates.ts";
import { yieldOf } from "./yield.ts";
import type { PlanYield } from "./yieldTypes.ts";

/** A method that would answer a question, with its price and the plus-or-minus it would leave. */
export interface Proposal {
  readonly method: Method;
  readonly strength: string;
  readonly weakness: string;
  readonly yield: PlanYield | null;
  /** Why it cannot be ridden here; empty when it can. */
  readonly problem: string;
}

/** A course to reckon with before one is chosen: a level loop of five miles. */
export const PLAIN_COURSE: Course = courseSchema.parse({
  name: "a plain loop",
  shape: "loop",
  legs: [{ distanceM: 5 * METRES_PER_MILE, gainM: 40, lossM: 40 }],
});

const KINDS = { distanceM: 2 * METRES_PER_MILE, hillM: 1000 } as const;

/** A course of the kind a method asks for, where none is chosen. */
function courseFor(method: Method): Course {
  const loop = (distanceM: number, gainM: number, laps = 1): Course =>
    courseSchema.parse({
      name: PLAIN_COURSE.name,
      shape: "loop",
      laps,
      legs: [{ distanceM, gainM, lossM: gainM }],
    });
  if (method.school === "hill trial") return loop(KINDS.hillM * 2, 50);
  if (method.school === "vertical") return loop(3 * METRES_PER_MILE, 150);
  if (method.compare) return loop(KINDS.distanceM, 15);
  return loop(5 * METRES_PER_MILE, 40, method.until === "the course is ridden" ? 4 : 1);
}

/**
 * Methods that answer a question on a bike, best first, each with hours, charge and plus-or-minus.
 *
 * @param record of the plan as it would be, whatever its method; @param course chosen, or null for one of the method's kind
 */
export function proposalsFor(
  question: QuestionId,
  record: Omit<PlanRecord, "course">,
  course: Course | null,
): readonly Proposal[] {
  return questionOf(question).methods.map((name): Proposal => {
    const { method, strength, weakness } = there(templateNamed(name));
    const result = yieldOf({
      ...record,
      course: course ?? courseFor(method),
      plan: { ...record.plan, question, method },
    });
    return {
      method,
      strength,
      weakness,
      yield: result.ok ? result.value : null,
      problem: result.ok ? "" : nth(result.problems, 0).sentence,
    };
  });
}
