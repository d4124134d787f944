import { bisect } from "#core/base";
import { plus, type Sloped } from "./along.ts";
import { onward, type Forecast } from "./forecast.ts";

/** The shorter way home on the pack from a place of the way: on to where the lap closes, or back the way one came. */
export interface WayHome {
  /** On to where the lap closes, on to the end of a one-way course, or back. */
  readonly by: "on" | "end" | "back";
  readonly distanceM: number;
  readonly energy: Sloped;
}

/** Chance at which home counts as sure. */
export const SURE_CHANCE = 0.95;
/** Places looked at between the start and the end of a way. */
const LOOKS = 80;
/** How often the last step is halved. */
const HALVINGS = 12;

/**
 * The way home that takes the least energy: back the way one came, or on. A one-way course ends where somebody fetches one or
 * something runs home from: its end is home as well.
 */
export function wayHome({ along }: Forecast, atM: number): WayHome {
  const { way } = along;
  // A one-way course is ridden once: at its end one is not at its start again.
  const inLap = way.closed ? atM - Math.floor(atM / way.lapM + 1e-9) * way.lapM : Math.min(atM, way.lapM);
  const backWh = along.whBack(inLap);
  const back: WayHome = { by: "back", distanceM: inLap, energy: backWh };
  if (inLap < 1) return back;
  const energy = plus(along.whTo(way.lapM), along.whTo(inLap), -1);
  const on: WayHome = { by: way.closed ? "on" : "end", distanceM: way.lapM - inLap, energy };
  return energy.mean <= backWh.mean ? on : back;
}

/** Chance of being home with a share of the charge kept back, going home from a place. */
export function chanceHome(forecast: Forecast, atM: number, reserve: number): number {
  const home = wayHome(forecast, atM);
  return forecast.chanceWithin(onward(forecast, atM, home.energy), atM + home.distanceM, 1 - reserve);
}

/** First place, going on, from which something no longer holds; null when it holds all the way. */
function firstFailure(toM: number, holds: (atM: number) => boolean): number | null {
  for (let i = 1; i <= LOOKS; i += 1) {
    const atM = (i * toM) / LOOKS;
    if (!holds(atM)) return bisect(atM - toM / LOOKS, atM, HALVINGS, holds)[0];
  }
  return null;
}

/** The turn-round: how far one may go, and what the plan makes of it. */
export interface TurnRound {
  /** Last place from which home with the reserve is sure; null when that holds for the whole way. */
  readonly latestM: number | null;
  /** Whole laps that end at home with the reserve for sure. */
  readonly lapsSure: number;
  /** Last place from which home is sure with nothing kept back; after it the bike may have to be pedalled. */
  readonly pedalAfterM: number | null;
}

export function turnRound(forecast: Forecast): TurnRound {
  const { way } = forecast.along;
  const { reserve } = forecast.input;
  const sure = (kept: number) => (atM: number) => chanceHome(forecast, atM, kept) >= SURE_CHANCE;
  let lapsSure = 0;
  if (way.closed)
    while (
      lapsSure < way.laps &&
      forecast.chanceWithin(
        forecast.along.whTo((lapsSure + 1) * way.lapM),
        (lapsSure + 1) * way.lapM,
        1 - reserve,
      ) >= SURE_CHANCE
    )
      lapsSure += 1;
  return {
    latestM: firstFailure(way.lengthM, sure(reserve)),
    lapsSure,
    pedalAfterM: firstFailure(way.lengthM, sure(0)),
  };
}

/** A place to stop or be fetched, as passed, and how far beyond it one can still ride back to it. */
export interface BailOut {
  readonly name: string;
  readonly kind: string;
  readonly atM: number;
  /** The pack may not last to it at all. */
  readonly beyond: boolean;
  /** Last place beyond it from which the pack surely brings one back to it; null when that holds until the next passing or the end. */
  readonly pedalAfterM: number | null;
}

/** Every passing of a place on the planned way, with the mile after which it is out of the pack's reach. */
export function bailOuts(forecast: Forecast): readonly BailOut[] {
  const { along } = forecast;
  const { way } = along;
  const passings = Array.from({ length: way.laps }, (_, lap) =>
    way.passings.map((passing) => ({ ...passing, inLapM: passing.atM, atM: passing.atM + lap * way.lapM })),
  ).flat();
  return passings.map(({ name, kind, atM, inLapM }, i) => {
    const again = passings.find((other, k) => k > i && other.name === name)?.atM ?? way.lengthM;
    const lapEnds = atM - inLapM + way.lapM;
    const to = Math.min(again, lapEnds);
    const reaches = (placeM: number) => {
      const beyond = placeM - (atM - inLapM);
      const back = plus(along.whBack(beyond), along.whBack(inLapM), -1);
      return forecast.chanceWithin(onward(forecast, placeM, back), placeM + placeM - atM, 1) >= SURE_CHANCE;
    };
    const failure = firstFailure(to - atM, (past) => reaches(atM + past));
    const beyond = !reaches(atM);
    return { name, kind, atM, beyond, pedalAfterM: failure === null || beyond ? null : atM + failure };
  });
}

/** Fraction used above which one goes home at a place instead of on to the next: that leg and the way home from its end, for sure. */
export function goOnBelow(forecast: Forecast, atM: number, nextM: number): number {
  const home = wayHome(forecast, nextM);
  const { along, input } = forecast;
  const ahead = plus(plus(along.whTo(nextM), along.whTo(atM), -1), home.energy);
  return 1 - input.reserve - forecast.takes(ahead, nextM - atM + home.distanceM);
}
