import { num, there, nth, DEFAULTS } from "#core/base";
import type { Row, ReadingUnknown } from "#core/battery/readings";
import { SMOOTH_SOURCE, smoothColumn, type Columns } from "./columns.ts";
import { EXACT, type LedgerError, type LedgerRow } from "./rows.ts";
import type { LedgerInput } from "./schema.ts";
import { gpWeights } from "./gpBasis.ts";

/** One reading's row, and the ride it belongs to. */
export interface RideRow {
  readonly ride: number;
  readonly row: Row;
}

/** Column of an unknown a reading leans on: a device's is the same on every ride, a gauge's on every ride with that gauge. */
function unknownColumn(columns: Columns, unknown: ReadingUnknown, gauge: string): number {
  const key = unknown.of === "device" ? unknown.key : `${gauge}/${unknown.key}`;
  return columns.unknowns.add(key, unknown.mean, unknown.sd, unknown.source);
}

/** The form of a row without energy, and its errors with what the slow error's nodes leave out. */
function plainRow(row: Row, first: number, columns: Columns, pack: string, gauge: string): LedgerRow {
  const form = new Map<number, number>();
  const add = (column: number, coefficient: number) =>
    form.set(column, (form.get(column) ?? 0) + coefficient);
  const errors: LedgerError[] = [...row.errors];
  for (const { mark, coefficient } of row.fractions) add(first + mark, coefficient);
  for (const { unknown, coefficient } of row.unknowns)
    add(unknownColumn(columns, unknown, gauge), coefficient);
  if (row.smooth) {
    const { process, f } = row.smooth;
    const node = smoothColumn(columns, process, process === "gauge" ? gauge : pack);
    let left = 1;
    gpWeights(f).forEach((weight, j) => {
      form.set(node + j, DEFAULTS.smoothSd * weight);
      left -= weight * weight;
    });
    errors.push({ source: SMOOTH_SOURCE[process], sd: DEFAULTS.smoothSd * Math.sqrt(Math.max(0, left)) });
  }
  return { form, value: row.value, errors, floor: EXACT };
}

/**
 * An energy reading holds the product C (V_b - V_a); it is linearised at `point`, or on the first pass (no point) at
 * dV = E / C0.
 */
function energyRow(
  { energy, errors }: Row,
  first: number,
  columns: Columns,
  pack: string,
  gauge: string,
  point: Float64Array | null,
): LedgerRow {
  const { from, to, wh: read, gain, gainUnknown } = there(energy);
  const prior = nth(columns.usable, pack).mean;
  const column = nth(columns.capacity, pack);
  const at = (mark: number | undefined) => (mark === undefined || !point ? 0 : num(point, first + mark));
  const fFrom = at(from);
  const fTo = point ? at(to) : 1;
  const wh = read(fFrom, fTo);
  const capacity = point ? num(point, column) : prior;
  const used = point ? fTo - fFrom : wh / capacity;
  const form = new Map([[first + to, capacity], [column, used]]); // prettier-ignore
  if (from !== undefined) form.set(first + from, -capacity);
  form.set(unknownColumn(columns, gainUnknown, gauge), -gain(wh));
  const shift = capacity * used;
  return { form, value: wh + shift, shift, errors, floor: EXACT * prior };
}

/**
 * Writes each reading as a row over the columns, linear at `point`.
 *
 * @param before the same rows at another point: those that are linear anyway are taken over as they are
 */
export function evidenceRows(
  input: LedgerInput,
  columns: Columns,
  said: readonly RideRow[],
  point: Float64Array | null,
  before?: readonly LedgerRow[],
): readonly LedgerRow[] {
  return said.map(({ ride, row }, i) => {
    const { pack, gauge } = nth(input.rides, ride);
    const first = nth(columns.firstMark, ride);
    return row.energy
      ? energyRow(row, first, columns, pack, gauge, point)
      : (before?.[i] ?? plainRow(row, first, columns, pack, gauge));
  });
}
