import { columnFigure, estimateOf, type Solved } from "#core/estimation";
import { curveOf, fractionFromVolts } from "#core/battery";
import { there, nth } from "#core/base";
import type { LaidRun, SideRun } from "./runs.ts";

/** Steps of the finest readings at the two ends of a stretch, as Wh: a meter's where it has one, else the display's. */
function stepWh(solved: Solved, runs: readonly LaidRun[], { ride, fromMark, toMark }: SideRun): number {
  const { input, columns } = solved;
  const { readings, gauge, pack } = nth(input.rides, ride);
  const counted = readings.some((reading) => reading.kind === "telemetry")
    ? 0
    : readings.reduce<number | null>(
        (least, reading) =>
          reading.kind === "energyCounter" ? Math.min(least ?? Infinity, reading.stepWh) : least,
        null,
      );
  if (counted !== null) return counted;
  const capacity =
    estimateOf(solved, columnFigure(solved, nth(columns.capacity, pack))).mean * nth(runs, ride).warmth;
  const { percentStep, bars } = nth(input.gauges, gauge);
  const seen = (mark: number) =>
    readings.some((reading) => reading.kind === "percent" && reading.mark === mark);
  const byVolts = [fromMark, toMark].map((mark) => voltsStep(solved, ride, mark));
  // Rest volts at both ends are what was read, where there is no percent.
  if (byVolts.every((step) => step !== null) && !(seen(fromMark) && seen(toMark)))
    return (byVolts.reduce((sum, step) => sum + there(step), 0) / 2) * capacity;
  if (seen(fromMark) || seen(toMark)) return (percentStep / 100) * capacity;
  return bars > 0 ? capacity / bars : 0;
}

/** What the last digit of rest volts is of the pack, as a fraction; null where none were read there. */
function voltsStep({ input }: Solved, ride: number, mark: number): number | null {
  const { readings, pack } = nth(input.rides, ride);
  const read = readings.find((reading) => reading.kind === "restVolts" && reading.mark === mark);
  const { seriesCells } = nth(input.packs, pack);
  if (read?.kind !== "restVolts" || seriesCells === undefined) return null;
  const half = read.meterStepV / seriesCells / 2;
  return 2 * fractionFromVolts(curveOf(nth(input.packs, pack)), read.packVolts / seriesCells, half).sd;
}

/** Stretches of one side in a row as one: the looks between them cancel. */
function joined(stretches: readonly SideRun[]): readonly SideRun[] {
  return stretches.reduce<readonly SideRun[]>((done, run) => {
    const last = done.at(-1);
    return last && last.ride === run.ride && last.side === run.side && last.toMark === run.fromMark
      ? [...done.slice(0, -1), { ...last, toMark: run.toMark, metres: last.metres + run.metres }]
      : [...done, run];
  }, []);
}

/**
 * The most that rounding alone can do to the difference of two sides, Wh per metre: every reading at the ends of a run off
 * by half its last digit, all of them the worst way.
 */
export function roundingOf(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): number {
  return (["A", "B"] as const).reduce((sum, side) => {
    const own = joined(stretches).filter((run) => run.side === side);
    const metres = own.reduce((whole, run) => whole + run.metres, 0);
    const wh = own.reduce((whole, run) => whole + stepWh(solved, runs, run), 0);
    return sum + wh / metres;
  }, 0);
}
