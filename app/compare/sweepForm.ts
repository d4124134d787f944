import type { z } from "zod";
import { recordForm, recordTexts } from "#app/ui/forms/record";
import type { Ground } from "#core/fields";
import { parseQuantity, unitOf, type System } from "#core/base";
import {
  SWEEP_COLUMNS,
  SWEEP_ROW_FIELDS,
  sweepRowSchema,
  sweepSchema,
  type OpenSweepRow,
  type Sweep,
  type SweepColumn,
  type SweepRow,
} from "#core/records";

/** One row of the grid as texts. */
export type RowTexts = Omit<OpenSweepRow, "at">;

/** What is wrong with a form, by field name. */
export type SweepProblems = Readonly<Record<string, string>>;

const NAMES = Object.keys(SWEEP_COLUMNS) as readonly SweepColumn[];

/** The grid of a sweep in the order it was laid out, filled rows and open ones. */
export function gridOf(sweep: Sweep, system: System): readonly RowTexts[] {
  const grid = sweep.rows.map((row) => {
    const texts = recordTexts<SweepRow>(SWEEP_ROW_FIELDS, row, system);
    return Object.fromEntries(NAMES.map((name) => [name, texts[SWEEP_COLUMNS[name]]])) as unknown as RowTexts;
  });
  for (const { at, ...row } of [...sweep.open].sort((a, b) => a.at - b.at)) grid.splice(at, 0, row);
  return grid;
}

/** The column in which a field of a row is typed. */
const columnOf = (key: string): string =>
  NAMES.find((name) => {
    const { typed } = SWEEP_ROW_FIELDS[SWEEP_COLUMNS[name]];
    return SWEEP_COLUMNS[name] === key || (typed.as === "span" && typed.to === key);
  }) ?? key;

/** One row read; a column's name with its sentence where it cannot be. */
function readRow(
  texts: RowTexts,
  system: System,
): SweepRow | { readonly field: string; readonly sentence: string } {
  const typed = Object.fromEntries(NAMES.map((name) => [SWEEP_COLUMNS[name], texts[name]]));
  const row = recordForm(SWEEP_ROW_FIELDS, sweepRowSchema, system).safeParse(typed);
  if (row.success) return row.data;
  const [issue] = row.error.issues;
  return { field: columnOf(String(issue!.path[0])), sentence: issue!.message };
}

/** One of a field's choices; another word is none of them. */
const chosen = <T extends string>(
  field: { readonly schema: z.ZodType<T> },
  word: string,
  otherwise: T,
): T => {
  const read = field.schema.safeParse(word);
  return read.success ? read.data : otherwise;
};

/** The grid's rows as a form sends them. */
function rowsIn(form: FormData): readonly RowTexts[] {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const rows: RowTexts[] = [];
  for (let i = 0; form.has(`rows.${i}.level`); i += 1)
    rows.push({
      ...(Object.fromEntries(NAMES.map((name) => [name, text(`rows.${i}.${name}`)])) as unknown as RowTexts),
      ground: chosen(SWEEP_ROW_FIELDS.ground, text(`rows.${i}.ground`), "asphalt"),
      direction: chosen(SWEEP_ROW_FIELDS.direction, text(`rows.${i}.direction`), "one way"),
    });
  return rows;
}

/** Rows with neither speed nor amps are still to be ridden; they are no slips. */
const untouched = ({ speed, amps, volts }: RowTexts) => !speed && !amps && !volts;

/**
 * Reads a sweep's form. Rows that cannot be read are saved as typed, each with its sentence; nothing is lost.
 *
 * @param before the sweep as it was kept, for what the form does not hold
 */
export function readSweepForm(
  form: FormData,
  before: Sweep,
  system: System,
): { readonly sweep: Sweep; readonly problems: SweepProblems } {
  const problems: Record<string, string> = {};
  const rows: SweepRow[] = [];
  const open: OpenSweepRow[] = [];
  rowsIn(form).forEach((texts, i) => {
    if (!texts.level && untouched(texts)) return;
    const read = untouched(texts) ? null : readRow(texts, system);
    if (read && !("field" in read)) rows.push(read);
    else {
      if (read) problems[`rows.${i}.${read.field}`] = read.sentence;
      open.push({ ...texts, at: i });
    }
  });
  const airTemp = String(form.get("airTempC") ?? "").trim();
  const temp = airTemp ? parseQuantity(airTemp, "temperature", unitOf("temperature", system)) : null;
  if (temp && !temp.ok) problems["airTempC"] = temp.problems[0]!.sentence;
  const parsed = sweepSchema.safeParse({
    ...before,
    title: form.get("title") ?? before.title,
    day: form.get("day") ?? before.day,
    effort: form.get("effort") ?? before.effort,
    note: form.get("note") ?? before.note,
    airTempC: temp ? (temp.ok ? temp.value : before.airTempC) : undefined,
    rows,
    open,
  });
  if (parsed.success) return { sweep: parsed.data, problems };
  for (const { path, message } of parsed.error.issues) problems[path.join(".")] = message;
  return { sweep: before, problems };
}

/** Speeds typed in a row, each with the unit of the last: "10, 15, 20 mph". Empty: one speed, typed at the stop. */
export function speedsTyped(text: string): readonly string[] {
  const typed = text
    .split(/[,;]|\band\b/i)
    .map((each) => each.trim())
    .filter(Boolean);
  const unit = /[a-z].*$/i.exec(typed.at(-1) ?? "")?.[0] ?? "";
  return typed.length ? typed.map((each) => (/[a-z]/i.test(each) || !unit ? each : `${each} ${unit}`)) : [""];
}

/** An empty grid: a row there and one back for each ground, level and speed that is to be held. */
export function emptyGrid(
  levels: readonly string[],
  grounds: readonly Ground[],
  speeds: readonly string[] = [""],
): readonly OpenSweepRow[] {
  const squares = grounds.flatMap((ground) =>
    levels.flatMap((level) => speeds.map((speed) => ({ ground, level, speed }))),
  );
  return squares
    .flatMap((square) =>
      (["there", "back"] as const).map((direction) => ({ ...square, direction, amps: "", volts: "" })),
    )
    .map((row, at) => ({ ...row, at }));
}
