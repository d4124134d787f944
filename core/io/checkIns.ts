import {
  eventOf,
  GROUND_WORDS,
  GROUNDS,
  readTyped,
  SIGHTING,
  SIGHTING_FIELDS,
  type Field,
  type Ground,
  type SightingField,
} from "#core/fields";
import { entryBodySchema, type EntryBody } from "#core/ride/log";
import {
  err,
  leftOut,
  momentAfter,
  there,
  nth,
  errs,
  ok,
  type Problem,
  type Result,
  parseQuantity,
} from "#core/base";
import { columnOf, COLUMNS, type ColumnField } from "./columns.ts";
import { scaleProblems } from "./scale.ts";
import type { ColumnChoice, Table } from "./table.ts";

export interface ImportOptions {
  /** Units for columns whose heading names none. */
  readonly distanceUnit: "mi" | "km";
  /** Level and ground in a row were ridden up to it, or hold from it on. */
  readonly levelHolds: "from here" | "up to here";
  /** Day of the ride, 2026-10-18, and the ride's offset from UTC, for times of day. */
  readonly day: string;
  readonly zone: string;
  /** The pack was full at the first row. */
  readonly fullAtStart: boolean;
}

export interface ImportedRow {
  readonly row: number;
  readonly at: string | null;
  readonly body: EntryBody;
}

/** Any of these words tells that a bar went; which one may stand in them, or in the bars left. */
const BAR_LOST = /^(bar( \d+)? (lost|gone|went)|lost( bar)?( \d+)?)$/;
const YES = /^(y|yes|true|1|x|load|loaded|under load)$/i;
const NO = /^(n|no|false|0|rest|off|)$/i;

interface CellReader {
  readonly problem: (field: ColumnField, code: string, sentence: string) => void;
  readonly number: (field: ColumnField) => number | undefined;
  /** A figure or a span of a field that can be either, as the fields it fills. */
  readonly typed: (name: SightingField, field: ColumnField) => Readonly<Record<string, unknown>>;
  readonly text: (field: ColumnField) => string;
}

/** When a row was, ISO 8601; or the problem of a time that is none, or that its day's clock does not show. */
function timeOf(text: string, options: ImportOptions, lastMs: number | null): Result<string> {
  const none = () =>
    err<string>("not-a-time", "time", `“${text}” is not a time: type 10:41 or 2026-10-18 10:41.`);
  const full = /^(\d{4}-\d{2}-\d{2})[T ](\d{1,2}):(\d{2})(?::(\d{2}))?(Z|[+-]\d{2}:\d{2})?$/.exec(text);
  const clock = /^(\d{1,2})[:.h](\d{2})(?::(\d{2}))?$/.exec(text);
  const [day, h, m, s, offset] = full
    ? full.slice(1)
    : clock
      ? [options.day, ...clock.slice(1), undefined]
      : [];
  if (h === undefined || m === undefined || Number(h) > 23 || Number(m) > 59) return none();
  const zone = offset === "Z" ? "+00:00" : (offset ?? options.zone);
  const shown = `${h.padStart(2, "0")}:${m}:${s ?? "00"}`;
  const missing = leftOut(day ?? "", shown, zone);
  if (missing) return err("no-such-time", "time", missing);
  const at = momentAfter(
    day ?? "",
    shown,
    zone,
    // A day that is written is that day.
    full ? null : lastMs,
  );
  return Number.isNaN(at) ? none() : ok(new Date(at).toISOString());
}

/** One of a field's own words, or a problem that names them. */
function choiceOf(cells: CellReader, name: SightingField, column: ColumnField): string | undefined {
  const text = cells.text(column);
  if (text === "") return undefined;
  if (name === "level") return text;
  if (name === "side") return text.toUpperCase();
  const ground = GROUND_WORDS.get(text.toLowerCase());
  if (!ground)
    cells.problem(column, "unknown-ground", `“${text}” is not a ground: type ${GROUNDS.join(", ")}.`);
  return ground;
}

/** Yes, or nothing; a problem for what is neither yes nor no. */
function tickOf(cells: CellReader, column: ColumnField): true | undefined {
  const text = cells.text(column);
  if (!YES.test(text) && !NO.test(text))
    cells.problem(
      column,
      "not-yes-no",
      `“${text}” is neither yes nor no: type yes when the motor was pulling.`,
    );
  return YES.test(text) || undefined;
}

