import { num, there, nth, DEFAULTS, METRES_PER_MILE } from "#core/base";
import { curveOf } from "#core/battery";
import { markOf, rowOf, type Reading } from "#core/battery/readings";
import { evidenceRows } from "./evidence.ts";
import { valueAt } from "./linearForm.ts";
import { metresOf, rideFigure, usedOnRide, varianceOf, type Figure } from "./figures.ts";
import { EXACT, rowSd, type LedgerRow } from "./rows.ts";
import { settingOf, solveLedger, type Solved } from "./solve.ts";
import { worthDoing } from "./worthDoing.ts";
import { scatterSd } from "./travel.ts";

export type NextMeasure = "bench" | "refill" | "restVolts" | "tenMiles" | "meteredRepeat";

/** One thing that would make a ride's Wh per metre surer. */
export interface RankedMeasurement {
  readonly measure: NextMeasure;
  /** A person's time, min. */
  readonly minutes: number;
  /** Sd of the ride's Wh per metre that it would leave. */
  readonly sdLeft: number;
  /** Fall of the sd per minute, Wh per metre. */
  readonly gainPerMinute: number;
}

/** How much further one would ride to read again. */
const FURTHER_M = 10 * METRES_PER_MILE;
/** Furthest down the pack that ten more miles may end. */
const DEEPEST = 0.97;

/** The sd a figure would have were one more row known: the linear update, unknowns the ledger does not hold counted as errors. */
function sdWith(
  { posterior, columns }: Solved,
  figure: Figure,
  row: LedgerRow,
  grown: Solved["columns"],
): number {
  const known = new Map([...row.form].filter(([column]) => column < posterior.mean.length));
  const fresh = [...row.form]
    .filter(([column]) => column >= posterior.mean.length)
    .reduce((sum, [column, by]) => sum + (by * nth(grown.unknowns.list, column - columns.marks).sd) ** 2, 0);
  const pull = valueAt(known, posterior.covarianceWith(figure.gradient));
  const sd = rowSd(row);
  const left = varianceOf(posterior, figure) - pull ** 2 / (sd * sd + fresh + posterior.variance(known));
  return Math.sqrt(Math.max(0, left));
}

/** The sd with one more reading on a ride. */
function sdWithReading(solved: Solved, figure: Figure, ride: number, reading: Reading): number {
  const columns = { ...solved.columns, unknowns: solved.columns.unknowns.copy() };
  const setting = settingOf(solved.input, nth(solved.input.rides, ride));
  const [row] = evidenceRows(
    solved.input,
    columns,
    [{ ride, row: rowOf(reading, setting) }],
    solved.posterior.mean,
  );
  return sdWith(solved, figure, there(row), columns);
}

/** What the gauge would show ten miles on, by the kinds it was read with; null when the pack would not last. */
function tenMilesOn(solved: Solved, ride: number): number | null {
  const { input, posterior, columns } = solved;
  const { legs, readings, pack } = nth(input.rides, ride);
  const metres = metresOf(nth(input.rides, ride));
  const end = num(posterior.mean, nth(columns.firstMark, ride) + legs.length);
  const perM = valueAt(usedOnRide(solved, ride).form, posterior.mean) / metres;
  const f = end + FURTHER_M * perM;
  if (!(f < DEEPEST) || !(f > 0)) return null;
  const curve = curveOf(nth(input.packs, pack));
  const mark = legs.length + 1;
  const cells = nth(input.packs, pack).seriesCells;
  const { bars } = nth(input.gauges, nth(input.rides, ride).gauge);
  const kinds = new Set(readings.map(({ kind }) => kind));
  const q = curve.chargeAtFraction(f);
  const added: Reading[] = [];
  if (kinds.has("percent")) added.push({ kind: "percent", mark, percent: 100 * q });
  if (kinds.has("restVolts") && cells)
    added.push({
      kind: "restVolts",
      mark,
      packVolts: curve.voltsAt(q) * cells,
      restMin: 10,
      meterStepV: 0.1,
    });
  if ((kinds.has("bars") || kinds.has("barLost")) && bars > 0)
    added.push({ kind: "bars", mark, bars: Math.min(bars, Math.max(0, Math.ceil(bars * (1 - f)))) });
  if (added.length === 0) return null;
  const mix = Object.fromEntries(
    input.cells.map((cell) => [cell, (FURTHER_M * metresOf(nth(input.rides, ride), cell)) / metres]),
  );
  const longer = solveLedger({
    ...input,
    rides: input.rides.map((each, r) =>
      r === ride ? { ...each, legs: [...legs, { metres: mix }], readings: [...readings, ...added] } : each,
    ),
  });
  return longer.ok ? Math.sqrt(varianceOf(longer.value.posterior, rideFigure(longer.value, ride))) : null;
}

