import { GROUNDS, entryBodySchema, type EntryBody, type Ground } from "#core/ride/log";
import { errs, ok, type Problem, type Result, parseQuantity } from "#core/base";
import { COLUMNS, type ColumnField } from "./columns.ts";
import type { ColumnChoice, Table } from "./table.ts";

export interface ImportOptions {
  /** Units for columns whose heading names none. */
  readonly distanceUnit: "mi" | "km";
  /** Level and ground in a row were ridden up to it, or hold from it on. */
  readonly levelHolds: "from here" | "up to here";
  /** Day of the ride, 2026-10-18, and the ride's offset from UTC, for times of day. */
  readonly day: string;
  readonly utcOffset: string;
  /** The pack was full at the first row. */
  readonly fullAtStart: boolean;
}

export interface ImportedRow {
  readonly row: number;
  readonly at: string | null;
  readonly body: EntryBody;
}

const GROUND_WORDS: ReadonlyMap<string, Ground> = new Map(
  Object.entries<Ground>({
    ...Object.fromEntries(GROUNDS.map((ground) => [ground, ground])),
    tarmac: "asphalt",
    road: "asphalt",
    paved: "asphalt",
    cobble: "brick",
    cobbles: "brick",
    gravel: "fine gravel",
    dirt: "loose gravel",
  }),
);

const EVENTS: readonly (readonly [RegExp, string])[] = [
  [/^(cut[- ]?off|cut[- ]?out|dead|shut ?down)$/, "cutOff"],
  [/^(low[- ]?power|limp)( mode)?$/, "lowPower"],
  [/^last bar( blinking| blinks)?$/, "lastBar"],
  [/^bar( \d+)? lost$|^lost bar( \d+)?$/, "barLost"],
  [/^(charged|recharged|refilled)( to)? full$|^refill$/, "refillFull"],
  [/^(charged|recharged|part charge|top[- ]?up)$/, "refill"],
  [/^(full|start,? full|charger done)$/, "full"],
  [/^start$/, "start"],
  [/^(end|stop(ped)?( by choice)?)$/, "end"],
  [/^(check[- ]?in)?$/, "checkIn"],
];

const YES = /^(y|yes|true|1|x|load|loaded|under load)$/i;
const NO = /^(n|no|false|0|rest|off|)$/i;

interface CellReader {
  readonly problem: (field: ColumnField, code: string, sentence: string) => void;
  readonly number: (field: ColumnField) => number | undefined;
  readonly text: (field: ColumnField) => string;
}

function timeOf(text: string, options: ImportOptions): string | undefined {
  const full = /^(\d{4}-\d{2}-\d{2})[T ](\d{1,2}):(\d{2})(?::(\d{2}))?(Z|[+-]\d{2}:\d{2})?$/.exec(text);
  const clock = /^(\d{1,2})[:.h](\d{2})(?::(\d{2}))?$/.exec(text);
  const [day, h, m, s, zone] = full
    ? full.slice(1)
    : clock
      ? [options.day, ...clock.slice(1), undefined]
      : [];
  if (h === undefined || m === undefined || Number(h) > 23 || Number(m) > 59) return undefined;
  const iso = `${day}T${h.padStart(2, "0")}:${m}:${s ?? "00"}${zone ?? options.utcOffset}`;
  return Number.isNaN(Date.parse(iso)) ? undefined : new Date(iso).toISOString();
}