/** Everything that was seen in a row, by the fields' declarations. */
function sightingOf(cells: CellReader): Readonly<Record<string, unknown>> {
  return Object.fromEntries(
    SIGHTING_FIELDS.flatMap((name): readonly (readonly [string, unknown])[] => {
      const { kind, column, siPerStored = 1, span }: Field = SIGHTING[name];
      if (!column) return [];
      if (kind === "words") return [[name, cells.text(column.name) || undefined]];
      if (kind === "choice") return [[name, choiceOf(cells, name, column.name)]];
      if (kind === "tick") return [[name, tickOf(cells, column.name)]];
      if (span && cells.text(column.name) !== "") return Object.entries(cells.typed(name, column.name));
      const value = cells.number(column.name);
      return [[name, value === undefined ? undefined : value / siPerStored]];
    }),
  );
}

function bodyOf(cells: CellReader, first: boolean, options: ImportOptions, bars: number): EntryBody | null {
  const eventText = cells.text("event").toLowerCase();
  const lost = BAR_LOST.test(eventText);
  const event = eventText === "" || lost ? null : eventOf(eventText);
  if (!event && eventText !== "" && !lost) {
    cells.problem(
      "event",
      "unknown-event",
      `“${eventText}” is not an event: type start, full, bar lost, last bar, low power, charged, charged full, stop, go, cut-off or end, or leave it empty.`,
    );
    return null;
  }
  const seen = sightingOf(cells);
  const { distanceM, displayM, note } = seen;
  const body = (): unknown => {
    if (event?.kind === "refill")
      return {
        ...{ kind: "refill", distanceM, displayM, note, ...event.fields },
        wallWh: cells.number("wall"),
        charger: cells.text("charger") || undefined,
      };
    if (event?.kind === "fullPowerEnd") return { kind: event.kind, distanceM, displayM, note };
    if (lost) {
      const named = /\d+/.exec(eventText)?.[0];
      const left = seen["bars"] as number | undefined;
      const bar = named ? Number(named) : left === undefined ? undefined : left + 1;
      if (bar === undefined)
        cells.problem(
          "event",
          "which-bar",
          `Which bar went? Type “bar 4 lost”, or give the bars left${bars ? ` of ${bars}` : ""}.`,
        );
      return { kind: "barLost", ...seen, bars: undefined, bar };
    }
    if (event?.kind === "start" || (first && (event === null || event.kind === "checkIn")))
      return {
        kind: "start",
        ...seen,
        chargerDone: event?.fields?.["chargerDone"] === true || (first && options.fullAtStart) || undefined,
      };
    return { kind: "checkIn", ...seen, ...(event && { kind: event.kind, ...event.fields }) };
  };
  const parsed = entryBodySchema.safeParse(body());
  if (parsed.success) return parsed.data;
  for (const issue of parsed.error.issues)
    cells.problem(columnOf(String(issue.path[0] ?? "event")), "bad-value", issue.message);
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
  let lastMs: number | null = null;
  table.rows.forEach((cellTexts, i) => {
    const row = i + 2;
    const text = (field: ColumnField) =>
      where.has(field) ? (cellTexts[there(where.get(field))] ?? "").trim() : "";
    const problem = (field: ColumnField, code: string, sentence: string) =>
      problems.push({
        code,
        path: `row ${row}, column ${table.headings[where.get(field) ?? -1] ?? nth(COLUMNS, field).label}`,
        sentence,
      });
    const number = (field: ColumnField): number | undefined => {
      const cell = text(field);
      const { dimension } = nth(COLUMNS, field);
      if (cell === "" || cell === "-" || !dimension) return undefined;
      const value = parseQuantity(cell, dimension, nth(columns, there(where.get(field))).unit, "", true);
      if (!value.ok) problem(field, nth(value.problems, 0).code, nth(value.problems, 0).sentence);
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
    const typed: CellReader["typed"] = (name, field) => {
      if (text(field) === "-") return {};
      const read = readTyped(name, text(field), nth(columns, there(where.get(field))).unit, "", true);
      if (read.ok) return read.value;
      problem(field, nth(read.problems, 0).code, nth(read.problems, 0).sentence);
      return {};
    };
    const time = text("time");
    const when = time === "" ? null : timeOf(time, options, lastMs);
    const at = when?.ok ? when.value : null;
    if (at !== null) lastMs = Date.parse(at);
    if (when && !when.ok) for (const { code, sentence } of when.problems) problem("time", code, sentence);
    const body = bodyOf({ problem, number, typed, text }, i === 0, options, bars);
    if (!body) return;
    for (const { field, code, sentence } of check(body, at === null ? null : Date.parse(at) / 1000))
      problem(field, code, sentence);
    rows.push({ row, at, body });
  });
  for (const { field, code, sentence } of scaleProblems(rows.map(({ body }) => body)))
    problems.push({
      ...{ code, sentence },
      path: `column ${table.headings[where.get(field) ?? -1] ?? nth(COLUMNS, field).label}`,
    });
  return problems.length ? errs(problems) : ok(heldFrom(rows, options.levelHolds));
}
