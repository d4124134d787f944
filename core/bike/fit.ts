import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { inverse, Matrix } from "ml-matrix";
import { nth, DEFAULTS, err, ok, type Result, type Estimate } from "#core/base";
import type { Ground } from "#core/fields";
import type { FitParameter, RoadFit, RoadRow } from "./fitTypes.ts";
import { fitWords } from "./fitWords.ts";
import { GROUND_FACTOR } from "./ground.ts";
import { roadPower, type RoadState } from "./power.ts";

/** Sds of the priors, as shares: rolling, drag, motor and drive together. */
const shares = () => ({
  rolling: DEFAULTS.rollingSdShare,
  drag: DEFAULTS.dragSdShare,
  motor: Math.SQRT2 * DEFAULTS.efficiencySdShare,
});
const ITERATIONS = 60;
const STEP = 1e-3;
const OUTLIER_SDS = 3;
const WH_PER_J = 1 / 3600;

const times = (share: number, z: number) => Math.exp(share * z);

/** A state with the fit's parameters instead of the assumptions. */
export function fittedState(state: RoadState, { z, grounds }: Pick<RoadFit, "z" | "grounds">): RoadState {
  const { ground = "asphalt", crr = DEFAULTS.rollingAsphalt, cdA = DEFAULTS.dragAreaM2 } = state;
  const place = grounds.indexOf(ground);
  const n = grounds.length;
  // A ground nobody rode rolls as far from its assumption as asphalt does from its own.
  const rolling = nth(z, place < 0 ? grounds.indexOf("asphalt") : place);
  return {
    ...state,
    crr: crr * times(shares().rolling, rolling),
    cdA: cdA * times(shares().drag, nth(z, n)),
    etaM: (state.etaM ?? DEFAULTS.motorEfficiency) * times(shares().motor, nth(z, n + 1)),
  };
}

/** Battery energy per metre at a steady speed, Wh. */
export const steadyWhPerM = (state: RoadState) => (roadPower(state).batteryW / state.speedMps) * WH_PER_J;

/** A row's whole doubt: its reading, its speed, the rider, and the wind where it was ridden one way only. */
function rowSd({ state, measured, oneWay, riderSdW }: RoadRow): number {
  const by = (change: Partial<RoadState>, other: Partial<RoadState>) =>
    (steadyWhPerM({ ...state, ...change }) - steadyWhPerM({ ...state, ...other })) / 2;
  const riderW = state.riderW ?? 0;
  const fast = 1 + DEFAULTS.speedReadSd;
  const parts = [
    measured.sd,
    by({ speedMps: state.speedMps * fast }, { speedMps: state.speedMps / fast }),
    riderSdW > 0 ? by({ riderW: riderW + riderSdW }, { riderW: Math.max(0, riderW - riderSdW) }) : 0,
    oneWay ? by({ headwindMps: DEFAULTS.windSdMps }, { headwindMps: -DEFAULTS.windSdMps }) : 0,
  ];
  return Math.hypot(...parts, 1e-3 * measured.mean);
}

/** What each parameter is called, by place. */
const nameOf = (grounds: readonly Ground[], k: number) =>
  k < grounds.length ? `rolling on ${grounds[k]}` : k === grounds.length ? "drag" : "motor and drive";

/**
 * Fits rolling resistance on each ground, drag area and the motor's efficiency to steady rows, by Levenberg and Marquardt
 * with the assumptions as further residuals. Source: docs/method.md.
 *
 * @returns a problem without any row; with one row, what it says within the assumptions
 */