function bodyOf(cells: CellReader, first: boolean, options: ImportOptions, bars: number): EntryBody | null {
  const eventText = cells.text("event").toLowerCase();
  const event = EVENTS.find(([shape]) => shape.test(eventText))?.[1];
  if (event === undefined) {
    cells.problem(
      "event",
      "unknown-event",
      `“${eventText}” is not an event: type start, full, bar lost, last bar, low power, charged, charged full, cut-off or end, or leave it empty.`,
    );
    return null;
  }
  const ground = cells.text("ground").toLowerCase();
  if (ground && !GROUND_WORDS.has(ground))
    cells.problem("ground", "unknown-ground", `“${ground}” is not a ground: type ${GROUNDS.join(", ")}.`);
  const load = cells.text("load");
  if (!YES.test(load) && !NO.test(load))
    cells.problem(
      "load",
      "not-yes-no",
      `“${load}” is neither yes nor no: type yes when the motor was pulling.`,
    );
  const sighting = {
    distanceM: cells.number("distance"),
    displayM: cells.number("display"),
    percent: cells.number("percent"),
    bars: cells.number("bars"),
    packVolts: cells.number("volts"),
    underLoad: YES.test(load) || undefined,
    restMin: ((seconds) => (seconds === undefined ? undefined : seconds / 60))(cells.number("rest")),
    amps: cells.number("amps"),
    counterWh: cells.number("counterWh"),
    counterAh: cells.number("counterAh"),
    speedMps: cells.number("speed"),
    rangeGuessM: cells.number("guess"),
    airTempC: cells.number("air"),
    windMps: cells.number("wind"),
    climbM: cells.number("climb"),
    bpm: cells.number("bpm"),
    movingS: cells.number("riding"),
    avgSpeedMps: cells.number("avgSpeed"),
    topSpeedMps: cells.number("topSpeed"),
    section: cells.text("section") || undefined,
    side: cells.text("side").toUpperCase() || undefined,
    level: cells.text("level") || undefined,
    ground: GROUND_WORDS.get(ground),
    note: cells.text("note") || undefined,
  };
  const body = (): unknown => {
    if (event === "refill" || event === "refillFull") {
      const { distanceM, displayM, note } = sighting;
      return {
        kind: "refill",
        distanceM,
        displayM,
        note,
        toFull: event === "refillFull",
        wallWh: cells.number("wall"),
      };
    }
    if (event === "cutOff") return { kind: "end", reason: "cutOff", ...sighting };
    if (event === "end") return { kind: "end", reason: "byChoice", ...sighting };
    if (event === "lowPower" || event === "lastBar") return { kind: event, ...sighting };
    if (event === "barLost") {
      const named = /\d+/.exec(eventText)?.[0];
      const bar = named ? Number(named) : sighting.bars === undefined ? undefined : sighting.bars + 1;
      if (bar === undefined)
        cells.problem(
          "event",
          "which-bar",
          `Which bar went? Type “bar 4 lost”, or give the bars left${bars ? ` of ${bars}` : ""}.`,
        );
      return { kind: "barLost", ...sighting, bars: undefined, bar };
    }
    if (event === "full" || event === "start" || first)
      return {
        kind: "start",
        ...sighting,
        chargerDone: event === "full" || (first && options.fullAtStart) || undefined,
      };
    return { kind: "checkIn", ...sighting };
  };
  const parsed = entryBodySchema.safeParse(body());
  if (parsed.success) return parsed.data;
  const names: Readonly<Record<string, ColumnField>> = {
    distanceM: "distance",
    displayM: "display",
    packVolts: "volts",
    speedMps: "speed",
    rangeGuessM: "guess",
    restMin: "rest",
    airTempC: "air",
    windMps: "wind",
    climbM: "climb",
    movingS: "riding",
    avgSpeedMps: "avgSpeed",
    topSpeedMps: "topSpeed",
    wallWh: "wall",
    bar: "event",
  };
  for (const issue of parsed.error.issues) {
    const key = String(issue.path[0] ?? "event");
    cells.problem(
      names[key] ?? (Object.hasOwn(COLUMNS, key) ? (key as ColumnField) : "event"),
      "bad-value",
      issue.message,
    );
  }
  return null;
}

