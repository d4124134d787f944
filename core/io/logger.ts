import {
  nth,
  isInReach,
  NO_SUCH_YEAR,
  err,
  errs,
  ok,
  type Problem,
  type Result,
  parseQuantity,
} from "#core/base";
import { MOST_SAMPLES, type TelemetryRecord } from "#core/records";
import { readTable } from "./table.ts";

type LoggerField = "time" | "volts" | "amps" | "speed";

const HEADINGS: Readonly<Record<LoggerField, readonly string[]>> = {
  time: ["time", "t", "timestamp", "seconds", "s", "time s", "clock"],
  volts: ["volts", "v", "voltage", "pack volts"],
  amps: ["amps", "a", "current", "pack amps"],
  speed: ["speed", "speed mps", "speed mph", "speed kmh", "speed km h", "speed m s", "mph", "km h"],
};

const plainHeading = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z]+/g, " ")
    .trim();

/** Where a logger's columns stand, by their headings; -1 for one that is not there. */
export function columnsOfLogger(headings: readonly string[]): Readonly<Record<LoggerField, number>> {
  const find = (field: LoggerField) =>
    headings.findIndex((heading) => HEADINGS[field].includes(plainHeading(heading)));
  return { time: find("time"), volts: find("volts"), amps: find("amps"), speed: find("speed") };
}

/** Times below this are seconds since the ride's start, not since the epoch. */
const EARLIEST_EPOCH_S = 1e8;
const MOST_PROBLEMS = 20;

/** What a pack, its wires and a bike can do, SI: a cell outside is no sample. */
const SPANS = { volts: [1, 300], current: [-200, 500], speed: [0, 40] } as const;
type LoggedDimension = keyof typeof SPANS;
const SPAN_WORDS: Readonly<Record<LoggedDimension, string>> = {
  volts: "a pack's volts lie between 1 and 300. Leave out rows in which the logger measured nothing.",
  current: "amps lie between -200 and 500. Check the column's unit.",
  speed: "speed lies between 0 and 90 mph. Check the column's unit.",
};
function unitOfSpeed(heading: string): string {
  const plain = plainHeading(heading);
  return plain.includes("mph") ? "mph" : plain.includes("km") ? "km/h" : "m/s";
}

function momentOf(cell: string): number | null {
  if (/^-?\d+([.,]\d+)?$/.test(cell)) return Number(cell.replace(",", "."));
  const at = /^\d{4}-\d{2}-\d{2}[T ]\d/.test(cell) ? Date.parse(cell.replace(" ", "T")) : NaN;
  return Number.isNaN(at) ? null : at / 1000;
}

/**
 * Reads a logger's file: a CSV with a time, volts and amps in each row, and speed if it has it. Times are ISO 8601,
 * seconds since the epoch, or seconds since the ride's start; amps are negative when energy comes back.
 *
 * @param rideStartS when the ride started, s since the epoch; null when nobody noted it
 * @returns all samples or none; each bad cell named by row (the heading is row 1) and column
 */
export function readLogger(text: string, logger: string, rideStartS: number | null): Result<TelemetryRecord> {
  const table = readTable(text, MOST_SAMPLES);
  if (!table.ok) return table;
  const { headings, rows } = table.value;
  const at = columnsOfLogger(headings);
  const missing = (["time", "volts", "amps"] as const).filter((field) => at[field] < 0);
  if (missing.length)
    return err(
      "no-column",
      "file, row 1",
      `No column is called ${missing.join(", nor ")}: name the columns time, volts, amps.`,
    );
  const problems: Problem[] = [];
  const say = (row: number, column: number, sentence: string) =>
    problems.push({ code: "bad-cell", path: `row ${row + 2}, column ${headings[column]}`, sentence });
  const number = (row: number, column: number, dimension: LoggedDimension, unit: string): number => {
    const cell = nth(rows, row)[column] ?? "";
    const value = parseQuantity(cell, dimension, unit);
    const [least, most] = SPANS[dimension];
    if (value.ok && value.value >= least && value.value <= most) return value.value;
    say(
      row,
      column,
      value.ok ? `“${cell}” cannot be: ${SPAN_WORDS[dimension]}` : nth(value.problems, 0).sentence,
    );
    return 0;
  };
  const record = {
    logger,
    timeS: [] as number[],
    volts: [] as number[],
    amps: [] as number[],
    speedMps: [] as number[],
  };
  for (let row = 0; row < rows.length && problems.length < MOST_PROBLEMS; row += 1) {
    const cell = (nth(rows, row)[at.time] ?? "").trim();
    const moment = momentOf(cell);
    if (moment === null) say(row, at.time, `“${cell}” is not a time: use seconds, or 2026-10-18T09:30:00Z.`);
    else if (moment < EARLIEST_EPOCH_S && rideStartS === null)
      say(
        row,
        at.time,
        "These times count from the ride's start, which nobody noted: give the start a time first.",
      );
    const timeS = (moment ?? 0) < EARLIEST_EPOCH_S ? (rideStartS ?? 0) + (moment ?? 0) : (moment ?? 0);
    const before = record.timeS.at(-1);
    if (moment !== null && (moment >= EARLIEST_EPOCH_S || rideStartS !== null) && !isInReach(timeS))
      say(row, at.time, NO_SUCH_YEAR);
    else if (before !== undefined && moment !== null && timeS < before)
      say(row, at.time, "This time lies before the row above: put the rows in order of time.");
    record.timeS.push(timeS);
    record.volts.push(number(row, at.volts, "volts", "V"));
    record.amps.push(number(row, at.amps, "current", "A"));
    if (at.speed >= 0)
      record.speedMps.push(number(row, at.speed, "speed", unitOfSpeed(nth(headings, at.speed))));
  }
  if (problems.length) return errs(problems);
  const { speedMps: _none, ...rest } = record;
  return ok(at.speed >= 0 ? record : rest);
}
