import { wayHome, type Forecast } from "#core/forecast";
import { METRES_PER_MILE, unitToken, type Estimate, Z_ONE_SIDED_95 } from "#core/base";

/** Whether to turn: well before it is due, soon, now, or past it, with what to do in one sentence. */
export interface LiveTurn {
  readonly state: "early" | "soon" | "now" | "late";
  /** The way home from here, m. */
  readonly homeM: number;
  readonly sentence: string;
}

/** Nearer than this one is home, m. */
const AT_HOME_M = 200;
/** How far ahead "soon" looks, m. */
const SOON_M = 2 * METRES_PER_MILE;

/**
 * Whether home is still sure from a place of the planned way, with the charge the ledger says was used: the way home and
 * what it takes by the forecast, against what is left once the reserve is kept back.
 *
 * @param atM ridden so far; @param used fraction of the usable energy; @param pace what the ride takes against its plan
 */
export function liveTurn(
  forecast: Forecast,
  atM: number,
  used: Estimate,
  pace: Estimate = { mean: 1, sd: 0 },
): LiveTurn {
  const { along, input } = forecast;
  const { way: course } = along;
  const surelyUsed = used.mean + Z_ONE_SIDED_95 * used.sd;
  const needs = (placeM: number) => {
    const home = wayHome(forecast, placeM);
    // At the pace of this ride: what its plan was off by so far, it will be off by on the way home.
    const takes = pace.mean * forecast.takes(home.energy, home.distanceM);
    return { takes, homeM: home.distanceM, by: home.by };
  };
  const here = needs(atM);
  const aheadM = Math.min(atM + SOON_M, along.way.lengthM);
  const ahead = needs(aheadM);
  const usedAhead =
    surelyUsed + (pace.mean * (along.whTo(aheadM).mean - along.whTo(atM).mean)) / forecast.capacity.mean;
  if (here.homeM < AT_HOME_M) {
    const kept = surelyUsed < 1 - input.reserve;
    return {
      state: kept ? "early" : "soon",
      homeM: here.homeM,
      sentence: `You are ${here.by === "end" ? "at the end of the course" : "where you began"}, ${kept ? "with the reserve." : "and the reserve is being used."}`,
    };
  }
  const home = unitToken(here.homeM, "distance", 1);
  const way = {
    back: "back the way you came",
    on: "on along the course",
    end: "on to the end of the course",
  }[here.by];
  if (surelyUsed + here.takes > 1)
    return {
      state: "late",
      homeM: here.homeM,
      sentence: `Go home now, ${way}, ${home}: the motor may not last. Be ready to pedal home from here.`,
    };
  if (surelyUsed + here.takes > 1 - input.reserve)
    return {
      state: "now",
      homeM: here.homeM,
      sentence: `Go home now, ${way}, ${home}: further on, the reserve goes.`,
    };
  if (aheadM > atM && usedAhead + ahead.takes > 1 - input.reserve)
    return {
      state: "soon",
      homeM: here.homeM,
      sentence: `Turn within ${unitToken(SOON_M, "distance", 0)}: home is ${home} from here.`,
    };
  return {
    state: "early",
    homeM: here.homeM,
    sentence: course.closed
      ? `Home is ${home} from here, and sure with the reserve.`
      : `${here.by === "end" ? "The end of the course" : "The start"} is ${home} from here, and sure with the reserve.`,
  };
}
