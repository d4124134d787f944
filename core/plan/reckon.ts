import { ASSUMED } from "#core/assumptions";
import {
  bailOuts,
  chanceHome,
  turnRound,
  type BailOut,
  type Expected,
  type Rig,
  type TurnRound,
} from "#core/forecast";
import { labelEnergy, temperatureFactor } from "#core/pack";
import { good, type Result } from "#core/problems";
import { fixed, quantityToken, SDS_95, type Uncertain } from "#core/quantities";
import { massOf, usualSpeeds } from "./assume.ts";
import { barsLost, checkInsOf, placeText, type BarForecast, type CheckIn } from "./checkIns.ts";
import { chargeMinutes } from "./charging.ts";
import { clockText, dayAt, daylightAt, latestStart, momentOf } from "./daylight.ts";
import { routeOf, type PlannedRoute, type PlanRecord } from "./record.ts";

/** Something to mend before the ride, or to know. */
export interface Warning {
  readonly code: string;
  /** "stop": the plan cannot be ridden as it is. */
  readonly weight: "stop" | "look";
  readonly sentence: string;
}

/** A value the forecast took, and whether anybody said so. */
export interface Taken {
  readonly what: string;
  readonly value: string;
  /** Assumed, not typed or measured. */
  readonly pencil: boolean;
}

export interface DaylightPlan {
  readonly sunrise: string | null;
  readonly sunset: string | null;
  /** Clock time; null where the sun does not set. */
  readonly latestStart: string | null;
}

export interface ChargePlan {
  readonly minutes: number;
  readonly startMs: number;
  readonly endMs: number;
  readonly startsAt: string;
  readonly startsOn: string;
}

/** Everything a plan's page and its run sheet show. SI units; sentences hold quantities as tokens. */
export interface PlanResults {
  readonly lapM: number;
  readonly laps: number;
  readonly lengthM: number;
  readonly endM: number;
  readonly gainM: number;
  readonly capacity: Uncertain;
  readonly end: Expected;
  /** Wh per metre over the whole ride. */
  readonly whPerM: Uncertain;
  readonly checkIns: readonly CheckIn[];
  readonly barsLost: readonly BarForecast[];
  readonly fullPowerEnds: Uncertain | null;
  readonly emptyAt: Uncertain | null;
  /** Chance to be home at the end with the reserve kept; null where the pack is to be emptied. */
  readonly chanceHome: number | null;
  readonly turn: TurnRound;
  readonly turnRule: string;
  readonly bailOuts: readonly BailOut[];
  /** How far from home the pack may end, m, on a run-down. */
  readonly emptyFromHomeM: number | null;
  readonly startMs: number;
  readonly endMs: Uncertain;
  readonly daylight: DaylightPlan | null;
  readonly charge: ChargePlan | null;
  readonly weather: readonly string[];
  readonly taken: readonly Taken[];
  readonly warnings: readonly Warning[];
  /** What it rests on, in one sentence. */
  readonly restsOn: string;
  /** Curve for drawing: places, expected used and its sd, height of one lap. */
  readonly curve: readonly { readonly atM: number; readonly used: Uncertain }[];
}

const percent = (share: number) => `${fixed(100 * share, 0)} %`;
const energyToken = (wh: number) => quantityToken(wh, "energy", 0);
const plusMinus = ({ mean, sd }: Uncertain) => `${energyToken(mean)} ± ${energyToken(SDS_95 * sd)}`;

const CURVE_POINTS = 60;
const HOT_C = 35;

function turnRule({ forecast, endM }: PlannedRoute, turn: TurnRound, emptied: boolean): string {
  const { way } = forecast.along;
  const reserve = percent(forecast.input.reserve);
  if (emptied)
    return way.closed
      ? `Ride laps until the end counts; home is never further than ${placeText(way.lapM / 2)} away.`
      : "Ride on until the end counts; be fetched from there.";
  if (!way.closed)
    return turn.latestM === null
      ? `All the way: even back to the start ${reserve} would be left.`
      : `Up to ${placeText(turn.latestM)} the pack still brings you back with ${reserve}; beyond it only the lift home does.`;
  if (turn.latestM === null || turn.latestM >= endM)
    return `All of it: home with ${reserve} left is sure from everywhere on the way.`;
  if (way.turnM === null || way.laps > 1)
    return turn.lapsSure === 0
      ? `Go back the way you came by ${placeText(turn.latestM)}: a whole lap is not sure with ${reserve} left.`
      : `Begin no lap after lap ${turn.lapsSure}: the next one is not sure to end at home with ${reserve} left.`;
  return `Turn round by ${placeText(turn.latestM)}, wherever you are: home with ${reserve} left is sure from there, and not beyond.`;
}

