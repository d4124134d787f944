import { DEFAULTS, ok, type Result, METRES_PER_MILE, scale, type Estimate } from "#core/base";
import { EFFORT_W, massOf, type Riding, roadOf, roadPower, type RoadRow } from "#core/bike";
import { curveOf, labelEnergy, usableOnRide } from "#core/battery";
import type { ClimbRecord, PackRecord } from "#core/records";
import { climbOf } from "./climb.ts";

/** One run up a hill, reckoned. SI units. */
export interface ClimbFigures {
  readonly gradient: number;
  readonly speedMps: number;
  readonly verticalMPerHour: number;
  readonly timeS: number;
  /** Null where it was timed alone. */
  readonly energyWh: Estimate | null;
  readonly whPerVerticalM: Estimate | null;
  /** Power at the wheel by the road load, W; and from the battery, as measured. */
  readonly wheelW: number;
  readonly batteryW: number | null;
  /** Metres up on a common pack at this rate, from full to empty. */
  readonly onCommonM: Estimate | null;
  /** How the energy was found. */
  readonly by: "counter" | "percent" | "time";
}

/** Usable energy of the common pack that climbs are compared on, Wh. */
export const CLIMB_PACK_WH = 500;

const COUNTER_STEP_WH = 1;
const ROOT12 = Math.sqrt(12);

/** Energy of a climb with its error: by a counter, else by the percent at its foot and top; null where it was timed alone. */
function energyOf(
  { energyWh, startPercent, endPercent, airTempC }: ClimbRecord,
  pack: PackRecord,
  percentStep: number,
): Result<{ readonly wh: Estimate | null; readonly by: ClimbFigures["by"] }> {
  if (energyWh !== undefined)
    return ok({
      wh: { mean: energyWh, sd: Math.hypot(COUNTER_STEP_WH / ROOT12, energyWh * DEFAULTS.energyGainSd) },
      by: "counter",
    });
  if (startPercent === undefined || endPercent === undefined) return ok({ wh: null, by: "time" });
  const own = { ...pack, packTempC: airTempC };
  const label = labelEnergy(own);
  if (!label.ok) return label;
  const usable = usableOnRide(own);
  if (!usable.ok) return usable;
  const curve = curveOf(own);
  const used = (percent: number) => curve.fractionAt(percent / 100);
  const fraction = used(endPercent) - used(startPercent);
  const { mean, sd } = usable.value;
  const rounding = (percentStep / 100 / ROOT12) * Math.SQRT2;
  return ok({
    wh: { mean: fraction * mean, sd: Math.hypot(mean * rounding, fraction * sd) },
    by: "percent",
  });
}

/** How a climb was ridden, for the road load. */
function stateOf(climb: ClimbRecord, riding: Riding) {
  return {
    massKg: massOf(riding).kg,
    speedMps: climb.lengthM / climb.timeS,
    slope: climb.gainM / climb.lengthM,
    ground: climb.ground,
    tempC: climb.airTempC ?? DEFAULTS.packTempC,
    riderW: climb.drive === "throttle" ? 0 : EFFORT_W[climb.effort],
    lightsOn: riding.setUp?.lightsOn ?? false,
    ...roadOf(riding),
  };
}

/** The figures of one run. Source: docs/method.md. */
export function climbFigures(climb: ClimbRecord, riding: Riding, pack: PackRecord): Result<ClimbFigures> {
  const energy = energyOf(climb, pack, riding.bike.percentStep || 1);
  if (!energy.ok) return energy;
  const { wh, by } = energy.value;
  const found = climbOf({
    lengthMi: climb.lengthM / METRES_PER_MILE,
    gainM: climb.gainM,
    timeS: climb.timeS,
    energyWh: wh?.mean ?? 0,
  });
  if (!found.ok) return found;
  const { gradient, verticalMPerHour } = found.value;
  const whPerVerticalM = wh && scale(wh, 1 / climb.gainM);
  return ok({
    gradient,
    speedMps: climb.lengthM / climb.timeS,
    timeS: climb.timeS,
    verticalMPerHour,
    energyWh: wh,
    whPerVerticalM,
    wheelW: roadPower(stateOf(climb, riding)).wheelW,
    batteryW: wh && (wh.mean * 3600) / climb.timeS,
    onCommonM: whPerVerticalM && {
      mean: CLIMB_PACK_WH / whPerVerticalM.mean,
      sd: (CLIMB_PACK_WH * whPerVerticalM.sd) / whPerVerticalM.mean ** 2,
    },
    by,
  });
}

/** A climb as a row of its bike's road load, the speed at its foot as energy brought along; null where it was timed alone. */
export function climbRow(climb: ClimbRecord, riding: Riding, { energyWh }: ClimbFigures): RoadRow | null {
  if (!energyWh) return null;
  const state = stateOf(climb, riding);
  const entry = climb.entrySpeedMps ?? state.speedMps;
  const broughtWh =
    (0.5 * state.massKg * (entry ** 2 - state.speedMps ** 2)) / (state.etaD * state.etaM) / 3600;
  return {
    name: `${climb.hill}, ${climb.level || climb.drive}`,
    state,
    measured: {
      mean: (energyWh.mean + broughtWh) / climb.lengthM,
      sd: Math.hypot(energyWh.sd, 0.3 * broughtWh) / climb.lengthM,
    },
    oneWay: true,
    riderSdW: state.riderW * DEFAULTS.riderSdShare,
  };
}
