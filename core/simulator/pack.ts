import { nth } from "#core/base";
import {
  cellCurve,
  OCV,
  temperatureFactor,
  type CellCurve,
  type Chemistry,
  type OcvTable,
} from "#core/battery";

/** The stand-in's pack as it truly is. */
export interface TruePack {
  readonly chemistry: Chemistry;
  readonly seriesCells: number;
  readonly ampHours: number;
  readonly labelWh: number;
  /** Energy under the rest-volts curve from full to empty, at 25 C, Wh. */
  readonly chemicalWh: number;
  readonly ohm: number;
  readonly tempC: number;
  /** Own rest-volts table, where it is not the chemistry's. */
  readonly ocv?: OcvTable;
  /** How much of the table's loss in the cold it has; 1 unless said. */
  readonly coldShare?: number;
}

export interface PackState {
  /** State of charge, 0..1. */
  readonly q: number;
  /** Volts of polarisation, which take minutes to come and go. */
  readonly polarisedV: number;
  /** At the terminals, since full, Wh. */
  readonly usedWh: number;
}

/** Polarisation against the pack's resistance, and how slowly it settles, s. */
const POLARISED_SHARE = 0.6;
const SETTLING_S = 150;

export const FULL: PackState = { q: 1, polarisedV: 0, usedWh: 0 };

/** What the pack does: draws, rests, cuts off. */
export interface PackModel {
  readonly curve: CellCurve;
  /** Charge it holds at its temperature, As. */
  readonly coulombs: number;
  restVolts(state: PackState): number;
  /** Fraction of the energy used, by charge. */
  fractionUsed(state: PackState): number;
  /** One step of drawing power at the terminals (negative charges); null when the pack cuts off. */
  draw(
    state: PackState,
    watts: number,
    stepS: number,
  ): { state: PackState; volts: number; amps: number } | null;
}

/** The electrical model: rest volts by the table, resistance, one slow polarisation. */
export function packModel(pack: TruePack): PackModel {
  const curve = cellCurve(pack.ocv ?? OCV[pack.chemistry]);
  const cold = 1 - (pack.coldShare ?? 1) * (1 - temperatureFactor(pack.chemistry, pack.tempC));
  const coulombs = (pack.chemicalWh * cold * 3600) / (pack.seriesCells * curve.phi(1));
  const ohm = pack.ohm * (1 + 0.02 * Math.max(0, 25 - pack.tempC));
  const cutOffV = pack.seriesCells * (nth(curve.table.volts, 0) - 0.1);
  const openVolts = ({ q }: PackState) => pack.seriesCells * curve.voltsAt(q);
  return {
    curve,
    coulombs,
    restVolts: (state) => openVolts(state) - state.polarisedV,
    fractionUsed: ({ q }) => curve.fractionAt(q),
    draw(state, watts, stepS) {
      const open = openVolts(state) - state.polarisedV;
      // V I = P with V = open - I R: the smaller root is the current that flows.
      const root = open * open - 4 * ohm * watts;
      if (root <= 0) return null;
      const amps = (open - Math.sqrt(root)) / (2 * ohm);
      const volts = open - amps * ohm;
      const q = state.q - (amps * stepS) / coulombs;
      if (q <= 0 || volts < cutOffV) return null;
      const settles = 1 - Math.exp(-stepS / SETTLING_S);
      const polarisedV = state.polarisedV + settles * (amps * ohm * POLARISED_SHARE - state.polarisedV);
      return {
        state: { q: Math.min(1, q), polarisedV, usedWh: state.usedWh + (volts * amps * stepS) / 3600 },
        volts,
        amps,
      };
    },
  };
}
