import type { BailOut, ExpectedAt, TurnRound } from "#core/forecast";
import type { Estimate } from "#core/base";
import type { BarForecast, CheckIn } from "./checkIns.ts";
import type { Learning, SpreadPart } from "./learning.ts";

/** Something to mend before the ride, or to know. */
export interface Warning {
  readonly code: string;
  /** "stop": the plan cannot be ridden as it is. */
  readonly weight: "stop" | "look";
  readonly sentence: string;
}

/** A value the forecast took, and whether anybody said so. */
export interface AssumedValue {
  readonly what: string;
  readonly value: string;
  /** Assumed, not typed or measured. */
  readonly pencil: boolean;
  /** As the tests of the desk have it, and not as it is assumed of any bike. */
  readonly learned: boolean;
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
  readonly capacity: Estimate;
  readonly end: ExpectedAt;
  /** Wh per metre over the whole ride. */
  readonly whPerM: Estimate;
  readonly checkIns: readonly CheckIn[];
  readonly barsLost: readonly BarForecast[];
  readonly fullPowerEnds: Estimate | null;
  readonly emptyAt: Estimate | null;
  /** Chance to be home at the end with the reserve kept; null where the pack is to be emptied. */
  readonly chanceHome: number | null;
  readonly turn: TurnRound;
  readonly turnRule: string;
  readonly bailOuts: readonly BailOut[];
  /** How far from home the pack may end, m, on a run-down. */
  readonly emptyFromHomeM: number | null;
  readonly startMs: number;
  readonly endMs: Estimate;
  readonly daylight: DaylightPlan | null;
  readonly charge: ChargePlan | null;
  readonly weather: readonly string[];
  readonly taken: readonly AssumedValue[];
  readonly warnings: readonly Warning[];
  /** What it rests on, in one sentence. */
  readonly restsOn: string;
  /** What its doubt is made of beside pack and road, the largest first. */
  readonly unknowns: readonly SpreadPart[];
  /** What would make it surer without another ride, the most for a minute first. */
  readonly learning: readonly Learning[];
  /** Curve for drawing: places, expected used and its sd, height of one lap. */
  readonly curve: readonly { readonly atM: number; readonly used: Estimate }[];
}
