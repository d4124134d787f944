import { GROUNDS, type Ground } from "#core/fields";
import { formatInput, parseNumber, parseQuantity, unitOf, type System } from "#core/base";
import {
  DIRECTIONS,
  sweepRowSchema,
  sweepSchema,
  type OpenSweepRow,
  type Sweep,
  type SweepRow,
} from "#core/records";

/** One row of the grid as texts. */
export interface RowTexts {
  readonly level: string;
  readonly ground: Ground;
  readonly direction: (typeof DIRECTIONS)[number];
  readonly speed: string;
  readonly amps: string;
  readonly volts: string;
}

/** What is wrong with a form, by field name. */
export type SweepProblems = Readonly<Record<string, string>>;

const DECIMALS = 2;

/** The grid of a sweep in the order it was laid out, filled rows and open ones. */
export function gridOf(sweep: Sweep, system: System): readonly RowTexts[] {
  const plain = (value: number) => String(Number(value.toFixed(DECIMALS)));
  const grid: RowTexts[] = sweep.rows.map(({ level, ground, direction, ...row }) => ({
    level,
    ground,
    direction,
    speed: formatInput(row.speedMps, "speed", unitOf("speed", system), DECIMALS),
    amps: row.ampsLow === row.ampsHigh ? plain(row.ampsLow) : `${plain(row.ampsLow)}-${plain(row.ampsHigh)}`,
    volts: row.packVolts === undefined ? "" : plain(row.packVolts),
  }));
  for (const { at, ...row } of [...sweep.open].sort((a, b) => a.at - b.at)) grid.splice(at, 0, row);
  return grid;
}

/** Amps as they flicker: "6.5", "6-7", with or without their unit; a sentence when they cannot be read. */
function readAmps(text: string): { low: number; high: number } | string {
  const parts = text
    .replace(/\s*(?:a|amps)\s*$/i, "")
    .split(/\s*(?:-|–|to)\s*/)
    .map((part) => parseNumber(part));
  const [low, high = low] = parts;
  return parts.length <= 2 && typeof low === "number" && typeof high === "number"
    ? { low, high }
    : `“${text}” is no current: type 6.5, or 6-7 as it flickers.`;
}

/** One row read; a field's name with its sentence where it cannot be. */
function readRow(
  texts: RowTexts,
  system: System,
): SweepRow | { readonly field: string; readonly sentence: string } {
  const speed = parseQuantity(texts.speed, "speed", unitOf("speed", system));
  if (!speed.ok) return { field: "speed", sentence: speed.problems[0]!.sentence };
  const amps = readAmps(texts.amps);
  if (typeof amps === "string") return { field: "amps", sentence: amps };
  const volts = texts.volts ? parseQuantity(texts.volts, "volts", "V") : null;
  if (volts && !volts.ok) return { field: "volts", sentence: volts.problems[0]!.sentence };
  const row = sweepRowSchema.safeParse({
    level: texts.level,
    ground: texts.ground,
    direction: texts.direction,
    speedMps: speed.value,
    ampsLow: amps.low,
    ampsHigh: amps.high,
    ...(volts && { packVolts: volts.value }),
  });
  if (row.success) return row.data;
  const [issue] = row.error.issues;
  const path = String(issue!.path[0]);
  const field = path.startsWith("amps")
    ? "amps"
    : path === "packVolts"
      ? "volts"
      : path === "speedMps"
        ? "speed"
        : path;
  return { field, sentence: issue!.message };
}

/** The grid's rows as a form sends them. */
function rowsIn(form: FormData): readonly RowTexts[] {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const rows: RowTexts[] = [];
  for (let i = 0; form.has(`rows.${i}.level`); i += 1)
    rows.push({
      level: text(`rows.${i}.level`),
      ground: GROUNDS.find((ground) => ground === text(`rows.${i}.ground`)) ?? "asphalt",
      direction: DIRECTIONS.find((way) => way === text(`rows.${i}.direction`)) ?? "one way",
      speed: text(`rows.${i}.speed`),
      amps: text(`rows.${i}.amps`),
      volts: text(`rows.${i}.volts`),
    });
  return rows;
}

/** Rows with neither speed nor amps are still to be ridden; they are no slips. */
const untouched = ({ speed, amps, volts }: RowTexts) => !speed && !amps && !volts;

/**
 * Reads a sweep's form. Rows that cannot be read are kept as typed, each with its sentence; nothing is lost.
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
