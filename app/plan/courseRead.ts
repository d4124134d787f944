import { parseQuantity, unitOf, type DimensionName, type System } from "#core/base";
import { courseSchema, type Course } from "#core/route";
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
  const text = (name: string) => String(texts[name] ?? "").trim();
  const quantity = (name: string, dimension: DimensionName) => {
    if (text(name) === "") return undefined;
    const value = parseQuantity(text(name), dimension, unitOf(dimension, system));
    if (value.ok) return value.value;
    problems[name] = value.problems[0]!.sentence;
    return undefined;
  };
  const number = (name: string) => (text(name) === "" ? undefined : Number(text(name).replace(",", ".")));
  const filled = (prefix: string, names: readonly string[]) =>
    names.some((name) => text(`${prefix}.${name}`) !== "");
  const rows = (kind: "legs" | "places", shape: RegExp, names: readonly string[]) =>
    Array.from({ length: rowsIn(texts, shape) }, (_, i) => `${kind}.${i}`).filter((prefix) =>
      filled(prefix, names),
    );
  const legRows = rows("legs", LEG, ["distanceM", "name", "gainM", "lossM"]);
  const placeRows = rows("places", PLACE, ["name", "atM"]);
  let profile: unknown = null;
  try {
    profile = text("profile") ? JSON.parse(text("profile")) : null;
  } catch {
    problems["profile"] = "The profile was damaged on its way: bring the track in again.";
  }
  const given = {
    name: text("name") || undefined,
    shape: text("shape") || undefined,
    laps: number("laps"),
    fetchedBy: text("fetchedBy"),
    note: text("note"),
    latitude: number("latitude"),
    longitude: number("longitude"),
    altitudeM: quantity("altitudeM", "climb"),
    profile,
    legs: legRows.map((prefix) => ({
      name: text(`${prefix}.name`),
      distanceM: quantity(`${prefix}.distanceM`, "distance"),
      ground: text(`${prefix}.ground`) || undefined,
      level: text(`${prefix}.level`),
      gainM: quantity(`${prefix}.gainM`, "climb"),
      lossM: quantity(`${prefix}.lossM`, "climb"),
    })),
    places: placeRows.map((prefix) => ({
      name: text(`${prefix}.name`) || undefined,
      atM: quantity(`${prefix}.atM`, "distance"),
      kind: text(`${prefix}.kind`) || undefined,
    })),
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
