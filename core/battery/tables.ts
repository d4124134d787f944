import type { z } from "zod";
import type { chemistrySchema } from "./schema.ts";

export type Chemistry = z.infer<typeof chemistrySchema>;

/** Open-circuit volts per cell against state of charge, linear between points; both rising. */
export interface OcvTable {
  readonly q: readonly number[];
  readonly volts: readonly number[];
}

const GRID = [0, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];

/** Typical rest volts per cell; a pack's own measured curve overrides them. */
export const OCV: Readonly<Record<Chemistry, OcvTable>> = {
  NMC: { q: GRID, volts: [3.0, 3.27, 3.4, 3.52, 3.59, 3.65, 3.72, 3.82, 3.9, 3.97, 4.06, 4.2] },
  LFP: { q: GRID, volts: [2.5, 3.0, 3.2, 3.25, 3.28, 3.29, 3.3, 3.31, 3.32, 3.33, 3.35, 3.4] },
};

/** Volts of a cell as labels count them: of NMC 36 V is 10 cells, 48 V 13, 52 V 14, 72 V 20; of LFP 48 V is 15. */
const LABEL_CELL_VOLTS: Readonly<Record<Chemistry, number>> = { NMC: 3.65, LFP: 3.2 };

/**
 * Cells in series of a pack by its printed volts.
 *
 * @example seriesOfVolts("NMC", 48) === 13
 */
export const seriesOfVolts = (chemistry: Chemistry, volts: number): number =>
  Math.round(volts / LABEL_CELL_VOLTS[chemistry]);

export const NOMINAL_CELL_VOLTS: Readonly<Record<Chemistry, number>> = { NMC: 3.6, LFP: 3.2 };

/** Usable energy against pack temperature, 25 C being 1; flat outside the table. */
export const TEMPERATURE: Readonly<
  Record<Chemistry, { readonly tempC: readonly number[]; readonly factor: readonly number[] }>
> = {
  NMC: { tempC: [-20, -10, 0, 10, 25], factor: [0.62, 0.78, 0.88, 0.95, 1] },
  LFP: { tempC: [-20, -10, 0, 10, 25], factor: [0.5, 0.68, 0.83, 0.93, 1] },
};
