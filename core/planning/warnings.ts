import { labelEnergy } from "#core/battery";
import { unitToken } from "#core/base";
import type { PlannedRoute, PlanRecord } from "./record.ts";
import type { PlanResults, Warning } from "./results.ts";
import { percent, placeText, plusMinus } from "./words.ts";

/** What stands against a plan, with numbers and what would do instead. */
export function warningsOf(
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
      `Home with ${percent(plan.reserve)} left is ${found.chanceHome < 0.5 ? "unlikely" : "not sure"} (${percent(found.chanceHome)} of such days): keep to the turn-round.`,
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
        `Start by ${latest} to be home before dark at ${sunset}: the ride may take ${unitToken(longestS, "duration")}.`,
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
      `${bike.name}'s display shows no percent: choose bars, volts at rest or a meter.`,
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