export function fitRoad(rows: readonly RoadRow[]): Result<RoadFit> {
  if (rows.length === 0)
    return err("no-rows", "rows", "A fit needs rows: fill a sweep or note a climb with its energy.");
  const grounds = [...new Set<Ground>(["asphalt", ...rows.map(({ state }) => state.ground)])];
  const n = grounds.length + 2;
  const sds = rows.map(rowSd);
  const count = rows.length;
  const modelled = (z: readonly number[], i: number) =>
    steadyWhPerM(fittedState(nth(rows, i).state, { z, grounds })) / nth(sds, i);
  const found = levenbergMarquardt(
    {
      x: Array.from({ length: count + n }, (_, i) => i),
      y: [...rows.map(({ measured }, i) => measured.mean / nth(sds, i)), ...new Array<number>(n).fill(0)],
    },
    (z) => (i) => (i < count ? modelled(z, i) : nth(z, i - count)),
    {
      initialValues: new Array<number>(n).fill(0),
      gradientDifference: STEP,
      centralDifference: true,
      maxIterations: ITERATIONS,
      errorTolerance: 1e-9,
      minValues: new Array<number>(n).fill(-6),
      maxValues: new Array<number>(n).fill(6),
    },
  );
  const z = found.parameterValues;
  const moved = (k: number, by: number) => z.map((each, i) => (i === k ? each + by : each));
  const slopes = rows.map((_, i) =>
    z.map((_each, k) => (modelled(moved(k, STEP), i) - modelled(moved(k, -STEP), i)) / (2 * STEP)),
  );
  const jacobian = new Matrix(slopes);
  const information = jacobian.transpose().mmul(jacobian).add(Matrix.eye(n));
  const standings = rows.map(({ measured }, i) => measured.mean / nth(sds, i) - modelled(z, i));
  const chi2PerRow = standings.reduce((sum, each) => sum + each * each, 0) / count;
  const wide = Math.max(1, chi2PerRow);
  // Where rows disagree they say less: each weighs less against the assumptions.
  const covariance = inverse(
    wide > 1 ? jacobian.transpose().mmul(jacobian).div(wide).add(Matrix.eye(n)) : information,
  ).to2DArray();
  const share = (k: number) =>
    k < grounds.length ? shares().rolling : k === grounds.length ? shares().drag : shares().motor;
  const first = nth(rows, 0).state;
  const assumedOf = (k: number) =>
    k < grounds.length
      ? (first.crr ?? DEFAULTS.rollingAsphalt) * GROUND_FACTOR[nth(grounds, k)]
      : k === grounds.length
        ? (first.cdA ?? DEFAULTS.dragAreaM2)
        : (first.etaM ?? DEFAULTS.motorEfficiency);
  const bears = (k: number) =>
    k < grounds.length ? rows.filter(({ state }) => state.ground === grounds[k]).length : count;
  const parameters = z.map((each, k): FitParameter => {
    const mean = assumedOf(k) * times(share(k), each);
    return {
      name: nameOf(grounds, k),
      value: { mean, sd: mean * share(k) * Math.sqrt(nth(nth(covariance, k), k)) },
      assumed: { mean: assumedOf(k), sd: assumedOf(k) * share(k) },
      rows: bears(k),
    };
  });
  const [drag, motor] = [grounds.length, grounds.length + 1];
  const together =
    nth(nth(covariance, drag), motor) /
    Math.sqrt(nth(nth(covariance, drag), drag) * nth(nth(covariance, motor), motor));
  const seen = rows.map(({ name, measured, oneWay }, i) => ({
    name,
    measured,
    fitted: modelled(z, i) * nth(sds, i),
    standing: nth(standings, i),
    outlier: Math.abs(nth(standings, i)) > OUTLIER_SDS,
    oneWay,
  }));
  const rest = { parameters, rows: seen, chi2PerRow };
  return ok({ z, covariance, grounds, ...rest, words: fitWords(rest, Math.abs(together)) });
}

/** What a fit says of a state, Wh per metre, with the doubt of its parameters. */
export function predicted(fit: RoadFit, state: RoadState): Estimate {
  const at = (z: readonly number[]) => steadyWhPerM(fittedState(state, { z, grounds: fit.grounds }));
  const slope = fit.z.map((_, k) => {
    const moved = (by: number) => fit.z.map((each, i) => (i === k ? each + by : each));
    return (at(moved(STEP)) - at(moved(-STEP))) / (2 * STEP);
  });
  const variance = slope.reduce(
    (sum, a, i) => sum + slope.reduce((row, b, j) => row + a * b * nth(nth(fit.covariance, i), j), 0),
    0,
  );
  return { mean: at(fit.z), sd: Math.sqrt(Math.max(0, variance)) };
}
