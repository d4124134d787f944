import { DEFAULTS, err, ok, type Result, type Estimate } from "#core/base";
import { expectedShare } from "./health.ts";
import { interpolate } from "./interpolate.ts";
import type { Pack, SinglePack } from "./schema.ts";
import { NOMINAL_CELL_VOLTS, TEMPERATURE, type Chemistry } from "./tables.ts";

/**
 * Share of the 25 C energy that a pack yields at a temperature. NMC at 4 C: 0.908.
 *
 * @example temperatureFactor("NMC", 4).toFixed(3) === "0.908"
 */
export function temperatureFactor(chemistry: Chemistry, tempC: number): number {
  const { tempC: temps, factor } = TEMPERATURE[chemistry];
  return interpolate(temps, factor, tempC);
}

/**
 * A pack and those beside it, one by one.
 *
 * @example singlePacks({ chemistry: "NMC", labelWh: 612 }).length === 1
 */
export function singlePacks(pack: Pack): readonly SinglePack[] {
  return [pack, ...(pack.beside ?? [])];
}

function labelOfOne(pack: SinglePack): Result<number> {
  if (pack.labelWh !== undefined) return ok(pack.labelWh);
  if (pack.ampHours !== undefined && pack.seriesCells !== undefined)
    return ok(pack.ampHours * pack.seriesCells * NOMINAL_CELL_VOLTS[pack.chemistry]);
  return err("no-label", "labelWh", "Type the pack's printed Wh, or its Ah and series cells.");
}

function sumOf<T>(results: readonly Result<T>[], add: (sum: T, value: T) => T): Result<T> {
  return results.reduce((sum, each) => (!sum.ok ? sum : !each.ok ? each : ok(add(sum.value, each.value))));
}

/**
 * Printed Wh, else nominal volts x Ah, of all packs side by side; a problem when a label gives neither.
 *
 * @example labelEnergy({ chemistry: "NMC", seriesCells: 13, ampHours: 14 }).value.toFixed(1) === "655.2"
 */
export function labelEnergy(pack: Pack): Result<number> {
  return sumOf(singlePacks(pack).map(labelOfOne), (a, b) => a + b);
}

export interface UsableEnergy extends Estimate {
  readonly labelWh: number;
  /** Share of the label it is expected to yield at 25 C, or was measured to. */
  readonly share: number;
  /** "measured" when every pack was. */
  readonly from: "measured" | "label";
}

/** What a pack's age lets expect of it; null where nothing is known of its age. */
function expectedOf({ ageYears, cycles }: SinglePack) {
  if (ageYears === undefined && cycles === undefined) return null;
  // Cycles alone: a pack in use for some years, at a hundred a year.
  return expectedShare(ageYears ?? (cycles ?? 0) / 100, cycles ?? null);
}

/** Share of the label that a pack yields at 25 C, by what is known of its age; sd relative. */
function shareOf(pack: SinglePack): { mean: number; relativeSd: number } {
  const expected = expectedOf(pack);
  if (expected === null) return { mean: DEFAULTS.labelDerate, relativeSd: DEFAULTS.labelSd };
  return { mean: expected.mean, relativeSd: expected.sd / expected.mean };
}

/**
 * Share of its first capacity that a pack is expected to have lost; 0 where nothing is known of its age, or its capacity was measured.
 *
 * @example expectedFade({ chemistry: "NMC", labelWh: 500, ageYears: 4 }).toFixed(2) === "0.10"
 */
export function expectedFade(pack: SinglePack): number {
  if (pack.measuredWh !== undefined) return 0;
  const expected = expectedOf(pack);
  return expected === null ? 0 : 1 - expected.mean / DEFAULTS.newDerate;
}

