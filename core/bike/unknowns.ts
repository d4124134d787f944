import { DEFAULTS } from "#core/base";
import type { RideConditions } from "./conditions.ts";

/** Something the road load does not know of a ride, as a standard normal: what one sd of it does. */
export interface RideUnknown {
  readonly name: string;
  /** Of the bike or the rider, and so learned on their rides; else of the day. */
  readonly of: "bike" | "rider" | "day";
  readonly apply: (rig: RideConditions, z: number) => RideConditions;
}

const times = (share: number, z: number) => Math.exp(share * z);
const bothEfficiencies = () => Math.SQRT2 * DEFAULTS.efficiencySdShare;

/** Everything that is not known of a ride, besides the pack and the road's scatter; what lasts beyond a day first. */
export const UNKNOWNS: readonly RideUnknown[] = [
  {
    name: "rolling resistance",
    of: "bike",
    apply: (rig, z) => {
      const by = times(DEFAULTS.rollingSdShare, z);
      return {
        ...rig,
        crr: rig.crr * by,
        ...(rig.crrBy && {
          crrBy: Object.fromEntries(Object.entries(rig.crrBy).map(([ground, crr]) => [ground, crr * by])),
        }),
      };
    },
  },
  {
    name: "drag",
    of: "bike",
    apply: (rig, z) => ({ ...rig, cdA: rig.cdA * times(DEFAULTS.dragSdShare, z) }),
  },
  {
    name: "motor and drive",
    of: "bike",
    apply: (rig, z) => ({ ...rig, etaM: rig.etaM * times(bothEfficiencies(), z) }),
  },
  {
    name: "the bike beside its road load",
    of: "bike",
    apply: (rig, z) => ({
      ...rig,
      energyFactor: (rig.energyFactor ?? 1) * times(DEFAULTS.bikeModelSdShare, z),
    }),
  },
  {
    name: "what an effort means",
    of: "rider",
    apply: (rig, z) => ({ ...rig, riderW: rig.riderW * times(rig.habitSdShare ?? 0, z) }),
  },
  {
    name: "weight",
    of: "day",
    apply: (rig, z) => ({ ...rig, massKg: rig.massKg * times(rig.massSdShare, z) }),
  },
  {
    name: "rider",
    of: "day",
    apply: (rig, z) => ({ ...rig, riderW: rig.riderW * times(rig.riderSdShare, z) }),
  },
  {
    name: "wind",
    of: "day",
    apply: (rig, z) => ({ ...rig, windMps: rig.windMps + rig.windSdMps * z }),
  },
  {
    name: "speed",
    of: "day",
    apply: (rig, z) => ({
      ...rig,
      speedMps: Object.fromEntries(
        Object.entries(rig.speedMps).map(([level, mps]) => [level, mps * times(rig.speedSdShare, z)]),
      ),
    }),
  },
  {
    name: "stops",
    of: "day",
    apply: (rig, z) => ({
      ...rig,
      stopsPerMi: rig.stopsPerMi * times(rig.stopsSdShare ?? DEFAULTS.stopsSdShare, z),
    }),
  },
];

/** How many of the unknowns last beyond a day. */
export const LASTING_UNKNOWNS = UNKNOWNS.filter(({ of }) => of !== "day").length;

/** A rig with several unknowns at once. */
export function applyAll(rig: RideConditions, z: readonly number[]): RideConditions {
  return UNKNOWNS.reduce((changed, { apply }, i) => (z[i] ? apply(changed, z[i]) : changed), rig);
}