/** A repeat of the course with a counter on: this ride's energy again, but for its gain and the road's scatter of both. */
function meteredRepeat(solved: Solved, ride: number, figure: Figure): number {
  const { columns, input, posterior } = solved;
  const { pack } = nth(input.rides, ride);
  const column = nth(columns.capacity, pack);
  const capacity = num(posterior.mean, column);
  const used = usedOnRide(solved, ride);
  const energyWh = capacity * valueAt(used.form, posterior.mean);
  const scatter = scatterSd(metresOf(nth(input.rides, ride)), capacity) * capacity;
  const form = new Map([...used.form].map(([at, by]) => [at, by * capacity]));
  form.set(column, energyWh / capacity);
  const row: LedgerRow = {
    form,
    value: energyWh,
    errors: [
      { source: "meter gain", sd: energyWh * DEFAULTS.energyGainSd },
      { source: "road scatter", sd: scatter * Math.sqrt(2 * (1 - DEFAULTS.pairedShare)) },
    ],
    floor: EXACT * capacity,
  };
  return sdWith(solved, figure, row, columns);
}

/**
 * What to measure next for one ride's Wh per metre: hypothetical readings in the same model, with the sd each would leave,
 * by gain per minute of a person's time. Only what takes at least 3 % off the sd is listed.
 */
export function rankMeasurements(solved: Solved, ride = 0): readonly RankedMeasurement[] {
  const { input, columns, posterior } = solved;
  const { legs, readings, pack } = nth(input.rides, ride);
  const figure = rideFigure(solved, ride);
  const now = Math.sqrt(varianceOf(posterior, figure));
  const metres = metresOf(nth(input.rides, ride));
  const last = legs.length;
  const capacity = num(posterior.mean, nth(columns.capacity, pack));
  const end = Math.min(1, Math.max(0, num(posterior.mean, nth(columns.firstMark, ride) + last)));
  const has = (kind: Reading["kind"], mark?: number) =>
    readings.some((reading) => reading.kind === kind && (mark === undefined || markOf(reading) === mark));
  const rideMinutes = (60 * metres) / METRES_PER_MILE / DEFAULTS.rideMph;
  const found: { measure: NextMeasure; minutes: number; sdLeft: number | null }[] = [];
  if (nth(columns.usable, pack).from === "label") {
    const row: LedgerRow = {
      form: new Map([[nth(columns.capacity, pack), 1]]),
      value: capacity,
      errors: [
        { source: "capacity", sd: capacity * Math.hypot(DEFAULTS.measuredSdFloor, DEFAULTS.benchToRideSd) },
      ],
      floor: EXACT * capacity,
    };
    found.push({
      measure: "bench",
      minutes: DEFAULTS.benchMinutes,
      sdLeft: sdWith(solved, figure, row, columns),
    });
  }
  if (!has("wallRefill") && end > 0.1) {
    const wallWh = (capacity * end) / DEFAULTS.chargerEta;
    const reading: Reading = { kind: "wallRefill", mark: last, wallWh, stepWh: 1, charger: "next" };
    found.push({
      measure: "refill",
      minutes: DEFAULTS.refillMinutes,
      sdLeft: sdWithReading(solved, figure, ride, reading),
    });
  }
  const cells = nth(input.packs, pack).seriesCells;
  if (cells && !has("restVolts", last)) {
    const curve = curveOf(nth(input.packs, pack));
    const packVolts = cells * curve.voltsAt(curve.chargeAtFraction(end));
    const reading: Reading = { kind: "restVolts", mark: last, packVolts, restMin: 12, meterStepV: 0.1 };
    found.push({
      measure: "restVolts",
      minutes: DEFAULTS.restMinutes,
      sdLeft: sdWithReading(solved, figure, ride, reading),
    });
  }
  found.push({ measure: "tenMiles", minutes: 600 / DEFAULTS.rideMph, sdLeft: tenMilesOn(solved, ride) });
  if (!has("energyCounter") && !has("telemetry"))
    found.push({
      measure: "meteredRepeat",
      minutes: rideMinutes + DEFAULTS.meterMinutes,
      sdLeft: meteredRepeat(solved, ride, figure),
    });
  return worthDoing(now, found);
}
