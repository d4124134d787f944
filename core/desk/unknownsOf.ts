import { there, DEFAULTS } from "#core/base";
import { GROUND_FACTOR, UNKNOWNS, type Ride, type RideConditions } from "#core/bike";
import type { Ground } from "#core/fields";
import type { SetUp } from "#core/records";
import type { SharedUnknown, UnknownKind } from "./types.ts";

/** A bike as it is set up. */
export interface Mount {
  readonly bikeId: string;
  readonly setUp: Pick<SetUp, "tyreClass" | "posture" | "tyre" | "pressurePa"> | null;
}

const applied = (name: string) => {
  const { apply } = there(UNKNOWNS.find((each) => each.name === name));
  return apply;
};

/** What moves a shared unknown of the road load. */
const MOVES: Partial<Record<UnknownKind, (conditions: RideConditions, z: number) => RideConditions>> = {
  rolling: applied("rolling resistance"),
  tyres: (conditions, z) => applied("rolling resistance")(conditions, TYRES_IN_ROLLING * z),
  drag: applied("drag"),
  motor: applied("motor and drive"),
  model: applied("the bike beside its road load"),
  habit: applied("what an effort means"),
  line: applied("what an effort means"),
};

const GROUND_KEY = "ground:";

/** The rolling of tyres of one class, in the sds of rolling itself. */
export const TYRES_IN_ROLLING = DEFAULTS.tyresSdShare / DEFAULTS.rollingSdShare;

/** Unknowns of a bike and its set-up, and of the grounds it is ridden on; two of one bike share what they have in common. */
export function unknownsOfMount(
  { bikeId, setUp }: Mount,
  grounds: readonly Ground[],
): readonly SharedUnknown[] {
  return [
    { kind: "rolling", key: `rolling:${bikeId}/${setUp?.tyreClass ?? "city"}` },
    { kind: "drag", key: `drag:${bikeId}/${setUp?.posture ?? "upright"}` },
    { kind: "motor", key: `motor:${bikeId}` },
    { kind: "model", key: `model:${bikeId}` },
    ...(setUp?.tyre || setUp?.pressurePa !== undefined
      ? [
          {
            kind: "tyres" as const,
            key: `tyres:${bikeId}/${setUp.tyreClass}/${setUp.tyre}/${setUp.pressurePa ?? ""}`,
          },
        ]
      : []),
    ...[...new Set(grounds)]
      .filter((ground) => ground !== "asphalt")
      .map((ground) => ({ kind: "ground" as const, key: `${GROUND_KEY}${ground}` })),
  ];
}

/** What an effort means with the person who rode; nobody's where it was measured, or nobody pedalled. */
export function unknownsOfRider(
  riderId: string,
  { riderBy }: Pick<RideConditions, "riderBy">,
): readonly SharedUnknown[] {
  if (riderBy === "heart") return [{ kind: "line", key: `line:${riderId}` }];
  if (riderBy === "word" || riderBy === "nothing") return [{ kind: "habit", key: `habit:${riderId}` }];
  return [];
}

/** How much more or less a ground rolls than its factor says. */
function onGround(conditions: RideConditions, key: string, z: number): RideConditions {
  const ground = key.slice(GROUND_KEY.length) as Ground;
  const crr = conditions.crrBy?.[ground] ?? conditions.crr * GROUND_FACTOR[ground];
  return {
    ...conditions,
    crrBy: { ...conditions.crrBy, [ground]: crr * Math.exp(DEFAULTS.groundSdShare * z) },
  };
}

/** A ride with its shared unknowns moved, in sds; those that are none of the road load's change nothing. */
export function withUnknowns(ride: Ride, unknowns: readonly SharedUnknown[], z: readonly number[]): Ride {
  const conditions = unknowns.reduce(
    (now, { kind, key }, i) =>
      !z[i] ? now : kind === "ground" ? onGround(now, key, z[i]) : (MOVES[kind]?.(now, z[i]) ?? now),
    ride.conditions,
  );
  return { ...ride, conditions };
}
