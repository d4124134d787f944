import { nth, lastOf } from "#core/base";
import type { Side } from "#core/fields";
import type { Reading } from "#core/battery/readings";
import type { LaidRun, SideRun } from "./runs.ts";

/** A reading on which the pack is in its last bar, or has none left. */
function inLastBar(reading: Reading): boolean {
  return (
    (reading.kind === "bars" && reading.bars <= 1) ||
    (reading.kind === "barLost" && reading.bar <= 2) ||
    reading.kind === "lastBarBlinking"
  );
}

/** A reading finer than a bar: with one of them, the last bar's length decides nothing. */
const isFiner = ({ kind }: Reading) =>
  !["bars", "barLost", "lastBarBlinking", "fullStart", "cutOff", "crawl", "gaugeZero"].includes(kind);

/** Whether a stretch ends in its last bar, with nothing finer and no cut-off to say how far in. */
function endsInLastBar(runs: readonly LaidRun[], { ride, toMark }: SideRun): boolean {
  const there = nth(nth(runs, ride).laid.input.rides, 0).readings.filter(
    (reading) => ("mark" in reading ? reading.mark : reading.toMark) === toMark,
  );
  return there.some(inLastBar) && !there.some((reading) => isFiner(reading) || reading.kind === "cutOff");
}

/**
 * What a difference read off the last bar is worth: its length is known least of all bars, so that the end can turn the
 * verdict. Null where no side ends there by bars alone.
 */
export function lastBarWarning(runs: readonly LaidRun[], stretches: readonly SideRun[]): string | null {
  const sides = (["A", "B"] as const).filter((side: Side) =>
    endsInLastBar(runs, lastOf(stretches.filter((run) => run.side === side))),
  );
  if (sides.length === 0) return null;
  return `${sides.join(" and ")} ${sides.length === 1 ? "ends" : "end"} in the last bar, which is shorter than the others by nobody knows how much: ride both to the cut-off, or read volts at rest, before the verdict counts.`;
}