function usableOfOne(pack: SinglePack, packTempC: number | undefined): Result<UsableEnergy> {
  const label = labelOfOne(pack);
  if (!label.ok && pack.measuredWh === undefined) return label;
  const factorAt = (tempC: number) => temperatureFactor(pack.chemistry, tempC);
  const factor = factorAt(pack.packTempC ?? packTempC ?? DEFAULTS.packTempC);
  if (pack.measuredWh !== undefined) {
    const measuredAt = factorAt(pack.measuredTempC ?? 25);
    const mean = (pack.measuredWh * factor) / measuredAt;
    const measured = Math.max((pack.measuredSdWh ?? 0) / pack.measuredWh, DEFAULTS.measuredSdFloor);
    const cold = (DEFAULTS.coldSdShare * Math.abs(measuredAt - factor)) / factor;
    return ok({
      mean,
      sd: mean * Math.hypot(measured, cold),
      labelWh: label.ok ? label.value : pack.measuredWh,
      share: label.ok ? mean / factor / label.value : 1,
      from: "measured",
    });
  }
  if (!label.ok) return label;
  const share = shareOf(pack);
  const mean = label.value * share.mean * factor;
  const cold = (DEFAULTS.coldSdShare * (1 - factor)) / factor;
  return ok({
    ...{ mean, sd: mean * Math.hypot(share.relativeSd, cold) },
    ...{ labelWh: label.value, share: share.mean, from: "label" },
  });
}

/**
 * Usable energy at the test's temperature, Wh: the measurement if there is one (at least 1.5 % sd), else what the label lets
 * expect: 93 % with 6 % sd of a pack of unknown age, else by age and cycles. What cold takes is doubtful by 40 %. Packs side
 * by side add, with independent errors.
 *
 * @example usableEnergy({ chemistry: "NMC", labelWh: 612, packTempC: 4 }) is 516.8 with sd 37.4
 */
export function usableEnergy(pack: Pack): Result<UsableEnergy> {
  return usableOfAll(pack, usableOfOne);
}

/** Packs side by side add, with independent errors. */
function usableOfAll(pack: Pack, ofOne: typeof usableOfOne): Result<UsableEnergy> {
  return sumOf(
    singlePacks(pack).map((one) => ofOne(one, pack.packTempC)),
    (a, b) => ({
      mean: a.mean + b.mean,
      sd: Math.hypot(a.sd, b.sd),
      labelWh: a.labelWh + b.labelWh,
      share: (a.share * a.labelWh + b.share * b.labelWh) / (a.labelWh + b.labelWh),
      from: a.from === "measured" && b.from === "measured" ? "measured" : "label",
    }),
  );
}

/** A measured pack at the currents of a ride, which leave more of its energy in its own resistance than a bench's do. */
function atRideCurrents(usable: UsableEnergy): UsableEnergy {
  if (usable.from === "label") return usable;
  const mean = DEFAULTS.benchToRide * usable.mean;
  const sd = Math.hypot(DEFAULTS.benchToRide * usable.sd, DEFAULTS.benchToRideSd * usable.mean);
  return { ...usable, mean, sd, share: DEFAULTS.benchToRide * usable.share };
}

/**
 * What a pack gives on a ride, Wh: of one that a bench measured 2.5 ± 2 % less than there, of others as `usableEnergy` has it.
 *
 * @example usableOnRide({ chemistry: "NMC", labelWh: 560, measuredWh: 500, packTempC: 25 }) is 487.5 with sd 12.4
 */
export function usableOnRide(pack: Pack): Result<UsableEnergy> {
  return usableOfAll(pack, (one, tempC) => {
    const usable = usableOfOne(one, tempC);
    return usable.ok ? ok(atRideCurrents(usable.value)) : usable;
  });
}

/**
 * Lowest and highest rest volts a pack's cells can show, with room for a charger's last tenth.
 *
 * @example voltsLimits({ chemistry: "NMC", seriesCells: 10 }).high === 43
 */
export function voltsLimits(pack: Pack): { readonly low: number; readonly high: number } | undefined {
  if (pack.seriesCells === undefined) return undefined;
  return pack.chemistry === "NMC"
    ? { low: 2.2 * pack.seriesCells, high: 4.3 * pack.seriesCells }
    : { low: 1.8 * pack.seriesCells, high: 3.75 * pack.seriesCells };
}
