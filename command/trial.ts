import { coverageTrial } from "../bench/trial.ts";

const RIDES = 400;

/** Runs the coverage trial on the stand-in bike and prints its figures; exit code 1 when one lies outside its span. */
export function trial(): number {
  const figures = coverageTrial(RIDES);
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    process.stdout.write(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}\n`,
    );
  }
  return figures.every(({ value, low, high }) => value >= low && value <= high) ? 0 : 1;
}
