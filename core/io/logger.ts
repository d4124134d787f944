import {
  isInReach,
  NO_SUCH_YEAR,
  err,
  errs,
  nth,
  ok,
  type Problem,
  type Result,
  parseQuantity,
  sumOf,
} from "#core/base";
import { MOST_SAMPLES, type TelemetryRecord } from "#core/records";
import {
  columnsOfMeter,
  columnsWithin,
  factorsOfMeter,
  isMeter,
  unitOfSpeed,
  type MeterColumns,
} from "./meterColumns.ts";
import { momentIn, momentsFrom, type MeterClock } from "./meterTime.ts";
import { readTable } from "./table.ts";

const MOST_PROBLEMS = 20;

/** What a pack, its wires and a bike can do, SI: a cell outside is no sample. */
const SPANS = { volts: [1, 300], current: [-200, 500], count: [-60_000, 100_000], speed: [0, 40] } as const;
type LoggedDimension = keyof typeof SPANS;
const SPAN_WORDS: Readonly<Record<LoggedDimension, string>> = {
  volts: "a pack's volts lie between 1 and 300. Leave out rows in which the logger measured nothing.",
  current: "amps lie between -200 and 500. Check the column's unit.",
  count: "watts lie between -60,000 and 100,000. Check the column's unit.",
  speed: "speed lies between 0 and 90 mph. Check the column's unit.",
};

/** How a meter's file is to be read. */
export interface MeterReading extends MeterClock {
  /** Columns as a person chose them; by their headings without. */
  readonly columns?: MeterColumns;
  /** What is drawn is written with a minus. */
  readonly drawnIsMinus?: boolean;
}

/**
 * Reads a meter's file: a CSV with a time, volts, and amps or watts in each row, and speed if it has it. Times are those of
 * docs/formats/logger.md; amps are negative when energy comes back. What is drawn may be written with a minus instead: it is
 * told by the sign of most of it.
 *
 * @returns all samples or none; each bad cell named by row (the heading is row 1) and column
 */
export function readLogger(
  text: string,
  logger: string,
  { rideStartS, zone, columns, drawnIsMinus }: MeterReading,
): Result<TelemetryRecord> {
  const table = readTable(text, MOST_SAMPLES);
  if (!table.ok) return table;
  const { headings, rows } = table.value;
  const at = columns ? columnsWithin(columns, headings.length) : columnsOfMeter(headings);
  if (!isMeter(at)) {
    const missing = [
      ...(Math.max(at.time, at.date) < 0 ? ["time"] : []),
      ...(at.volts < 0 ? ["volts"] : []),
      ...(Math.max(at.amps, at.watts) < 0 ? ["amps"] : []),
    ];
    return err(
      "no-column",
      "file, row 1",
      `No column is called ${missing.join(", nor ")}: name the columns time, volts, amps (or watts), or choose what each is.`,
    );
  }
  const found = factorsOfMeter(headings, at);
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
  const timeOf = timesOf({ rideStartS, zone }, at, factors.time);
  for (let row = 0; row < rows.length && problems.length < MOST_PROBLEMS; row += 1) {
    const { timeS, sentence } = timeOf(nth(rows, row));
    if (sentence !== null) say(row, Math.max(at.time, at.date), sentence);
    record.timeS.push(timeS);
    const volts = number(row, at.volts, "volts", "V", factors.volts);
    record.volts.push(volts);
    record.amps.push(
      at.amps >= 0
        ? number(row, at.amps, "current", "A", factors.amps)
        : number(row, at.watts, "count", "", factors.watts) / (volts || 1),
    );
    if (at.speed >= 0)
      record.speedMps.push(number(row, at.speed, "speed", unitOfSpeed(nth(headings, at.speed))));
  }
  if (problems.length) return errs(problems);
  const { speedMps, amps, ...rest } = record;
  const turned = drawnIsMinus ?? isMostlyMinus(amps);
  return ok({
    ...rest,
    amps: turned ? amps.map((each) => (each === 0 ? 0 : -each)) : amps,
    ...(at.speed >= 0 && { speedMps }),
  });
}

/** Energy flows out of a pack that moves a bike: a meter that says otherwise on the whole writes it with a minus. */
const isMostlyMinus = (amps: readonly number[]): boolean => sumOf(amps) < 0;

/** Moments of a file's rows, one after the other, and what is wrong with one. */
function timesOf(clock: MeterClock, at: MeterColumns, factor: number) {
  const next = momentsFrom(clock);
  let before = -Infinity;
  return (cells: readonly string[]): { readonly timeS: number; readonly sentence: string | null } => {
    const said = [at.date, at.time].flatMap((column) => (column < 0 ? [] : [(cells[column] ?? "").trim()]));
    const cell = said.join(" ").trim();
    const told = momentIn(cell, factor, clock);
    if (!told)
      return { timeS: 0, sentence: `“${cell}” is not a time: use seconds, or 2026-10-18T09:30:00Z.` };
    const timeS = next(told);
    if (Number.isNaN(timeS))
      return {
        timeS: 0,
        sentence:
          "These times count from the ride's start, which nobody noted: give the start a time first, or import the track before.",
      };
    if (!isInReach(timeS)) return { timeS, sentence: NO_SUCH_YEAR };
    if (timeS < before)
      return { timeS, sentence: "This time lies before the row above: put the rows in order of time." };
    before = timeS;
    return { timeS, sentence: null };
  };
}
