import { parse } from "csv-parse/browser/esm/sync";
import { nth, err, ok, type Result } from "#core/base";
import { COLUMNS, readHeading, type ColumnField } from "./columns.ts";

/** The cells of a CSV as read, before anything is understood. */
export interface Table {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly delimiter: string;
}

/** What each column is taken to be; a heading of null is left out. */
export interface ColumnChoice {
  readonly field: ColumnField | null;
  readonly unit: string;
}

const MOST_ROWS = 5000;

/** Whether a text has more lines than a table may; looked at before anything is split, so that a vast file costs nothing. */
function hasMoreLines(text: string, most: number): boolean {
  let lines = 0;
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) {
    lines += 1;
    if (lines > most) return true;
  }
  return false;
}

/** What is said of a table that is too long, and what helps. */
function tooLong(mostRows: number): Result<Table> {
  return err(
    "too-many-rows",
    "file",
    `The file holds more than ${mostRows.toLocaleString("en")} rows, the most there are: import one ride at a time, or thin a recording to one row a second. A track goes in as GPX.`,
  );
}

/** Splits a CSV into cells; comma, semicolon or tab, whichever the heading line holds most of. */
export function readTable(text: string, mostRows = MOST_ROWS): Result<Table> {
  // A few lines more than rows: the heading, and blank ones at the end.
  if (hasMoreLines(text, mostRows + 10)) return tooLong(mostRows);
  const head =
    text
      .replace(/^\ufeff/, "")
      .split(/\r?\n/)
      .find((line) => line.trim() !== "") ?? "";
  const count = (mark: string) => head.split(mark).length - 1;
  const delimiter = nth(
    [",", ";", "\t"].sort((a, b) => count(b) - count(a)),
    0,
  );
  try {
    const records: string[][] = parse(text, {
      bom: true,
      delimiter,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    });
    const rows = records.filter((row) => row.some((cell) => cell !== ""));
    const headings = rows[0];
    if (!headings || rows.length < 2)
      return err(
        "empty-table",
        "file",
        "The file holds no check-ins: the first line names the columns, each later line is one check-in.",
      );
    if (rows.length - 1 > mostRows) return tooLong(mostRows);
    return ok({ headings, rows: rows.slice(1), delimiter });
  } catch (error) {
    const line = /line (\d+)/.exec(error instanceof Error ? error.message : "")?.[1];
    return err(
      "broken-csv",
      line ? `row ${line}` : "file",
      `The table breaks off${line ? ` at line ${line}` : ""}: a quotation mark is not closed. Close it and bring the file again.`,
    );
  }
}

/** The columns as their headings tell; a person may change any of them. */
export function guessColumns(table: Table, distanceUnit: "mi" | "km"): readonly ColumnChoice[] {
  const taken = new Set<ColumnField>();
  return table.headings.map((heading) => {
    const { field, unit } = readHeading(heading);
    if (field === null || taken.has(field)) return { field: null, unit: "" };
    taken.add(field);
    return { field, unit: unit ?? defaultUnit(field, distanceUnit) };
  });
}

function defaultUnit(field: ColumnField, distanceUnit: "mi" | "km"): string {
  switch (nth(COLUMNS, field).dimension) {
    case "distance":
      return distanceUnit;
    case "speed":
      return distanceUnit === "mi" ? "mph" : "km/h";
    case "climb":
      return distanceUnit === "mi" ? "ft" : "m";
    case "temperature":
      return distanceUnit === "mi" ? "F" : "C";
    case "percent":
      return "%";
    case "volts":
      return "V";
    case "current":
      return "A";
    case "energy":
      return "Wh";
    case "charge":
      return "Ah";
    case "duration":
      return "min";
    default:
      return "";
  }
}
