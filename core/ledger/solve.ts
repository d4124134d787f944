import { curveOf, usableEnergy, type UsableEnergy } from "#core/pack";
import { bad, badAll, good, type Problem, type Result } from "#core/problems";
import { checkReading, rowOf, type Setting, type Unknown } from "#core/readings";
import { linearise, type Evidence, type RideRow } from "./evidence.ts";
import { solvePosterior, type Posterior } from "./posterior.ts";
import { buildPrior, type Prior } from "./prior.ts";
import type { LedgerInput } from "./schema.ts";

/** A solved ledger, from which every figure is read as a function of the posterior. */
export interface Solved {
  readonly input: LedgerInput;
  readonly usable: UsableEnergy;
  readonly prior: Prior;
  readonly evidence: Evidence;
  readonly posterior: Posterior;
}

/** Linearisation passes when an energy reading is present: the mean is then within 4e-5 sd. */
const PASSES = 3;

function problemsOf(input: LedgerInput, setting: Setting): readonly Problem[] {
  const problems: Problem[] = [];
  const cells = new Set(input.cells);
  input.rides.forEach((ride, r) => {
    const at = input.rides.length > 1 ? `rides.${r}.` : "";
    ride.legs.forEach((leg, i) => {
      for (const cell of Object.keys(leg.miles))
        if (!cells.has(cell))
          problems.push({
            code: "unknown-cell",
            path: `${at}legs.${i}.miles.${cell}`,
            sentence: `“${cell}” is not among the cells: ${input.cells.join(", ")}.`,
          });
    });
    const distance = ride.legs.reduce(
      (sum, leg) => sum + Object.values(leg.miles).reduce((a, b) => a + b, 0),
      0,
    );
    if (distance <= 0)
      problems.push({
        code: "no-distance",
        path: `${at}legs`,
        sentence: "No distance was ridden: energy per mile needs a distance.",
      });
    ride.readings.forEach((reading, i) => {
      const path = `${at}readings.${i}`;
      const marks = ["mark", "fromMark", "toMark"] as const;
      for (const key of marks) {
        const mark = (reading as Partial<Record<(typeof marks)[number], number>>)[key];
        if (mark !== undefined && mark > ride.legs.length)
          problems.push({
            code: "unknown-mark",
            path: `${path}.${key}`,
            sentence: `There is no mark ${mark}: ${ride.legs.length} legs have marks 0 to ${ride.legs.length}.`,
          });
      }
      for (const problem of checkReading(reading, setting))
        problems.push({ ...problem, path: `${path}.${problem.path}` });
    });
  });
  return problems;
}

function unknownsOf(rows: readonly RideRow[]): readonly Unknown[] {
  return rows.flatMap(({ row }) => [
    ...row.unknowns.map(({ unknown }) => unknown),
    ...(row.energy ? [row.energy.gainUnknown] : []),
  ]);
}

/** What the readings need to know of pack and gauge. */
export function settingOf(input: Pick<LedgerInput, "pack" | "gauge">): Setting {
  return { pack: input.pack, curve: curveOf(input.pack), ...input.gauge };
}

/**
 * Solves the ledger: one linear Gaussian model over all rides of the input.
 *
 * @param without an error source taken as exactly known, for the budget; linearised at `at` in one pass then
 * @returns the solved ledger, or problems with their paths in the input
 */
export function solveLedger(input: LedgerInput): Result<Solved> {
  const usable = usableEnergy(input.pack);
  if (!usable.ok)
    return badAll(usable.problems.map((problem) => ({ ...problem, path: `pack.${problem.path}` })));
  const setting = settingOf(input);
  const problems = problemsOf(input, setting);
  if (problems.length) return badAll(problems);
  const rows = input.rides.flatMap((ride, r) =>
    ride.readings.map((reading) => ({ ride: r, row: rowOf(reading, setting) })),
  );
  const prior = buildPrior(input, usable.value, unknownsOf(rows));
  const passes = rows.some(({ row }) => row.energy) ? PASSES : 1;
  let evidence = linearise(prior, rows, null);
  let posterior = solvePosterior(prior, evidence);
  for (let pass = 1; pass < passes && posterior; pass += 1) {
    evidence = linearise(prior, rows, posterior.mean);
    posterior = solvePosterior(prior, evidence);
  }
  if (!posterior)
    return bad(
      "singular",
      "readings",
      "Two readings that cannot both be exact contradict each other: give each an error, or set one aside.",
    );
  return good({ input, usable: usable.value, prior, evidence, posterior });
}
