import {
  momentOf,
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

/** A heading without its unit in brackets, its punctuation and its case. */
const plainHeading = (text: string) =>
  text
    .toLowerCase()
    .replace(/[([][^)\]]*[)\]]/g, " ")
    .replace(/[^a-z]+/g, " ")
    .trim();

/** What stands in a heading's brackets: "volts (mV)" is "mV"; empty without. */
const bracketOf = (heading: string): string => /[([]\s*([^)\]]+?)\s*[)\]]/.exec(heading)?.[1] ?? "";

/** Units of a logger's columns beside those that a person types: factors to s, V and A. */
const FINE_UNITS: Readonly<Record<"time" | "volts" | "amps", Readonly<Record<string, number>>>> = {
  time: { s: 1, sec: 1, seconds: 1, ms: 0.001, min: 60, h: 3600, utc: 1, gmt: 1, z: 1, local: 1 },
  volts: { v: 1, mv: 0.001, volts: 1 },
  amps: { a: 1, ma: 0.001, amps: 1 },
};

/** Factor of a column by the unit in its heading; null for a unit that is not read. */
function factorOf(field: keyof typeof FINE_UNITS, heading: string): number | null {
  const unit = bracketOf(heading).toLowerCase();
  return unit === "" ? 1 : (FINE_UNITS[field][unit] ?? null);
}

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
  const plain = `${plainHeading(heading)} ${bracketOf(heading).toLowerCase()}`;
  return plain.includes("mph") ? "mph" : plain.includes("km") ? "km/h" : "m/s";
}

/** A cell's moment, s: a number times its column's factor, or a day and a time, by the ride's clock where no zone stands. */
function secondsOf(cell: string, factor: number, zone: string): number | null {
  if (/^-?\d+([.,]\d+)?$/.test(cell)) return factor * Number(cell.replace(",", "."));
  const found = /^(\d{4}-\d{2}-\d{2})[T ](\d{1,2}:\d{2}(?::\d{2})?)(\.\d+)?\s*(Z|[+-]\d{2}:?\d{2})?$/.exec(
    cell,
  );
  if (!found) return null;
  const [, day = "", clock = "", part = "", offset] = found;
  const its =
    offset === undefined ? zone : offset === "Z" ? "+00:00" : offset.replace(/^(...):?(..)$/, "$1:$2");
  const at = momentOf(day, clock, its);
  return Number.isNaN(at) ? null : at / 1000 + Number(`0${part}`);
}

/** Factors of the columns by the units in their headings; a problem names the first unit that is not read. */
function factorsOf(
  headings: readonly string[],
  at: Readonly<Record<LoggerField, number>>,
): Result<Readonly<Record<keyof typeof FINE_UNITS, number>>> {
  const factors = { time: 1, volts: 1, amps: 1 };
  for (const field of ["time", "volts", "amps"] as const) {
    const heading = nth(headings, at[field]);
    const factor = factorOf(field, heading);
    if (factor === null)
      return err(
        "unknown-unit",
        "file, row 1",
        `“${heading}” names a unit that is not read: give ${field} in ${Object.keys(FINE_UNITS[field]).slice(0, 4).join(", ")}.`,
      );
    factors[field] = factor;
  }
  return ok(factors);
}

/**
 * Reads a logger's file: a CSV with a time, volts and amps in each row, and speed if it has it. Times are ISO 8601,
 * seconds since the epoch, or seconds since the ride's start; amps are negative when energy comes back.
 *
 * @param ride when it started, s since the epoch, null when nobody noted it; and the zone of times that name none
 * @returns all samples or none; each bad cell named by row (the heading is row 1) and column
 */
export function readLogger(
  text: string,
  logger: string,
  { rideStartS, zone }: { readonly rideStartS: number | null; readonly zone: string },
): Result<TelemetryRecord> {
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
  const found = factorsOf(headings, at);
  if (!found.ok) return found;
  const factors = found.value;
  const problems: Problem[] = [];
  const say = (row: number, column: number, sentence: string) =>
    problems.push({ code: "bad-cell", path: `row ${row + 2}, column ${headings[column]}`, sentence });
  const number = (
    row: number,
    column: number,
    dimension: LoggedDimension,
    unit: string,
    factor = 1,
  ): number => {
    const cell = nth(rows, row)[column] ?? "";
    const read = parseQuantity(cell, dimension, unit, "", true);
    const value = read.ok ? ok(read.value * factor) : read;
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
    const moment = secondsOf(cell, factors.time, zone);
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
    record.volts.push(number(row, at.volts, "volts", "V", factors.volts));
    record.amps.push(number(row, at.amps, "current", "A", factors.amps));
    if (at.speed >= 0)
      record.speedMps.push(number(row, at.speed, "speed", unitOfSpeed(nth(headings, at.speed))));
  }
  if (problems.length) return errs(problems);
  const { speedMps: _none, ...rest } = record;
  return ok(at.speed >= 0 ? record : rest);
}
