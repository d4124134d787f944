import { nth, lastOf } from "#core/base";
import { interpolate } from "./interpolate.ts";
import { OCV, type Chemistry, type OcvTable } from "./tables.ts";

/**
 * A cell's rest-volts curve and its energy shape: Phi(q) is the integral of volts from 0 to q, so that
 * f(q) = 1 - Phi(q)/Phi(1) is the fraction of usable energy used at state of charge q. All exact for the
 * piecewise-linear table.
 */
export interface CellCurve {
  readonly table: OcvTable;
  /** Rest volts per cell at charge q in 0..1. */
  voltsAt(q: number): number;
  /** Charge at rest volts per cell, limited to the table. */
  chargeAt(cellVolts: number): number;
  /** Integral of volts over charge, V. */
  phi(q: number): number;
  /** Fraction of usable energy used at charge q. */
  fractionAt(q: number): number;
  /** Charge at which a fraction of the energy is used; the inverse of fractionAt, limited to 0..1. */
  chargeAtFraction(f: number): number;
}

/** Builds the curve of a table. Example: `cellCurve(OCV.NMC).fractionAt(0.5)` is 0.52891. */
export function cellCurve(table: OcvTable): CellCurve {
  const { q: qs, volts } = table;
  const sums = [0];
  for (let i = 1; i < qs.length; i += 1)
    sums.push(nth(sums, i - 1) + ((nth(volts, i) + nth(volts, i - 1)) / 2) * (nth(qs, i) - nth(qs, i - 1)));
  const whole = lastOf(sums);
  const voltsAt = (q: number) => interpolate(qs, volts, q);
  const phi = (q: number) => {
    const at = Math.min(1, Math.max(0, q));
    let i = 1;
    while (i < qs.length - 1 && nth(qs, i) < at) i += 1;
    return nth(sums, i - 1) + ((nth(volts, i - 1) + voltsAt(at)) / 2) * (at - nth(qs, i - 1));
  };
  const chargeAtFraction = (f: number) => {
    const target = (1 - Math.min(1, Math.max(0, f))) * whole;
    let i = 1;
    while (i < qs.length - 1 && nth(sums, i) < target) i += 1;
    const start = nth(volts, i - 1);
    const slope = (nth(volts, i) - start) / (nth(qs, i) - nth(qs, i - 1));
    const rest = target - nth(sums, i - 1);
    return nth(qs, i - 1) + (2 * rest) / (start + Math.sqrt(Math.max(0, start * start + 2 * slope * rest)));
  };
  return {
    table,
    voltsAt,
    chargeAt: (cellVolts) => interpolate(volts, qs, cellVolts),
    phi,
    fractionAt: (q) => 1 - phi(q) / whole,
    chargeAtFraction,
  };
}

const STANDARD: Readonly<Record<Chemistry, CellCurve>> = { NMC: cellCurve(OCV.NMC), LFP: cellCurve(OCV.LFP) };

/** The curve of a pack: its own measured one, else its chemistry's. */
export function curveOf(pack: {
  readonly chemistry: Chemistry;
  readonly ocv?: OcvTable | undefined;
}): CellCurve {
  return pack.ocv ? cellCurve(pack.ocv) : STANDARD[pack.chemistry];
}

/**
 * What rest volts say about the energy used, with the error of the volts carried through the curve's slope across
 * one sd each way, limited to the table (a plain centred slope would give no error above a full cell).
 *
 * @param cellVolts rest volts per cell; @param sdVolts their sd, V per cell
 * @returns q, f and the sd of f. NMC at 3.94 V with 0.0206 V is f 0.26405, sd 0.0311.
 */
export function fractionFromVolts(curve: CellCurve, cellVolts: number, sdVolts: number) {
  const { volts } = curve.table;
  const bottom = nth(volts, 0);
  const top = lastOf(volts);
  const held = Math.min(top, Math.max(bottom, cellVolts));
  const low = Math.max(held - sdVolts, bottom);
  const high = Math.min(held + sdVolts, top);
  const f = (at: number) => curve.fractionAt(curve.chargeAt(at));
  const slope = high > low ? (f(low) - f(high)) / (high - low) : 0;
  return { q: curve.chargeAt(held), f: f(held), sd: slope * sdVolts };
}

/**
 * The straight-line school: charge in proportion to volts between cut-off and full. 45.1 V of 39..54.6 is 0.391.
 *
 * @example straightLineCharge(48, 42, 54) === 0.5
 */
export function straightLineCharge(packVolts: number, cutOffVolts: number, fullVolts: number): number {
  return (packVolts - cutOffVolts) / (fullVolts - cutOffVolts);
}
