import { courseSchema } from "#core/course";
import { knowledgeFrom, PRIOR, type EarlierResult, type Knowledge } from "#core/forecast";
import type { Ground } from "#core/log";
import { METRES_PER_MILE } from "#core/quantities";
import type { Test } from "#core/records";
import type { TestResults } from "#core/results";
import { rigFor, usualSpeeds, type Riding } from "./assume.ts";
import { planSchema } from "./schema.ts";
import { TEMPLATES } from "./templates.ts";

/** A test of the bike that has its result. */
export interface RiddenTest extends Riding {
  readonly test: Test;
  readonly results: Pick<
    TestResults,
    | "best"
    | "parts"
    | "meanSpeedMps"
    | "climbM"
    | "slopes"
    | "distance"
    | "noted"
    | "budget"
    | "packLearned"
    | "capacity"
  >;
}

/** What a bike's earlier tests tell a forecast. */
export interface Known {
  readonly knowledge: Knowledge;
  /** Mean speed at each level and on the throttle, as ridden. */
  readonly speedMps: Readonly<Record<string, number>>;
}

export const NOTHING_KNOWN: Known = { knowledge: PRIOR, speedMps: {} };

/** Shortest leg a course holds; shorter parts of a ride say little of its figure. */
const SHORTEST_M = 20;
const MOST_STOPS_PER_MI = 40;

/** Stops a mile of a way; undefined where nobody counted them. */
function stopsPerMile(stops: number | null, totalM: number): number | undefined {
  return stops === null ? undefined : Math.min(MOST_STOPS_PER_MI, (stops * METRES_PER_MILE) / totalM);
}

/** How a test was ridden, as the forecast would have taken it; null where its parts are not known. Climb nobody measured is none. */
export function riddenAs({ test, results, ...riding }: RiddenTest): EarlierResult | null {
  const ridden = results.parts.filter(({ distanceM }) => distanceM >= SHORTEST_M);
  const totalM = ridden.reduce((sum, { distanceM }) => sum + distanceM, 0);
  if (totalM === 0) return null;
  const gain = (results.climbM ?? results.noted.climbM ?? 0) / totalM;
  const course = courseSchema.parse({
    name: test.title,
    shape: "loop",
    altitudeM: test.altitudeM,
    legs: ridden.map(({ level, ground, distanceM }) => ({
      distanceM: Math.min(distanceM, 500_000),
      level,
      ground: ground as Ground,
      gainM: Math.min(gain, 0.15) * distanceM,
      lossM: Math.min(gain, 0.15) * distanceM,
    })),
  });
  const plan = planSchema.parse({
    title: test.title,
    question: "claim",
    method: { ...TEMPLATES[0]!.method, drive: test.drive },
    day: test.day,
    level: ridden[0]!.level,
    airTempC: test.airTempC,
    windMps: test.windMps ?? results.noted.windMps ?? undefined,
    windFromDeg: test.windFromDeg,
    effort: test.drive === "throttle" ? "none" : (test.effort ?? "easy"),
    riderW: test.riderW,
    bpm:
      test.bpm ?? (results.noted.bpm === null ? undefined : Math.min(220, Math.max(40, results.noted.bpm))),
    stopsPerMi: stopsPerMile(test.stops ?? results.noted.stops, totalM),
  });
  const rig = rigFor(plan, riding, course);
  const usual = { ...usualSpeeds(riding.bike), ...results.noted.levelSpeedMps };
  const speedOf = (level: string) => usual[level] ?? usual[rig.level] ?? rig.speedMps[rig.level]!;
  const mean = totalM / ridden.reduce((sum, { distanceM, level }) => sum + distanceM / speedOf(level), 0);
  const speedMps = results.meanSpeedMps ?? results.noted.clockSpeedMps;
  const faster = speedMps === null ? 1 : speedMps / mean;
  const levels = [...new Set([rig.level, ...ridden.map(({ level }) => level)])];
  return {
    rig: { ...rig, speedMps: Object.fromEntries(levels.map((level) => [level, speedOf(level) * faster])) },
    course,
    whPerM: results.best.value,
  };
}

/** What the earlier tests of a bike say of its road load and of the speeds it is ridden at. */
export function knownFrom(tests: readonly RiddenTest[]): Known {
  const earlier = tests.flatMap((test) => riddenAs(test) ?? []);
  const ridden = new Map<string, { s: number; m: number }>();
  earlier.forEach(({ rig, course }, i) => {
    if (tests[i]?.results.meanSpeedMps === null) return;
    for (const { level, distanceM } of course.legs) {
      const at = ridden.get(level) ?? { s: 0, m: 0 };
      ridden.set(level, { s: at.s + distanceM / rig.speedMps[level]!, m: at.m + distanceM });
    }
  });
  return {
    knowledge: knowledgeFrom(earlier),
    speedMps: Object.fromEntries([...ridden].map(([level, { s, m }]) => [level, m / s])),
  };
}
