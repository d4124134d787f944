import { KIND_NAMES, kindLine, KINDS_HEAD, kindText, shortfalls } from "../bench/kinds.ts";
import { pairsTrial } from "../bench/normalised.ts";
import { coverageTrial } from "../bench/trial.ts";

/** Tests of each kind, rides and pairs of the whole trial, and of the short one that is part of every test run. */
const WHOLE = { kind: 200, rides: 400, pairs: 200 };
const SHORT = { kind: 30, rides: 60, pairs: 60 };

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

/**
 * Runs the trials: each kind of test on the hard stand-in, rides on the easy one, pairs brought to one reference. Prints their
 * figures; exit code 1 when one lies outside its span.
 */
export function trial(args: readonly string[] = []): number {
  const { kind, rides, pairs } = args.includes("--short") ? SHORT : WHOLE;
  const held = kindsTrial(kind);
  const figures = [...coverageTrial(rides), ...pairsTrial(pairs)];
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    process.stdout.write(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}\n`,
    );
  }
  return held && figures.every(({ value, low, high }) => value >= low && value <= high) ? 0 : 1;
}
