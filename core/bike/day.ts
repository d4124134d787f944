import { there, nth, DEFAULTS, MPS_PER_MPH } from "#core/base";
import type { Bike, Drive, Effort } from "#core/records";
import { EFFORT_W, massOf, roadOf, sharesOf, wattsAt, type Riding } from "./assumed.ts";
import type { RideConditions } from "./conditions.ts";

/** What is known of a day's riding, typed or noted; what is left out is assumed. SI units. */
export interface DayNotes {
  readonly drive: Drive;
  readonly effort?: Effort | undefined;
  readonly riderW?: number | undefined;
  readonly bpm?: number | undefined;
  readonly airTempC?: number | undefined;
  readonly altitudeM?: number | undefined;
  readonly windMps?: number | undefined;
  readonly windFromDeg?: number | undefined;
  readonly stopsPerMi?: number | undefined;
}

/** How fast each level is ridden, and how surely that is known, 1 sd as a share. */
export interface Speeds {
  /** Where the route names no level. */
  readonly level: string;
  readonly speedMps: Readonly<Record<string, number>>;
  readonly sdShare: number;
}

/** What the rider puts in: nothing on the throttle, else watts typed, a heart rate on their line, or a word for it. */
function riderPower(
  { drive, riderW, bpm, effort }: DayNotes,
  { rider }: Riding,
): Pick<RideConditions, "riderW" | "riderSdShare" | "habitSdShare" | "riderBy"> {
  if (drive === "throttle") return { riderW: 0, riderSdShare: 0, habitSdShare: 0, riderBy: "throttle" };
  if (riderW !== undefined)
    return { riderW, riderSdShare: DEFAULTS.riderWattsSdShare, habitSdShare: 0, riderBy: "watts" };
  const byHeart = bpm === undefined ? null : wattsAt(rider, bpm);
  if (byHeart !== null)
    return {
      riderW: byHeart,
      riderSdShare: DEFAULTS.riderHeartSdShare,
      habitSdShare: DEFAULTS.riderLineSdShare,
      riderBy: "heart",
    };
  return {
    riderW: EFFORT_W[effort ?? "easy"],
    riderSdShare: effort === undefined ? DEFAULTS.riderGuessSdShare : DEFAULTS.riderDaySdShare,
    habitSdShare: DEFAULTS.riderHabitSdShare,
    riderBy: effort === undefined ? "nothing" : "word",
  };
}

/** The most the motor gives at each level; empty where nothing is known of it. */
function motorPowers(bike: Bike): Readonly<Record<string, number>> {
  if (bike.motorW === undefined) return {};
  const shares = sharesOf(bike);
  return {
    ...Object.fromEntries(bike.levels.map((name, i) => [name, nth(shares, i) * there(bike.motorW)])),
    throttle: bike.motorW,
  };
}

/** Everything the road load takes of a ride, from what is on file and noted, and the assumptions for the rest. */
export function conditionsOf(riding: Riding, day: DayNotes, speeds: Speeds): RideConditions {
  const { bike, setUp } = riding;
  const mass = massOf(riding);
  const throttle = day.drive === "throttle";
  return {
    massKg: mass.kg,
    massSdShare: mass.sdShare,
    ...roadOf(riding),
    assistToMps: bike.assistToMps ?? (throttle ? Infinity : DEFAULTS.assistToMph * MPS_PER_MPH),
    lightsOn: setUp?.lightsOn ?? false,
    tempC: day.airTempC ?? DEFAULTS.packTempC,
    altitudeM: day.altitudeM ?? 0,
    windMps: day.windMps ?? DEFAULTS.windMps,
    windFromDeg: day.windFromDeg ?? null,
    windSdMps: day.windMps === undefined ? DEFAULTS.windGuessSdMps : DEFAULTS.windSdMps,
    stopsPerMi: day.stopsPerMi ?? DEFAULTS.stopsPerMi,
    ...riderPower(day, riding),
    level: speeds.level,
    speedMps: speeds.speedMps,
    speedSdShare: speeds.sdShare,
    motorW: motorPowers(bike),
    unevenN: DEFAULTS.unevenN,
  };
}
