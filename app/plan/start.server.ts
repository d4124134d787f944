import { v7 as uuidv7 } from "uuid";
import { dayAt, momentOf, renderUnits, unitToken, type System } from "#core/base";
import { routeOf, type PlanRecord } from "#core/planning";
import { testSchema } from "#core/records";
import type { Rehearsal } from "#core/simulator";
import type { findPlan } from "#db/plans";
import { saveTest } from "#db/tests";

export type PlanLine = NonNullable<Awaited<ReturnType<typeof findPlan>>>;

/** A run-down is practised to beyond its pack's end. */
const BEYOND = 2;

/** What the stand-in rides of a plan: the plan as it is now, and a seed nobody sees. */
export function rehearsalOf(planId: string, record: PlanRecord): Rehearsal {
  const { plan } = record;
  const route = routeOf(record);
  if (!route.ok) throw new Response("Mend the plan first: it cannot be ridden.", { status: 400 });
  const { forecast, endM } = route.value;
  return {
    planId,
    seed: Math.floor(Math.random() * 2 ** 31),
    startMs: momentOf(plan.day, plan.startsAt, plan.zone),
    toM: plan.method.until === "the pack is empty" ? BEYOND * endM : endM,
    input: forecast.input,
  };
}

/** Makes the test a plan becomes: the same bike, pack, day and conditions, with its first ride. Or its rehearsal. */
export async function startTest(
  db: Parameters<typeof saveTest>[0],
  id: string,
  line: PlanLine,
  record: PlanRecord,
  system: System,
  rehearsal?: Rehearsal,
) {
  const { plan, course } = record;
  const { method } = plan;
  const wind =
    plan.windMps === undefined
      ? ""
      : renderUnits(
          `${unitToken(plan.windMps, "speed", 0)}${plan.windFromDeg === undefined ? "" : ` from ${plan.windFromDeg} degrees`}`,
          system,
        );
  const test = testSchema.parse({
    title: plan.title,
    school: method.school === "bench" ? "run-down" : method.school,
    drive: method.drive,
    // A ride is of the day it is begun, in its own zone; a rehearsal of the day that was planned.
    day: rehearsal ? plan.day : dayAt(Date.now(), plan.zone),
    airTempC: plan.airTempC,
    packTempC: plan.packTempC,
    wind,
    course: line.courseId ? course.name : "",
    firstLevel: method.drive === "throttle" ? "throttle" : plan.level,
    firstGround: course.legs[0]!.ground,
    effort: plan.effort,
    riderW: plan.riderW,
    bpm: plan.bpm,
    windMps: plan.windMps,
    windFromDeg: plan.windMps ? plan.windFromDeg : undefined,
    altitudeM: course.altitudeM,
  });
  const { bikeId, packId, setUpId, riderId } = line;
  const links = { bikeId, packId, secondPackId: null, setUpId, riderId };
  const firstRide = { id: uuidv7(), zone: plan.zone };
  await saveTest(db, id, links, test, { firstRide, ...(rehearsal && { rehearsal }) });
  return id;
}