function weatherLines(record: PlanRecord, route: PlannedRoute, whPerM: number): readonly string[] {
  const { plan, pack } = record;
  const tempC = plan.packTempC ?? plan.airTempC;
  if (tempC === undefined)
    return ["No temperature typed: the pack is taken as at room warmth. Cold packs yield less."];
  const factor = temperatureFactor(pack.chemistry, tempC);
  const lines: string[] = [];
  if (factor < 0.985) {
    const warmWh = route.forecast.capacity.mean / factor;
    const lostWh = warmWh - route.forecast.capacity.mean;
    lines.push(
      `At ${quantityToken(tempC, "temperature")} the pack yields ${percent(factor)} of what it does warm: ${energyToken(lostWh)} less, about ${placeText(lostWh / whPerM)}. Keep it indoors until you start.`,
    );
  }
  if (tempC <= 0) lines.push("Do not charge it below freezing: let it come to the room first.");
  if (tempC >= HOT_C) lines.push("Heat: water, shade, and let the pack cool before it is charged.");
  return lines;
}

function takenOf(record: PlanRecord, rig: Rig): readonly Taken[] {
  const { plan, rider, setUp, bike, known } = record;
  const mass = massOf(record);
  const level = rig.level;
  const speedFrom = plan.speedMps !== undefined || known.speedMps[level] !== undefined;
  const line = (what: string, value: string, pencil: boolean): Taken => ({ what, value, pencil });
  return [
    line("bike, rider and load", quantityToken(mass.kg, "mass", 0), !mass.weighed),
    line(
      `speed on ${level}`,
      quantityToken(rig.speedMps[level] ?? usualSpeeds(bike)[level] ?? 0, "speed"),
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
      `${quantityToken(rig.windMps, "speed")}${rig.windFromDeg === null ? ", from anywhere" : ""}`,
      plan.windMps === undefined,
    ),
    line("air", quantityToken(rig.tempC, "temperature"), plan.airTempC === undefined),
    line("stops", `${fixed(rig.stopsPerMi, 1)} a mile`, plan.stopsPerMi === undefined),
    line("drag area", `${fixed(rig.cdA, 2)} m2`, true),
    line("rolling on asphalt", fixed(rig.crr, 3), true),
    line("lights", rig.lightsOn ? "on" : "off", setUp === null),
  ];
}

function daylightOf({ plan, course }: PlanRecord, longestS: number): DaylightPlan | null {
  if (course.latitude === undefined || course.longitude === undefined) return null;
  const light = daylightAt(plan.day, plan.utcOffset, course.latitude, course.longitude);
  const at = (ms: number | null) => (ms === null ? null : clockText(ms, plan.utcOffset));
  return {
    sunrise: at(light.sunriseMs),
    sunset: at(light.sunsetMs),
    latestStart: at(latestStart(light, longestS)),
  };
}

function chargeOf({ plan, pack }: PlanRecord): ChargePlan | null {
  if (plan.startPercent < 100) return null;
  const minutes = chargeMinutes(pack, plan.chargeFromPercent, plan.chargerA ?? ASSUMED.chargerA);
  if (minutes === null) return null;
  const endMs = momentOf(plan.day, plan.chargedBy, plan.utcOffset) - 86_400_000;
  const startMs = endMs - minutes * 60_000;
  return {
    minutes,
    startMs,
    endMs,
    startsAt: clockText(startMs, plan.utcOffset),
    startsOn: dayAt(startMs, plan.utcOffset),
  };
}

function warningsOf(
  record: PlanRecord,
  route: PlannedRoute,
  found: Pick<PlanResults, "end" | "turn" | "emptyAt" | "chanceHome" | "daylight" | "capacity">,
  longestS: number,
): readonly Warning[] {
  const { plan, bike, pack, course } = record;
  const { method } = plan;
  const { forecast, endM } = route;
  const warnings: Warning[] = [];
  const warn = (code: string, weight: Warning["weight"], sentence: string) =>
    warnings.push({ code, weight, sentence });
  const { way } = forecast.along;
  if (found.chanceHome !== null && found.end.used.mean > 1) {
    const fits =
      way.closed && way.turnM === null
        ? found.turn.lapsSure > 0
          ? `${found.turn.lapsSure} of ${way.laps} laps fit with the reserve.`
          : "Not even one lap fits with the reserve: choose a shorter course or a lower level."
        : way.laps > 1
          ? `${found.turn.lapsSure} of ${way.laps} laps fit with the reserve.`
          : `Turning round at ${placeText(found.turn.latestM ?? endM / 2)} fits.`;
    warn(
      "pack-cannot",
      "stop",
      `The pack cannot do this: the ride takes ${plusMinus(found.end.energyWh)} and the pack holds ${plusMinus(found.capacity)}, so it ends about ${placeText(found.emptyAt?.mean ?? endM)} in. ${fits}`,
    );
  } else if (found.chanceHome !== null && found.chanceHome < 0.95)
    warn(
      "home-unsure",
      "look",
      `Home with ${percent(plan.reserve)} left is likely on ${percent(found.chanceHome)} of such days only: keep to the turn-round.`,
    );
  if (found.daylight && !plan.dark) {
    const { sunset, latestStart: latest } = found.daylight;
    if (sunset !== null && sunset <= plan.startsAt)
      warn(
        "sunset-before-start",
        "stop",
        `The sun sets at ${sunset}, before this ride starts at ${plan.startsAt}: start by ${latest}, or tick that riding in the dark is meant.`,
      );
    else if (latest !== null && latest < plan.startsAt && longestS > 0)
      warn(
        "dark-before-home",
        "look",
        `Start by ${latest} to be home before dark at ${sunset}: the ride may take ${quantityToken(longestS, "duration")}.`,
      );
  }
  if (method.taken.includes("rest volts") && pack.seriesCells === undefined)
    warn("no-cells", "look", "Rest volts say nothing until the pack's series cells are typed on its page.");
  if (method.taken.includes("bars") && bike.bars === 0 && !method.taken.includes("percent"))
    warn("no-bars", "stop", `${bike.name}'s display has no bars: choose another reading.`);
  if (method.taken.includes("percent") && bike.percentStep === 0 && method.taken.length === 1)
    warn(
      "no-percent",
      "stop",
      `${bike.name}'s display shows no percent: choose bars, rest volts or a meter.`,
    );
  const known = new Set([...bike.levels, ...(bike.throttle ? ["throttle"] : []), ""]);
  for (const level of new Set(course.legs.map((leg) => leg.level)))
    if (!known.has(level))
      warn(
        "unknown-level",
        "look",
        `The course asks for level “${level}”, which ${bike.name} does not have: it is taken as ${forecast.input.rig.level}.`,
      );
  if (!labelEnergy(pack).ok)
    warn("no-label", "stop", "Type the pack's printed Wh, or its Ah and series cells.");
  return warnings;
}

