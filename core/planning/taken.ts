import { applyAll, massOf, type RideConditions, usualSpeeds } from "#core/bike";
import { fixed, aMile, unitToken } from "#core/base";
import type { PlanRecord } from "./record.ts";
import type { AssumedValue } from "./results.ts";

/** A change of a value that earlier tests told is named from here on, as a share. */
const TOLD = 0.005;

/** A share more or less: "26 % less", "as calculated". */
const differsText = (share: number) =>
  Math.abs(share) < TOLD
    ? "as calculated"
    : `${fixed(100 * Math.abs(share), 0)} % ${share > 0 ? "more" : "less"}`;

/**
 * What a forecast rode with, and whether anybody said so: what earlier tests told of bike and rider is in it.
 *
 * @param assumed the conditions before anything that was learned
 */
export function takenOf(record: PlanRecord, assumed: RideConditions): readonly AssumedValue[] {
  const { mean, results } = record.known.knowledge;
  const rig = applyAll(assumed, mean);
  const learned = (is: number, was: number) => results > 0 && Math.abs(is / was - 1) > TOLD;
  const { plan, rider, setUp, bike, known } = record;
  const mass = massOf(record);
  const level = rig.level;
  const speedFrom = plan.speedMps !== undefined || known.speedMps[level] !== undefined;
  const line = (what: string, value: string, pencil: boolean, isLearned = false): AssumedValue => ({
    ...{ what, value, pencil },
    learned: isLearned,
  });
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
      learned(rig.riderW, assumed.riderW),
    ),
    line(
      "wind",
      `${unitToken(rig.windMps, "speed")}${rig.windFromDeg === null ? ", from anywhere" : ""}`,
      plan.windMps === undefined,
    ),
    line("air", unitToken(rig.tempC, "temperature"), plan.airTempC === undefined),
    line("stops", unitToken(aMile(rig.stopsPerMi), "stopRate", 1), plan.stopsPerMi === undefined),
    line("drag area", `${fixed(rig.cdA, 2)} m2`, true, learned(rig.cdA, assumed.cdA)),
    line("rolling on asphalt", fixed(rig.crr, 4), true, learned(rig.crr, assumed.crr)),
    line(
      "motor and drive pass on",
      `${fixed(100 * rig.etaM * rig.etaD, 0)} %`,
      true,
      learned(rig.etaM, assumed.etaM),
    ),
    ...(results > 0
      ? [line("used beside what was calculated", differsText((rig.energyFactor ?? 1) - 1), true, true)]
      : []),
    line("lights", rig.lightsOn ? "on" : "off", setUp === null),
  ];
}
