import { curveOf } from "#core/pack";
import { bad, badAll, good, type Problem, type Result } from "#core/problems";
import { checkReading, rowOf, type Setting } from "#core/readings";
import { layOut, MOST_HUBS, type Layout } from "./chain.ts";
import { layColumns, rateColumn, type Columns } from "./columns.ts";
import { derounded } from "./derounded.ts";
import { evidenceRows, type RideRow } from "./evidence.ts";
import { solvePosterior, type Posterior } from "./posterior.ts";
import type { LedgerRow } from "./rows.ts";
import type { LedgerInput, LedgerRide } from "./schema.ts";
import { travelRows, type Travel } from "./travel.ts";

/** A solved ledger, from which every figure is read as a function of the posterior. */
export interface Solved {
  readonly input: LedgerInput;
  readonly columns: Columns;
  readonly travel: Travel;
  /** Each reading as its row, in the order of rides and readings. */
  readonly said: readonly RideRow[];
  /** The same rows, linear at the answer. */
  readonly evidence: readonly LedgerRow[];
  readonly posterior: Posterior;
  /** The posterior with an error source taken as exactly known, linear at the same point. */
  without(source: string): Posterior | null;
  /** Solved again with only some of the readings, by their places in `said`; `input` still names them all. */
  keeping(kept: readonly number[]): Solved | null;
}

/** Linearisation passes when an energy reading is present: the mean is then within 4e-5 sd. */
const PASSES = 3;
/** Passes when a solved ledger loses a reading: it starts near its answer. */
const REPASSES = 2;

/** What the readings of a ride need to know of its pack and gauge. */
export function settingOf(
  input: Pick<LedgerInput, "packs" | "gauges">,
  ride: Pick<LedgerRide, "pack" | "gauge">,
): Setting {
  const pack = input.packs[ride.pack]!;
  return { pack, curve: curveOf(pack), ...input.gauges[ride.gauge]! };
}

const MARK_KEYS = ["mark", "fromMark", "toMark"] as const;

function problemsOf(input: LedgerInput): readonly Problem[] {
  const problems: Problem[] = [];
  const cells = new Set(input.cells);
  input.rides.forEach((ride, r) => {
    const setting = settingOf(input, ride);
    const at = input.rides.length > 1 ? `rides.${r}.` : "";
    let distance = 0;
    ride.legs.forEach((leg, i) => {
      for (const [cell, miles] of Object.entries(leg.miles)) {
        distance += miles;
        if (!cells.has(cell))
          problems.push({
            code: "unknown-cell",
            path: `${at}legs.${i}.miles.${cell}`,
            sentence: `“${cell}” is not among the cells: ${input.cells.join(", ")}.`,
          });
      }
    });
    if (distance <= 0)
      problems.push({
        code: "no-distance",
        path: `${at}legs`,
        sentence: "No distance was ridden: energy per mile needs a distance.",
      });
    ride.readings.forEach((reading, i) => {
      const path = `${at}readings.${i}`;
      for (const key of MARK_KEYS) {
        const mark = (reading as Partial<Record<(typeof MARK_KEYS)[number], number>>)[key];
        if (mark !== undefined && mark > ride.legs.length)
          problems.push({
            code: "unknown-mark",
            path: `${path}.${key}`,
            sentence: `There is no mark ${mark}: ${ride.legs.length} legs have marks 0 to ${ride.legs.length}.`,
          });
      }
      if ("fromMark" in reading && reading.kind !== "wallCharge")
        if (ride.legs.slice(reading.fromMark, reading.toMark).some(({ charged }) => charged))
          problems.push({
            code: "span-charge",
            path,
            sentence: "The pack was charged between these marks: count from the mark after the charge.",
          });
      for (const problem of checkReading(reading, setting))
        problems.push({ ...problem, path: `${path}.${problem.path}` });
    });
  });
  return problems;
}

/** Posterior and rows after some linearisation passes from a point; null when the rows cannot be solved. */
function settle(
  input: LedgerInput,
  columns: Columns,
  travel: Travel,
  said: readonly RideRow[],
  layout: Layout,
  from: Float64Array | null,
  first: readonly LedgerRow[],
  passes: number,
) {
  let evidence = first;
  let posterior = from ? null : solvePosterior(layout, travel.rows, evidence);
  let point = from ?? posterior?.mean ?? null;
  for (let pass = from ? 0 : 1; pass < passes && point; pass += 1) {
    evidence = evidenceRows(input, columns, said, point, evidence);
    posterior = solvePosterior(layout, travel.rows, evidence);
    point = posterior?.mean ?? null;
  }
  return posterior?.mean.every(Number.isFinite) ? { posterior, evidence } : null;
}

/**
 * Solves the ledger: one linear Gaussian model over all rides of the input, in three passes where an energy reading makes
 * it not quite linear.
 *
 * @returns the solved ledger, or problems with their paths in the input
 */
export function solveLedger(input: LedgerInput): Result<Solved> {
  const laid = layColumns(input);
  if (!laid.ok) return laid;
  const problems = problemsOf(input);
  if (problems.length) return badAll(problems);
  const columns = laid.value;
  for (const { pack } of input.rides) for (const cell of input.cells) rateColumn(columns, pack, cell);
  const travel = travelRows(input, columns);
  const said = input.rides.flatMap((ride, r) => {
    const setting = settingOf(input, ride);
    const read = ride.readings.map((reading) => rowOf(reading, setting));
    return derounded(read, ride).map((row) => ({ ride: r, row }));
  });
  const rows = evidenceRows(input, columns, said, null);
  const layout = layOut(columns.marks, [...columns.unknowns.list], [...travel.rows, ...rows]);
  if (layout.border - layout.unknowns.length > MOST_HUBS)
    return bad(
      "many-spans",
      "readings",
      `Spans start at more than ${MOST_HUBS} different marks: count a running meter from its reset instead.`,
    );
  const isLinear = said.every(({ row }) => !row.energy);
  const settled = settle(input, columns, travel, said, layout, null, rows, isLinear ? 1 : PASSES);
  if (!settled)
    return bad(
      "singular",
      "readings",
      "These figures cannot be weighed together: one is so large or so small that nothing else counts. Check the pack's Wh and the miles.",
    );
  return good(solvedOf(input, columns, travel, said, layout, settled));
}

function solvedOf(
  input: LedgerInput,
  columns: Columns,
  travel: Travel,
  said: readonly RideRow[],
  layout: Layout,
  { posterior, evidence }: NonNullable<ReturnType<typeof settle>>,
): Solved {
  return {
    input,
    columns,
    travel,
    said,
    evidence,
    posterior,
    without: (source) => solvePosterior(layout, travel.rows, evidence, source),
    keeping: (kept) => {
      const [fewer, rows] = [kept.map((i) => said[i]!), kept.map((i) => evidence[i]!)];
      const again = settle(input, columns, travel, fewer, layout, posterior.mean, rows, REPASSES);
      return again && solvedOf(input, columns, travel, fewer, layout, again);
    },
  };
}
