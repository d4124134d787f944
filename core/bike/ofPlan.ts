import { nth, DEFAULTS } from "#core/base";
import type { Bike } from "#core/records";
import { usualSpeeds, type Riding } from "./assumed.ts";
import type { RideConditions } from "./conditions.ts";
import { conditionsOf, type DayNotes } from "./day.ts";

/** What a plan says of its ride. */
export interface PlannedDay extends Omit<DayNotes, "drive" | "altitudeM"> {
  readonly method: Pick<DayNotes, "drive">;
  /** Empty for the bike's middle one. */
  readonly level: string;
  readonly speedMps?: number | undefined;
}

/** The level a plan rides where its course names none. */
export function levelOf({ method, level }: PlannedDay, bike: Bike): string {
  if (method.drive === "throttle") return "throttle";
  return level && bike.levels.includes(level)
    ? level
    : (bike.levels[Math.floor((bike.levels.length - 1) / 2)] ?? "level");
}

/**
 * The conditions of a ride that is planned.
 *
 * @param route whose height above the sea it is
 */
export function conditionsOfPlan(
  plan: PlannedDay,
  riding: Riding,
  route: { readonly altitudeM?: number | undefined },
): RideConditions {
  const level = levelOf(plan, riding.bike);
  const usual = usualSpeeds(riding.bike);
  return conditionsOf(
    riding,
    { ...plan, drive: plan.method.drive, altitudeM: route.altitudeM },
    {
      level,
      speedMps: { ...usual, [level]: plan.speedMps ?? nth(usual, level) },
      sdShare: plan.speedMps === undefined ? DEFAULTS.speedSdShare : DEFAULTS.speedHeldSdShare,
    },
  );
}
