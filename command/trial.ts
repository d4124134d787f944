import { pairsTrial } from "../bench/normalised.ts";
import { coverageTrial } from "../bench/trial.ts";

const RIDES = 400;
const PAIRS = 200;

/** Runs the coverage trials on the stand-in bike, of rides and of pairs brought to one reference, and prints their figures; exit code 1 when one lies outside its span. */
export function trial(): number {
  const figures = [...coverageTrial(RIDES), ...pairsTrial(PAIRS)];
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    process.stdout.write(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}\n`,
    );
  }
  return figures.every(({ value, low, high }) => value >= low && value <= high) ? 0 : 1;
}
