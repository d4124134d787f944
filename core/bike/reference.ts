import { there, MPS_PER_MPH } from "#core/base";
import type { CourseConditions } from "./course.ts";

/** Conditions that bikes are brought to, so that they can be compared; mass is what is ridden besides the bike. */
export interface Reference {
  readonly name: string;
  /** A change of a set is a new version; a figure keeps the one it was brought to. */
  readonly version: number;
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
  { name: "House", version: 1, carriedKg: CARRIED_KG, conditions: HOUSE },
  {
    name: "Throttle flat",
    version: 1,
    carriedKg: CARRIED_KG,
    conditions: { ...HOUSE, gainMPerMi: 0, stopsPerMi: 0, speedMps: mph(20), riderW: 0 },
  },
  {
    name: "Hill day",
    version: 1,
    carriedKg: CARRIED_KG,
    conditions: { ...HOUSE, gainMPerMi: 40, speedMps: mph(12), riderW: 100 },
  },
  {
    name: "Freezing commute",
    version: 1,
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

/**
 * A reference by its name, and by its version where that is not the first: "House", "House, version 2".
 *
 * @example referenceName({ ...REFERENCES[0], name: "Ours", version: 2 }) === "Ours, version 2"
 */
export const referenceName = ({ name, version }: Reference) =>
  version > 1 ? `${name}, version ${version}` : name;

/** A reference as an address has it: "House@2". */
export const referenceKey = ({ name, version }: Reference) => `${name}@${version}`;

/** Finds what an address names: that version, or the newest of the name. */
export function findReference(all: readonly Reference[], key: string): Reference | null {
  const [, name, version] = there(/^([\s\S]*?)(?:@(\d+))?$/.exec(key));
  return (
    all
      .filter((each) => each.name === name && (version === undefined || each.version === Number(version)))
      .sort((a, b) => b.version - a.version)[0] ?? null
  );
}

/** The newest version of each name, in the order the names first came. */
export function newestReferences(all: readonly Reference[]): readonly Reference[] {
  return [...new Set(all.map(({ name }) => name))].map((name) => there(findReference(all, name)));
}
