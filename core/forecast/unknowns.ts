import { ASSUMED } from "#core/assumptions";
import type { Rig } from "./rig.ts";

/** Something a forecast does not know, as a standard normal: what one sd of it does to the rig. */
export interface Unknown {
  readonly name: string;
  /** Of the bike, and so learned on its rides; else of the day. */
  readonly of: "bike" | "day";
  readonly apply: (rig: Rig, z: number) => Rig;
}

const times = (share: number, z: number) => Math.exp(share * z);
const bothEfficiencies = Math.SQRT2 * ASSUMED.efficiencySdShare;

/** Everything a forecast's doubt is made of, besides the pack and the road's scatter; the bike's own first. */
export const UNKNOWNS: readonly Unknown[] = [
  {
    name: "rolling resistance",
    of: "bike",
    apply: (rig, z) => {
      const by = times(ASSUMED.rollingSdShare, z);
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
    apply: (rig, z) => ({ ...rig, cdA: rig.cdA * times(ASSUMED.dragSdShare, z) }),
  },
  {
    name: "motor and drive",
    of: "bike",
    apply: (rig, z) => ({ ...rig, etaM: rig.etaM * times(bothEfficiencies, z) }),
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
    apply: (rig, z) => ({ ...rig, windMps: rig.windMps + ASSUMED.windSdMps * z }),
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
      stopsPerMi: rig.stopsPerMi * times(rig.stopsSdShare ?? ASSUMED.stopsSdShare, z),
    }),
  },
];

/** How many of the unknowns are the bike's own. */
export const BIKE_UNKNOWNS = UNKNOWNS.filter(({ of }) => of === "bike").length;

/** A rig with several unknowns at once. */
export function applyAll(rig: Rig, z: readonly number[]): Rig {
  return UNKNOWNS.reduce((changed, { apply }, i) => (z[i] ? apply(changed, z[i]) : changed), rig);
}
