import { DEFAULTS, Z_95, type Estimate } from "#core/base";
import { labelEnergy, temperatureFactor } from "./energy.ts";
import { expectedShare, packHealth, yearsBetween, type ExpectedShare, type PackHealth } from "./health.ts";
import type { Pack } from "./schema.ts";

/** What a bench sheet tells a customer: label, measured at 25 C, percent, and what the pack's age lets expect. */
export interface PackSheet {
  readonly labelWh: number;
  /** Brought to 25 C. */
  readonly measured: Estimate;
  readonly health: PackHealth;
  readonly expected: (ExpectedShare & { readonly low: number; readonly high: number }) | null;
}

/**
 * The sheet of one bench discharge. Null when the label gives no energy.
 *
 * @param bench result in Wh, its sd where known, and the temperature it started at
 */
export function packSheet(
  pack: Pack & { readonly firstUsedOn?: string | undefined; readonly cycles?: number | undefined },
  bench: {
    readonly on: string;
    readonly wh: number;
    readonly sdWh?: number | undefined;
    readonly startTempC: number;
  },
): PackSheet | null {
  const label = labelEnergy(pack);
  if (!label.ok) return null;
  const mean = bench.wh / temperatureFactor(pack.chemistry, bench.startTempC);
  const measured = { mean, sd: Math.max((bench.sdWh ?? 0) / bench.wh, DEFAULTS.measuredSdFloor) * mean };
  const point = { day: bench.on, wh: measured, from: "bench" } as const;
  const health = packHealth(point, label.value, pack.firstUsedOn, pack.cycles);
  const expected =
    pack.firstUsedOn === undefined
      ? null
      : expectedShare(yearsBetween(pack.firstUsedOn, bench.on), pack.cycles ?? null);
  return {
    labelWh: label.value,
    measured,
    health,
    expected: expected && {
      ...expected,
      low: expected.mean - Z_95 * expected.sd,
      high: expected.mean + Z_95 * expected.sd,
    },
  };
}