/** Moves levels and grounds that were ridden up to a row onto the row before it. */
function heldFrom(rows: readonly ImportedRow[], holds: ImportOptions["levelHolds"]): readonly ImportedRow[] {
  if (holds === "from here") return rows;
  return rows.map((row, i) => {
    const next = rows[i + 1]?.body;
    const {
      level: _level,
      ground: _ground,
      ...rest
    } = row.body as EntryBody & { level?: string; ground?: Ground };
    const level = next && "level" in next ? next.level : undefined;
    const ground = next && "ground" in next ? next.ground : undefined;
    return { ...row, body: { ...rest, ...(level && { level }), ...(ground && { ground }) } as EntryBody };
  });
}

/** Says what a bike cannot have shown of an entry that can be read; each problem's path is the column it stands in. */
export type RowCheck = (
  body: EntryBody,
  timeS: number | null,
) => readonly (Omit<Problem, "path"> & { readonly field: ColumnField })[];

/** Problems of a table whose columns cannot hold check-ins. */
function columnProblems(where: ReadonlyMap<ColumnField, number>): readonly Problem[] {
  const missing = (code: string, sentence: string) => [{ code, path: "columns", sentence }];
  const has = (...fields: readonly ColumnField[]) => fields.some((field) => where.has(field));
  if (!has("distance", "display", "time"))
    return missing("no-distance-column", "No column holds a distance or a time: choose the one that does.");
  if (!has("percent", "bars", "volts", "counterWh", "counterAh", "event"))
    return missing(
      "no-reading-column",
      "No column holds a reading: choose the one with percent, bars, volts, a counter or events.",
    );
  return [];
}

/**
 * Reads a table of check-ins into log entries: all rows or none. Every bad cell is named by row (the heading is row 1)
 * and column.
 *
 * @param columns what each column is; see guessColumns
 * @param bars of the bike's display, for sentences; 0 when none
 * @param check asked of every row that can be read, even when others cannot
 */
export function readCheckIns(
  table: Table,
  columns: readonly ColumnChoice[],
  options: ImportOptions,
  bars = 0,
  check: RowCheck = () => [],
): Result<readonly ImportedRow[]> {
  const where = new Map(columns.flatMap(({ field }, i) => (field ? [[field, i] as const] : [])));
  const problems: Problem[] = [...columnProblems(where)];
  if (problems.length) return errs(problems);
  const farthest = new Map<ColumnField, { readonly metres: number; readonly row: number }>();
  const rows: ImportedRow[] = [];
  table.rows.forEach((cellTexts, i) => {
    const row = i + 2;
    const text = (field: ColumnField) =>
      where.has(field) ? (cellTexts[where.get(field)!] ?? "").trim() : "";
    const problem = (field: ColumnField, code: string, sentence: string) =>
      problems.push({
        code,
        path: `row ${row}, column ${table.headings[where.get(field) ?? -1] ?? COLUMNS[field].label}`,
        sentence,
      });
    const number = (field: ColumnField): number | undefined => {
      const cell = text(field);
      const { dimension } = COLUMNS[field];
      if (cell === "" || cell === "-" || !dimension) return undefined;
      const value = parseQuantity(cell, dimension, columns[where.get(field)!]!.unit);
      if (!value.ok) problem(field, value.problems[0]!.code, value.problems[0]!.sentence);
      else if (field === "distance" || field === "display") {
        const before = farthest.get(field);
        if (before && value.value < before.metres)
          problem(
            field,
            "backward",
            `The distance goes back: row ${before.row} was farther on. Check both figures, or the unit.`,
          );
        else farthest.set(field, { metres: value.value, row });
      }
      return value.ok ? value.value : undefined;
    };
    const time = text("time");
    const at = time === "" ? null : (timeOf(time, options) ?? null);
    if (time !== "" && at === null)
      problem("time", "not-a-time", `“${time}” is not a time: type 10:41 or 2026-10-18 10:41.`);
    const body = bodyOf({ problem, number, text }, i === 0, options, bars);
    if (!body) return;
    for (const { field, code, sentence } of check(body, at === null ? null : Date.parse(at) / 1000))
      problem(field, code, sentence);
    rows.push({ row, at, body });
  });
  return problems.length ? errs(problems) : ok(heldFrom(rows, options.levelHolds));
}
