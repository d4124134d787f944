import { DEFAULTS, type Estimate } from "#core/base";
import { steadyWhPerM, type RoadRow } from "#core/bike";
import { byDifferences } from "./differences.ts";
import { unknownsOfMount, unknownsOfRider, withUnknowns, type Mount } from "./unknownsOf.ts";
import type { DeskDay } from "./types.ts";

/** Steady readings of one day: a sweep, a climb, a logger's stretches. */
export interface SteadyRows {
  readonly id: string;
  readonly mount: Mount;
  readonly riderId: string | null;
  readonly rows: readonly RoadRow[];
}

/** What a day of steady readings does not know: the effort, the wind where it was ridden one way, the day. */
const OWN = ["rider", "wind", "day"] as const;

/** A row's own doubt: its reading, the speed it was read at, and the road model for so short a stretch. */
function rowSd({ state, measured }: RoadRow): number {
  const fast = 1 + DEFAULTS.speedReadSd;
  const at = (speedMps: number) => steadyWhPerM({ ...state, speedMps });
  const bySpeed = (at(state.speedMps * fast) - at(state.speedMps / fast)) / 2;
  return Math.hypot(measured.sd, bySpeed, DEFAULTS.stretchModelSdShare * measured.mean);
}

/** A day of steady readings as a day of the desk; null without any. */
export function dayOfRows({ id, mount, riderId, rows }: SteadyRows): DeskDay | null {
  if (rows.length === 0) return null;
  const pedalled = rows.some(({ riderSdW }) => riderSdW > 0);
  const shared = [
    ...unknownsOfMount(
      mount,
      rows.map(({ state }) => state.ground),
    ),
    ...(pedalled ? unknownsOfRider(riderId ?? `of ${id}`, { riderBy: "word" }) : []),
  ];
  const predict = (z: readonly number[], own: readonly number[]) => {
    const [rider, wind, day] = own as [number, number, number];
    return rows.map(({ state, oneWay, riderSdW }) => {
      const { conditions } = withUnknowns(
        {
          conditions: { ...resting(), ...state, speedMps: {}, habitSdShare: DEFAULTS.riderHabitSdShare },
          ...NO_WAY,
        },
        shared,
        z,
      );
      const { crr, crrBy, cdA, etaM, riderW, energyFactor = 1 } = conditions;
      const moved = {
        ...state,
        ...{ crr, crrBy, cdA, etaM },
        riderW: riderSdW > 0 ? riderW * Math.exp(DEFAULTS.riderDaySdShare * rider) : riderW,
        headwindMps: (state.headwindMps ?? 0) + (oneWay ? DEFAULTS.windSdMps * wind : 0),
      };
      return steadyWhPerM(moved) * energyFactor * Math.exp(DEFAULTS.stretchDaySdShare * day);
    });
  };
  return {
    id,
    home: mount.bikeId,
    shared,
    own: OWN,
    measured: rows.map((row): Estimate => ({ mean: row.measured.mean, sd: rowSd(row) })),
    linearise: byDifferences(predict),
  };
}

/** What a steady row has nothing of. */
const NO_WAY = { legs: [], slopes: [], restShare: 0 };
const resting = () => ({
  massSdShare: 0,
  cdA: DEFAULTS.dragAreaM2,
  crr: DEFAULTS.rollingAsphalt,
  etaD: DEFAULTS.drivetrainEfficiency,
  etaM: DEFAULTS.motorEfficiency,
  assistToMps: Infinity,
  lightsOn: false,
  tempC: DEFAULTS.packTempC,
  altitudeM: 0,
  windMps: 0,
  windFromDeg: null,
  windSdMps: 0,
  stopsPerMi: 0,
  riderW: 0,
  riderBy: "word" as const,
  riderSdShare: 0,
  speedSdShare: 0,
  level: "",
  speedMps: {},
  motorW: {},
});
