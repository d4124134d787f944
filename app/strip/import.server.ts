import { checkEntry, foldLog, type Entry } from "#core/ride/log";
import {
  guessColumns,
  readCheckIns,
  readTable,
  type ColumnChoice,
  COLUMN_FIELDS,
  columnOf,
  type ColumnField,
  type ImportedRow,
  type ImportOptions,
  type RowCheck,
  type Table,
} from "#core/io";
import { errs, ok, type Problem, type Result, type System } from "#core/base";
import type { TestRecord } from "#core/records";
import { recordSetting } from "#core/analysis";

/** What the preview shows: the cells, what each column is taken to be, and all that is wrong. */
export interface Preview {
  readonly fileName: string;
  readonly text: string;
  readonly table: Table;
  readonly columns: readonly ColumnChoice[];
  readonly options: ImportOptions;
  readonly problems: readonly Problem[];
  readonly rows: readonly ImportedRow[];
}

/** Columns as the form sends them back, or guessed when it has not. */
function columnsOf(table: Table, form: FormData, options: ImportOptions): readonly ColumnChoice[] {
  if (!form.has("column0")) return guessColumns(table, options.distanceUnit);
  const guessed = guessColumns(table, options.distanceUnit);
  return table.headings.map((_, i) => {
    const field = COLUMN_FIELDS.find((each) => each === form.get(`column${i}`)) ?? null;
    const unit = String(form.get(`unit${i}`) ?? "");
    return {
      field,
      unit: unit || (guessed[i]?.field === field ? guessed[i]!.unit : defaultUnitOf(field, options)),
    };
  });
}

function defaultUnitOf(field: ColumnField | null, { distanceUnit }: ImportOptions): string {
  const units: Partial<Record<ColumnField, string>> = {
    percent: "%",
    volts: "V",
    amps: "A",
    rest: "min",
    speed: distanceUnit === "mi" ? "mph" : "km/h",
  };
  return field === "distance" || field === "display" || field === "guess"
    ? distanceUnit
    : field === null
      ? ""
      : (units[field] ?? "");
}

export function optionsOf(form: FormData, day: string, zone: string, system: System): ImportOptions {
  const asked = form.get("distanceUnit");
  return {
    distanceUnit: asked === "mi" || asked === "km" ? asked : system === "imperial" ? "mi" : "km",
    levelHolds: form.get("levelHolds") === "up to here" ? "up to here" : "from here",
    day,
    zone,
    fullAtStart: form.get("fullAtStart") === "on",
  };
}

/** What the bike cannot have shown, and what runs backward against the ride's log, by column. */
function rowCheck(record: TestRecord, log: readonly Entry[], system: System): RowCheck {
  const setting = recordSetting(record);
  const others = foldLog(log);
  return (body, timeS) =>
    checkEntry(body, timeS, others, setting, Date.now() / 1000, system).map(({ path, code, sentence }) => ({
      code,
      sentence,
      field: path === "time" ? path : columnOf(path),
    }));
}

/** Reads the text with the columns and options of the form; the preview holds every problem and, when there is none, the rows. */
export function previewOf(
  fileName: string,
  text: string,
  form: FormData,
  options: ImportOptions,
  record: TestRecord,
  log: readonly Entry[],
  system: System,
): Result<Preview> {
  const table = readTable(text);
  if (!table.ok) return table;
  const columns = columnsOf(table.value, form, options);
  const read = readCheckIns(table.value, columns, options, record.bike.bars, rowCheck(record, log, system));
  const base = { fileName, text, table: table.value, columns, options };
  if (!read.ok) return ok({ ...base, problems: read.problems, rows: [] });
  return ok({ ...base, problems: [], rows: read.value });
}

/** The id of a row in a batch: the batch's UUIDv7 with the row in its last digits, so that a repeated send changes nothing. */
export function entryIdInBatch(batch: string, row: number): string {
  return `${batch.slice(0, 24)}${batch.slice(24, 30)}${row.toString(16).padStart(6, "0")}`;
}

/** The rows as log entries, in order; the server gives each its place. */
export function entriesOf(rows: readonly ImportedRow[], batch: string): Result<readonly Entry[]> {
  if (rows.length === 0)
    return errs([{ code: "no-rows", path: "file", sentence: "There is nothing to keep." }]);
  return ok(
    rows.map(({ row, at, body }, i) => ({
      id: entryIdInBatch(batch, row),
      seq: i,
      at,
      body,
      supersedes: null,
    })),
  );
}
