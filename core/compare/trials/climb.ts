import { err, ok, type Result, METRES_PER_MILE } from "#core/base";

/** A hill as it was ridden. */
export interface ClimbRun {
  readonly lengthMi: number;
  readonly gainM: number;
  readonly timeS: number;
  readonly energyWh: number;
}

export interface Climb {
  /** Rise over run. */
  readonly gradient: number;
  readonly speedMph: number;
  readonly verticalMPerHour: number;
  readonly whPerVerticalM: number;
}

/**
 * The figures of one climb. Source: docs/method.md.
 *
 * @example 0.62 mi, 47 m up in 184 s with 31 Wh: 4.7 %, 12.1 mph, 920 m/h, 0.66 Wh a vertical metre
 */
export function climbOf({ lengthMi, gainM, timeS, energyWh }: ClimbRun): Result<Climb> {
  if (!(lengthMi > 0)) return err("no-length", "lengthMi", "Type the hill's length in miles.");
  if (!(gainM > 0)) return err("no-gain", "gainM", "Type how many metres the hill rises.");
  if (!(timeS > 0)) return err("no-time", "timeS", "Type the seconds it took.");
  return ok({
    gradient: gainM / (lengthMi * METRES_PER_MILE),
    speedMph: lengthMi / (timeS / 3600),
    verticalMPerHour: gainM / (timeS / 3600),
    whPerVerticalM: energyWh / gainM,
  });
}
