import { MPS_PER_MPH } from "#core/quantities";
import type { CourseConditions } from "./course.ts";

/** Conditions that bikes are brought to, so that they can be compared; mass is what is ridden besides the bike. */
export interface Reference {
  readonly name: string;
  readonly carriedKg: number;
  readonly conditions: Omit<CourseConditions, "massKg">;
}

const mph = (speed: number) => speed * MPS_PER_MPH;
const CARRIED_KG = 100;

/** Conditions that each set changes. */
const HOUSE = {
  ground: "asphalt",
  headwindMps: 0,
  gainMPerMi: 10,
  stopsPerMi: 1,
  tempC: 20,
  altitudeM: 0,
  lightsOn: false,
  speedMps: mph(15),
  riderW: 60,
} as const;

/** Reference sets that ship; every normalised figure names the one it is under. */
export const REFERENCES: readonly Reference[] = [
  { name: "House", carriedKg: CARRIED_KG, conditions: HOUSE },
  {
    name: "Throttle flat",
    carriedKg: CARRIED_KG,
    conditions: { ...HOUSE, gainMPerMi: 0, stopsPerMi: 0, speedMps: mph(20), riderW: 0 },
  },
  {
    name: "Hill day",
    carriedKg: CARRIED_KG,
    conditions: { ...HOUSE, gainMPerMi: 40, speedMps: mph(12), riderW: 100 },
  },
  {
    name: "Freezing commute",
    carriedKg: CARRIED_KG,
    conditions: { ...HOUSE, tempC: 0, lightsOn: true, stopsPerMi: 3 },
  },
];

/** A reference for one bike: its mass with what is carried, and no rider power on the throttle. */
export function conditionsFor(
  { carriedKg, conditions }: Reference,
  bikeMassKg: number,
  throttle = false,
): CourseConditions {
  return { ...conditions, massKg: bikeMassKg + carriedKg, ...(throttle && { riderW: 0 }) };
}
