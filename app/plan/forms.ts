import { z } from "zod";
import { choice } from "#app/ui/forms/formText";
import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";
import type { System } from "#core/base";
import { METHOD_FIELDS, methodSchema, PLAN_FIELDS, planSchema, type Method, type Plan } from "#core/planning";

/** The forms of this station: texts as typed, read into core's records, and records written back. */
export const methodForm = (system: System) => recordForm(METHOD_FIELDS, methodSchema, system);

export const methodTexts = (method: Method, system: System): Texts =>
  recordTexts<Method>(METHOD_FIELDS, method, system);

/** What a plan is of, by id. */
export interface PlanLinks {
  readonly packId: string;
  readonly setUpId: string | null;
  readonly riderId: string | null;
  readonly courseId: string | null;
}

const link = choice.transform((id) => id ?? null);
const linksSchema = z.object({
  packId: choice.pipe(z.string({ error: "Choose the pack." })),
  setUpId: link,
  riderId: link,
  courseId: link,
});

/**
 * Reads a plan's form with what it links to.
 *
 * @param ticked lines of its lists that are done, which the form does not hold
 */
export function readPlanForm(
  texts: FormTexts,
  system: System,
  ticked: readonly string[] = [],
):
  | { readonly links: PlanLinks; readonly plan: Plan; readonly problems: null }
  | { readonly links: null; readonly plan: null; readonly problems: FieldProblems } {
  const links = linksSchema.safeParse(texts);
  const plan = recordForm(PLAN_FIELDS, planSchema, system).safeParse(texts);
  if (links.success && plan.success)
    return { links: links.data, plan: { ...plan.data, ticked: [...ticked] }, problems: null };
  const problems = [links, plan].map(({ error }) => (error ? problemsOf(error) : {}));
  return { links: null, plan: null, problems: Object.assign({}, ...problems) as FieldProblems };
}

export const planTexts = (plan: Plan, system: System): Texts => recordTexts<Plan>(PLAN_FIELDS, plan, system);

/** Texts of a form as it stands, several of one name as a list. */
export type FormTexts = Readonly<Record<string, string | string[]>>;

export function textsOf(form: FormData): FormTexts {
  const texts: Record<string, string | string[]> = {};
  for (const name of new Set(form.keys())) {
    const all = form.getAll(name).filter((value): value is string => typeof value === "string");
    texts[name] = all.length > 1 ? all : (all[0] ?? "");
  }
  return texts;
}

/** Sentences by field name. */
export type FieldProblems = Readonly<Record<string, string>>;

export function problemsOf(error: z.ZodError): FieldProblems {
  const found: Record<string, string> = {};
  for (const { path, message } of error.issues) found[path.map(String).join(".")] ??= message;
  return found;
}
