import type { ErrorSource } from "#core/battery/readings";
import { nth, DEFAULTS, METRES_PER_MILE, err, errs, ok, type Problem, type Result } from "#core/base";
import { curveOf } from "#core/battery";
import { checkReading, rowOf, type Reading, type Row, type Setting } from "#core/battery/readings";
import { planElimination, MOST_HUBS, type EliminationPlan } from "./chain.ts";
import { layColumns, rateColumn, type Columns } from "./columns.ts";
import { dequantised } from "./dequantised.ts";
import { evidenceRows, type RideRow } from "./evidence.ts";
import { withGainFree, withMetersOff } from "./meterOff.ts";
import { mixtureOf, type Part } from "./mixture.ts";
import { solvePosterior, type GaussianPosterior, type Posterior } from "./posterior.ts";
import type { LedgerRow, Weighing } from "./rows.ts";
import { scatterParts } from "./scatter.ts";
import type { LedgerInput, LedgerRide } from "./schema.ts";
import { knownRows } from "./known.ts";
import { lastSteadyLooks } from "./steadyLooks.ts";
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
  /** Expected square of the road's scatter against the usual. */
  readonly scatterSquared: number;
  /** The posterior with an error source taken as exactly known, linear at the same point, its parts weighed as they are. */
  without(source: ErrorSource): Posterior | null;
}

/** A ledger solved with one set of readings. */
export interface SolvedLedger extends Solved {
  /** The answer under each scale of the road's scatter, with its probability. */
  readonly parts: readonly Part[];
  /** Solved again with only some of the readings, by their places in `said`; `input` still names them all. */
  keeping(kept: readonly number[]): SolvedLedger | null;
}

/** Linearisation passes when an energy reading is present: the mean is then within 4e-5 sd. */
const PASSES = 3;

/** What the readings of a ride need to know of its pack and gauge. */
export function settingOf(
  input: Pick<LedgerInput, "packs" | "gauges">,
  ride: Pick<LedgerRide, "pack" | "gauge">,
): Setting {
  const pack = nth(input.packs, ride.pack);
  return { pack, curve: curveOf(pack), ...nth(input.gauges, ride.gauge) };
}