/** How far home can be where a run-down ends: the furthest of the span's laps. */
function emptyFromHome({ forecast }: PlannedRoute, emptyAt: Uncertain | null): number | null {
  const { way } = forecast.along;
  if (emptyAt === null) return null;
  if (!way.closed) return emptyAt.mean;
  const looks = Array.from({ length: 41 }, (_, i) => emptyAt.mean + (i / 20 - 1) * SDS_95 * emptyAt.sd);
  return Math.max(
    ...looks.map((atM) => {
      const inLap = Math.max(0, atM) % way.lapM;
      const fromTurn = way.turnM === null ? way.lapM - inLap : inLap > way.turnM ? way.lapM - inLap : inLap;
      return Math.min(inLap, fromTurn);
    }),
  );
}

/**
 * Reckons a plan: what to expect at each check-in, how far the pack goes, when to turn, when to start and to charge, and
 * what stands against it.
 */
export function reckonPlan(record: PlanRecord): Result<PlanResults> {
  const routed = routeOf(record);
  if (!routed.ok) return routed;
  const route = routed.value;
  const { plan, known } = record;
  const { forecast, endM } = route;
  const { way } = forecast.along;
  const emptied = plan.method.until === "the pack is empty";
  const end = forecast.at(endM);
  const whPerM = { mean: end.energyWh.mean / endM, sd: end.energyWh.sd / endM };
  const turn = turnRound(forecast);
  const emptyAt = forecast.where(1, ASSUMED.cutOffSd);
  const home = emptied || !way.closed ? null : chanceHome(forecast, endM, plan.reserve);
  const longestS = end.timeS.mean + SDS_95 * end.timeS.sd;
  const aDayS = longestS / plan.days;
  const startMs = momentOf(plan.day, plan.startsAt, plan.utcOffset);
  const daylight = daylightOf(record, aDayS);
  const found = { end, turn, emptyAt, chanceHome: home, daylight, capacity: forecast.capacity };
  const { results } = known.knowledge;
  return good({
    lapM: way.lapM,
    laps: way.laps,
    lengthM: way.lengthM,
    endM,
    gainM: way.gainM * (endM / way.lengthM),
    ...found,
    whPerM,
    checkIns: checkInsOf(plan, route),
    barsLost: barsLost(route),
    fullPowerEnds: forecast.where(ASSUMED.lowPowerAt, ASSUMED.lowPowerSd),
    turnRule: turnRule(route, turn, emptied),
    bailOuts: bailOuts(forecast).filter(({ atM }) => atM <= endM),
    emptyFromHomeM: emptied ? emptyFromHome(route, emptyAt) : null,
    startMs,
    endMs: { mean: startMs + (1000 * end.timeS.mean) / plan.days, sd: (1000 * end.timeS.sd) / plan.days },
    charge: chargeOf(record),
    weather: weatherLines(record, route, whPerM.mean),
    taken: takenOf(record, forecast.input.rig),
    warnings: warningsOf(record, route, found, aDayS),
    restsOn:
      results === 0
        ? "It rests on assumptions: no earlier test of this bike has a result."
        : `It rests on ${results === 1 ? "one earlier test" : `${results} earlier tests`} of this bike.`,
    curve: Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
      const atM = (i * endM) / CURVE_POINTS;
      return { atM, used: forecast.at(atM).used };
    }),
  });
}
