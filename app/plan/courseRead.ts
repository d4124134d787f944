import { readTexts } from "#app/ui/forms/record";
import type { System } from "#core/base";
import type { RecordFields } from "#core/fields";
import { COURSE_FIELDS, courseSchema, LEG_FIELDS, PLACE_FIELDS, type Course } from "#core/route";
import { textsOf, type FieldProblems } from "./forms";

const LEG = /^legs\.(\d+)\./;
const PLACE = /^places\.(\d+)\./;

/** More rows than any course has; a form that sends more is none of ours. */
const MOST_ROWS = 400;

/** How many rows of a kind a form sent. */
const rowsIn = (texts: Readonly<Record<string, unknown>>, shape: RegExp) =>
  Math.min(
    MOST_ROWS,
    Object.keys(texts).reduce((most, name) => Math.max(most, Number(shape.exec(name)?.[1] ?? -1)), -1) + 1,
  );

/** A course as its form sends it, read into the record; problems by field name. */
export function readCourseForm(
  form: FormData,
  system: System,
):
  | { readonly course: Course; readonly problems: null }
  | { readonly course: null; readonly problems: FieldProblems } {
  const texts = textsOf(form);
  const problems: Record<string, string> = {};
  const read = (fields: RecordFields, within = "") => {
    const own = Object.fromEntries(Object.keys(fields).map((key) => [key, texts[within + key]]));
    const { values, problems: found } = readTexts(fields, own, system);
    for (const [key, sentence] of Object.entries(found)) problems[within + key] = sentence;
    return values;
  };
  const isFilled = (name: string) => String(texts[name] ?? "").trim() !== "";
  const rows = (kind: "legs" | "places", shape: RegExp, names: readonly string[]) =>
    Array.from({ length: rowsIn(texts, shape) }, (_, i) => `${kind}.${i}`).filter((prefix) =>
      names.some((name) => isFilled(`${prefix}.${name}`)),
    );
  const legRows = rows("legs", LEG, ["distanceM", "name", "gainM", "lossM"]);
  const placeRows = rows("places", PLACE, ["name", "atM"]);
  let profile: unknown = null;
  try {
    profile = isFilled("profile") ? JSON.parse(String(texts["profile"])) : null;
  } catch {
    problems["profile"] = "The profile was damaged on its way: bring the track in again.";
  }
  const given = {
    ...read(COURSE_FIELDS),
    profile,
    legs: legRows.map((prefix) => read(LEG_FIELDS, `${prefix}.`)),
    places: placeRows.map((prefix) => read(PLACE_FIELDS, `${prefix}.`)),
  };
  const parsed = courseSchema.safeParse(given);
  if (!parsed.success)
    for (const { path, message } of parsed.error.issues) {
      const [kind, index, ...rest] = path.map(String);
      const prefix =
        kind === "legs" ? legRows[Number(index)] : kind === "places" ? placeRows[Number(index)] : undefined;
      const name = prefix ? [prefix, ...rest].join(".") : path.map(String).join(".");
      problems[name] ??= message;
    }
  return parsed.success && Object.keys(problems).length === 0
    ? { course: parsed.data, problems: null }
    : { course: null, problems };
}
