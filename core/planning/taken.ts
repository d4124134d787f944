import { massOf, type RideConditions, usualSpeeds } from "#core/bike";
import { fixed, unitToken } from "#core/base";
import type { PlanRecord } from "./record.ts";
import type { AssumedValue } from "./results.ts";

/** What a forecast took, and whether anybody said so. */
export function takenOf(record: PlanRecord, rig: RideConditions): readonly AssumedValue[] {
  const { plan, rider, setUp, bike, known } = record;
  const mass = massOf(record);
  const level = rig.level;
  const speedFrom = plan.speedMps !== undefined || known.speedMps[level] !== undefined;
  const line = (what: string, value: string, pencil: boolean): AssumedValue => ({ what, value, pencil });
  return [
    line("bike, rider and load", unitToken(mass.kg, "mass", 0), !mass.weighed),
    line(
      `speed on ${level}`,
      unitToken(rig.speedMps[level] ?? usualSpeeds(bike)[level] ?? 0, "speed"),
      !speedFrom,
    ),
    line(
      "rider puts in",
      `${fixed(rig.riderW, 0)} W`,
      plan.method.drive !== "throttle" &&
        plan.riderW === undefined &&
        (plan.bpm === undefined || rider?.lowBpm === undefined),
    ),
    line(
      "wind",
      `${unitToken(rig.windMps, "speed")}${rig.windFromDeg === null ? ", from anywhere" : ""}`,
      plan.windMps === undefined,
    ),
    line("air", unitToken(rig.tempC, "temperature"), plan.airTempC === undefined),
    line("stops", `${fixed(rig.stopsPerMi, 1)} a mile`, plan.stopsPerMi === undefined),
    line("drag area", `${fixed(rig.cdA, 2)} m2`, true),
    line("rolling on asphalt", fixed(rig.crr, 3), true),
    line("lights", rig.lightsOn ? "on" : "off", setUp === null),
  ];
}
