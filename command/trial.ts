import { pairsTrial } from "../bench/normalised.ts";
import { coverageTrial } from "../bench/trial.ts";

/** Rides and pairs of the whole trial, and of the short one that is part of every test run. */
const WHOLE = { rides: 400, pairs: 200 };
const SHORT = { rides: 60, pairs: 60 };

/** Runs the coverage trials on the stand-in bike, of rides and of pairs brought to one reference, and prints their figures; exit code 1 when one lies outside its span. */
export function trial(args: readonly string[] = []): number {
  const { rides, pairs } = args.includes("--short") ? SHORT : WHOLE;
  const figures = [...coverageTrial(rides), ...pairsTrial(pairs)];
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    process.stdout.write(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}\n`,
    );
  }
  return figures.every(({ value, low, high }) => value >= low && value <= high) ? 0 : 1;
}
