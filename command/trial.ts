import { DESK_KINDS, deskKind, DESKS_HEAD, deskShortfalls, deskText } from "../bench/desks.ts";
import { KIND_NAMES, kindLine, KINDS_HEAD, kindText, shortfalls } from "../bench/kinds.ts";
import { coverageTrial } from "../bench/trial.ts";

/** Tests of each kind, rides and desks of the whole trial, and of the short one that is part of every test run. */
const WHOLE = { kind: 200, rides: 400, desks: 60 };
const SHORT = { kind: 30, rides: 60, desks: 4 };

/** One line for each kind of test, on the hard stand-in; whether all hold. */
function kindsTrial(count: number): boolean {
  process.stdout.write(`${KINDS_HEAD}\n`);
  let fine = true;
  for (const kind of KIND_NAMES) {
    const line = kindLine(kind, count);
    process.stdout.write(`${kindText(line)}\n`);
    fine &&= shortfalls(line).length === 0;
  }
  process.stdout.write(
    "Spans of Wh/mi and of usable energy that hold the truth; median error of best and plain, half width; true slips and honest readings questioned. In percent; seeds from 1.\n\n",
  );
  return fine;
}

/** One line for each kind of desk brought to House, on the hard stand-in; whether all hold. */
function desksTrial(count: number): boolean {
  process.stdout.write(`${DESKS_HEAD}\n`);
  let fine = true;
  for (const name of Object.keys(DESK_KINDS)) {
    const line = deskKind(name, count);
    process.stdout.write(`${deskText(line)}\n`);
    fine &&= deskShortfalls(line).length === 0;
  }
  process.stdout.write(
    "Six bikes and two riders a desk, by what was told of each test. Spans under House that hold the truth, their half width, median error, that of plain as ridden; pairs in the right order, by plain; pairs called sure at 90 %, and how many of them are right. In percent; seeds from 1.\n\n",
  );
  return fine;
}

/**
 * Runs the trials: each kind of test on the hard stand-in, desks brought to one reference, rides on the easy one. Prints their
 * figures; exit code 1 when one lies outside its span.
 */
export function trial(args: readonly string[] = []): number {
  const { kind, rides, desks } = args.includes("--short") ? SHORT : WHOLE;
  const held = [kindsTrial(kind), desksTrial(desks)].every(Boolean);
  const figures = coverageTrial(rides);
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    process.stdout.write(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}\n`,
    );
  }
  return held && figures.every(({ value, low, high }) => value >= low && value <= high) ? 0 : 1;
}
