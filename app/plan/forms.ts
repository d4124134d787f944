import { z } from "zod";
import { compassText, compassWritten } from "#app/ui/forms/compass";
import {
  choice,
  linesText,
  numberText,
  pencilText,
  quantityText,
  shareText,
  tick,
} from "#app/ui/forms/formText";
import { forField, formatInput, unitOf, type DimensionName, type System } from "#core/base";
import { methodSchema, planSchema, type Method, type Plan } from "#core/planning";

/** The forms of this station: texts as typed, read into core's records, and records written back. */
type Texts = Readonly<Record<string, string>>;

const shown = (value: number | undefined, name: DimensionName, system: System, digits?: number) =>
  value === undefined ? "" : formatInput(value, name, unitOf(name, system), digits);
const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
const percent = (share: number) => `${forField(Number((100 * share).toFixed(1)))} %`;

/** One of several ticks of the same name: none, one or many are sent. */
const ticks = z
  .union([z.string(), z.array(z.string())])
  .optional()
  .transform((sent) => (sent === undefined ? [] : Array.isArray(sent) ? sent : [sent]));

/** Energy per distance; empty is undefined. */
const rateText = (system: System) => quantityText("energyPerDistance", system);

const methodTexts = (system: System) => ({
  methodName: choice,
  school: choice,
  drive: choice,
  until: choice,
  share: shareText,
  everyM: quantityText("distance", system),
  atQuarters: tick,
  taken: ticks,
  compareA: choice,
  compareB: choice,
  pairs: numberText,
  wanted: rateText(system),
  ends: ticks,
  hold: linesText,
  ready: linesText,
  bring: linesText,
  methodNote: choice,
});

type MethodTyped = z.output<z.ZodObject<ReturnType<typeof methodTexts>>>;

/** What was typed of a method, as the method's own record. */
function asMethod(typed: MethodTyped) {
  const compares = typed.compareA !== undefined || typed.compareB !== undefined || typed.pairs !== undefined;
  return {
    name: typed.methodName,
    school: typed.school,
    drive: typed.drive,
    until: typed.until,
    share: typed.share,
    everyM: typed.everyM,
    atQuarters: typed.atQuarters,
    taken: typed.taken,
    compare: compares
      ? { a: typed.compareA, b: typed.compareB, pairs: typed.pairs, wantedWhPerM: typed.wanted }
      : null,
    ends: typed.ends,
    hold: typed.hold,
    ready: typed.ready,
    bring: typed.bring,
    note: typed.methodNote,
  };
}

const METHOD_FIELD: Readonly<Record<string, string>> = {
  name: "methodName",
  note: "methodNote",
  "compare.a": "compareA",
  "compare.b": "compareB",
  "compare.pairs": "pairs",
  "compare.wantedWhPerM": "wanted",
};

/** A problem of a method's record, moved to the field where it was typed. */
function methodField(path: readonly PropertyKey[]): string {
  const dotted = path.map(String).join(".");
  return METHOD_FIELD[dotted] ?? String(path[0]);
}

function methodOf(typed: MethodTyped, context: z.RefinementCtx): Method | never {
  const parsed = methodSchema.safeParse(asMethod(typed));
  if (parsed.success) return parsed.data;
  for (const { path, message } of parsed.error.issues)
    context.addIssue({ code: "custom", path: [methodField(path)], message });
  return z.NEVER;
}

export const methodForm = (system: System) => z.object(methodTexts(system)).transform(methodOf);

export function methodWritten(method: Method, system: System): Texts {
  const { compare } = method;
  return {
    methodName: method.name,
    school: method.school,
    drive: method.drive,
    until: method.until,
    share: percent(method.share),
    everyM: shown(method.everyM, "distance", system, 2),
    atQuarters: method.atQuarters ? "on" : "",
    compareA: compare?.a ?? "",
    compareB: compare?.b ?? "",
    pairs: plain(compare?.pairs),
    wanted: compare ? shown(compare.wantedWhPerM, "energyPerDistance", system, 2) : "",
    hold: method.hold.join("\n"),
    ready: method.ready.join("\n"),
    bring: method.bring.join("\n"),
    methodNote: method.note,
  };
}

export interface PlanTyped {
  readonly links: {
    readonly packId: string;
    readonly setUpId: string | null;
    readonly riderId: string | null;
    readonly courseId: string | null;
  };
  readonly plan: Plan;
}

const link = choice.transform((id) => id ?? null);

export const planForm = (system: System) =>
  z
    .object({
      packId: choice.pipe(z.string({ error: "Choose the pack." })),
      setUpId: link,
      riderId: link,
      courseId: link,
      title: choice,
      question: choice,
      day: choice,
      startsAt: choice,
      zone: choice,
      laps: numberText,
      days: numberText,
      level: choice,
      speedMps: quantityText("speed", system),
      effort: choice,
      riderW: numberText,
      bpm: numberText,
      airTempC: quantityText("temperature", system),
      packTempC: quantityText("temperature", system),
      windMps: quantityText("speed", system),
      windFromDeg: compassText,
      stopsPerMi: numberText,
      reserve: shareText,
      startPercent: numberText,
      chargeFromPercent: numberText,
      chargerA: quantityText("current", system),
      chargedBy: choice,
      dark: tick,
      ticked: ticks,
      pencil: pencilText,
      ...methodTexts(system),
    })
    .transform((typed, context): PlanTyped => {
      const method = methodSchema.safeParse(asMethod(typed));
      if (!method.success)
        for (const { path, message } of method.error.issues)
          context.addIssue({ code: "custom", path: [methodField(path)], message });
      const parsed = planSchema.safeParse({ ...typed, method: method.success ? method.data : undefined });
      if (!parsed.success)
        for (const { path, message } of parsed.error.issues)
          if (path[0] !== "method") context.addIssue({ code: "custom", path: [String(path[0])], message });
      if (!method.success || !parsed.success) return z.NEVER;
      const { packId, setUpId, riderId, courseId } = typed;
      return { links: { packId, setUpId, riderId, courseId }, plan: parsed.data };
    });

export function planWritten(plan: Plan, system: System): Texts {
  return {
    title: plan.title,
    question: plan.question,
    day: plan.day,
    startsAt: plan.startsAt,
    zone: plan.zone,
    laps: plain(plan.laps),
    days: plain(plan.days),
    level: plan.level,
    speedMps: shown(plan.speedMps, "speed", system, 2),
    effort: plan.effort,
    riderW: plain(plan.riderW),
    bpm: plain(plan.bpm),
    airTempC: shown(plan.airTempC, "temperature", system, 1),
    packTempC: shown(plan.packTempC, "temperature", system, 1),
    windMps: shown(plan.windMps, "speed", system, 1),
    windFromDeg: compassWritten(plan.windFromDeg),
    stopsPerMi: plain(plan.stopsPerMi),
    reserve: percent(plan.reserve),
    startPercent: plain(plan.startPercent),
    chargeFromPercent: plain(plan.chargeFromPercent),
    chargerA: shown(plan.chargerA, "current", system),
    chargedBy: plan.chargedBy,
    dark: plan.dark ? "on" : "",
    ...methodWritten(plan.method, system),
  };
}

/** Texts of a form as it stands, several of one name as a list. */
export function textsOf(form: FormData): Readonly<Record<string, string | string[]>> {
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