/** A row with the doubt of where its reading was taken, in fractions of the pack. */
function placed(row: Row, reading: Reading, fractionPerM: number): Row {
  if (!("placeSdM" in reading) || !reading.placeSdM) return row;
  const sd = reading.placeSdM * fractionPerM;
  return { ...row, errors: [...row.errors, { source: "place of the look", sd }] };
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
      for (const [cell, metres] of Object.entries(leg.metres)) {
        distance += metres;
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
            sentence: `There is no mark ${mark}: ${ride.legs.length === 1 ? "one leg has" : `${ride.legs.length} legs have`} marks 0 to ${ride.legs.length}.`,
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

/** What stays the same however the readings are weighed. */
interface Frame {
  readonly input: LedgerInput;
  readonly columns: Columns;
  readonly travel: Travel;
  readonly layout: EliminationPlan;
}

interface Settled {
  readonly parts: readonly Part[];
  readonly evidence: readonly LedgerRow[];
}

/**
 * Parts and rows. Where an energy reading makes them not quite linear, some passes at the usual scatter find the point,
 * and the parts found there are solved once more at their mixture.
 *
 * @param from a point near the answer, or null
 */
function settle(
  { input, columns, travel, layout }: Frame,
  said: readonly RideRow[],
  from: Float64Array | null,
  first: readonly LedgerRow[],
): Settled | null {
  const isLinear = said.every(({ row }) => !row.energy);
  const solveAt = (rows: readonly LedgerRow[], weighing: Weighing): GaussianPosterior | null => {
    const posterior = solvePosterior(layout, travel.rows, rows, weighing);
    return posterior?.mean.every(Number.isFinite) ? posterior : null;
  };
  const partsOf = (rows: readonly LedgerRow[]): readonly Part[] | null => {
    const allInOrder = scatterParts((scatter) => solveAt(rows, { scatter }));
    return allInOrder && withMetersOff(allInOrder, columns);
  };
  let evidence = first;
  const relinearise = (point: Float64Array) => {
    evidence = evidenceRows(input, columns, said, point, evidence);
  };
  if (!isLinear)
    for (let pass = from ? 1 : 0; pass < PASSES - 1; pass += 1) {
      const point = pass === 1 && from ? from : solveAt(evidence, {})?.mean;
      if (!point) return null;
      relinearise(point);
    }
  const found = partsOf(evidence);
  if (!found || isLinear) return found && { parts: found, evidence };
  relinearise(mixtureOf(found).mean);
  const again = partsOf(evidence);
  return again && { parts: again, evidence };
}

/**
 * Solves the ledger: one linear Gaussian model over all rides of the input, in three passes where an energy reading makes
 * it not quite linear.
 *
 * @returns the solved ledger, or problems with their paths in the input
 */
export function solveLedger(input: LedgerInput): Result<SolvedLedger> {
  const laid = layColumns(input);
  if (!laid.ok) return laid;
  const problems = problemsOf(input);
  if (problems.length) return errs(problems);
  const columns = laid.value;
  for (const { pack } of input.rides) for (const cell of input.cells) rateColumn(columns, pack, cell);
  const ridden = travelRows(input, columns);
  const said = input.rides.flatMap((ride, r) => {
    const setting = settingOf(input, ride);
    const perM = DEFAULTS.rateWhPerMi / METRES_PER_MILE / nth(columns.usable, ride.pack).mean;
    const read = ride.readings.map((reading) => placed(rowOf(reading, setting), reading, perM));
    const stopped = dequantised(read, ride);
    return lastSteadyLooks(ride.readings, stopped, setting).map((row) => ({ ride: r, row }));
  });
  const rows = evidenceRows(input, columns, said, null);
  const travel = { ...ridden, rows: [...ridden.rows, ...knownRows(input, columns)] };
  const layout = planElimination(columns.marks, [...columns.unknowns.list], [...travel.rows, ...rows]);
  if (layout.border - layout.unknowns.length > MOST_HUBS)
    return err(
      "many-spans",
      "readings",
      `Spans start at more than ${MOST_HUBS} different marks: count a running meter from its reset instead.`,
    );
  const frame = { input, columns, travel, layout };
  const settled = settle(frame, said, null, rows);
  if (!settled)
    return err(
      "singular",
      "readings",
      "These figures cannot be weighed together: one is so large or so small that nothing else counts. Check the pack's Wh and the miles.",
    );
  return ok(solvedOf(frame, said, settled));
}

/** Parts less likely than this do not show in what one error source makes of the doubt. */
const MINOR = 0.02;

function solvedOf(frame: Frame, said: readonly RideRow[], { parts, evidence }: Settled): SolvedLedger {
  const { input, columns, travel, layout } = frame;
  const posterior = mixtureOf(parts);
  return {
    input,
    columns,
    travel,
    said,
    evidence,
    parts,
    posterior,
    scatterSquared: parts.reduce((sum, { weight, scatter }) => sum + weight * scatter * scatter, 0),
    without: (source) => {
      const main = parts.filter(({ weight }) => weight >= MINOR);
      const sum = main.reduce((total, { weight }) => total + weight, 0);
      const known: Part[] = [];
      for (const { weight, scatter, meterOff } of main) {
        const solved = solvePosterior(layout, travel.rows, evidence, { scatter, without: source });
        if (!solved) return null;
        const posterior = meterOff === undefined ? solved : withGainFree(solved, columns, meterOff);
        known.push({ weight: weight / sum, scatter, meterOff, posterior });
      }
      return mixtureOf(known);
    },
    keeping: (kept) => {
      const [fewer, rows] = [kept.map((i) => nth(said, i)), kept.map((i) => nth(evidence, i))];
      const again = settle(frame, fewer, posterior.mean, rows);
      return again && solvedOf(frame, fewer, again);
    },
  };
}

/** Stories less likely than this are not told. */
const FAR_FETCHED = 0.003;

/**
 * One answer of several ledgers over the same columns, each with its probability: the first holds all readings.
 *
 * @param stories weights that sum to 1
 */
export function mixed(
  stories: readonly { readonly weight: number; readonly solved: SolvedLedger }[],
): Solved {
  const told = stories.filter(({ weight }) => weight > FAR_FETCHED);
  const whole = told.reduce((sum, { weight }) => sum + weight, 0);
  if (told.length === 1) return nth(told, 0).solved;
  const weigh = told.map(({ weight, solved }) => ({ weight: weight / whole, solved }));
  const parts = weigh.flatMap(({ weight, solved }) =>
    solved.parts.map((part) => ({ ...part, weight: weight * part.weight })),
  );
  return {
    ...nth(stories, 0).solved,
    posterior: mixtureOf(parts),
    scatterSquared: weigh.reduce((sum, { weight, solved }) => sum + weight * solved.scatterSquared, 0),
    without: (source) => {
      const known = weigh.flatMap(({ weight, solved }) => {
        const posterior = solved.without(source);
        return posterior ? [{ weight, posterior }] : [];
      });
      return known.length === weigh.length ? mixtureOf(known) : null;
    },
  };
}
