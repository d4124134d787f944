import { ASSUMED } from "#core/assumptions";
import { METRES_PER_MILE, quantityToken } from "#core/quantities";
import type { Factor, Reference } from "#core/roadload";
import { climbing, type Ride } from "./modelled.ts";

export type Swap = (ride: Ride) => Ride;

/** What takes each factor of a ride to the reference, alone. */
export function swapsTo(
  { conditions, carriedKg }: Reference,
  bikeKg: number,
  throttle: boolean,
): Readonly<Record<Factor, Swap>> {
  const rigged =
    (change: (rig: Ride["rig"]) => Partial<Ride["rig"]>): Swap =>
    (ride) => ({ ...ride, rig: { ...ride.rig, ...change(ride.rig) } });
  const { gainMPerMi = 0, lossMPerMi, ground = "asphalt", speedMps } = conditions;
  return {
    mass: rigged(() => ({ massKg: bikeKg + carriedKg })),
    wind: rigged(() => ({ windMps: Math.abs(conditions.headwindMps ?? 0), windFromDeg: null })),
    air: rigged((rig) => ({
      tempC: conditions.tempC ?? rig.tempC,
      altitudeM: conditions.altitudeM ?? 0,
    })),
    speed: (ride) => ({
      ...ride,
      rig: {
        ...ride.rig,
        speedMps: Object.fromEntries(Object.keys(ride.rig.speedMps).map((level) => [level, speedMps])),
        // What a level gives says nothing of a speed that is held.
        motorW: {},
      },
      restShare: 0,
    }),
    rider: rigged(() => ({ riderW: throttle ? 0 : (conditions.riderW ?? 0) })),
    stops: rigged(() => ({ stopsPerMi: conditions.stopsPerMi ?? 0 })),
    lights: rigged(() => ({ lightsOn: conditions.lightsOn ?? false })),
    climb: (ride) => ({ ...ride, course: climbing(ride.course, gainMPerMi, lossMPerMi), slopes: null }),
    ground: (ride) => ({
      ...ride,
      course: { ...ride.course, legs: ride.course.legs.map((leg) => ({ ...leg, ground })) },
    }),
  };
}

const perMile = (metres: number) => `${metres.toFixed(0)} m a mile`;
const watts = (w: number) => `${w.toFixed(0)} W`;

/** Metres climbed a mile of a way. */
function climbOf({ course: { legs }, slopes }: Ride): number {
  if (slopes)
    return METRES_PER_MILE * slopes.reduce((sum, { share, slope }) => sum + share * Math.max(0, slope), 0);
  const metres = legs.reduce((sum, { distanceM }) => sum + distanceM, 0);
  return (legs.reduce((sum, { gainM }) => sum + gainM, 0) / metres) * METRES_PER_MILE;
}

/** Mean speed over the way's levels, m/s. */
function speedOf({ course: { legs }, rig }: Ride): number {
  const metres = legs.reduce((sum, { distanceM }) => sum + distanceM, 0);
  return (
    metres /
    legs.reduce((sum, { distanceM, level }) => sum + distanceM / (rig.speedMps[level || rig.level] ?? 1), 0)
  );
}

/** What each factor is of a ride, in words. */
const SAYS: Readonly<Record<Factor, (ride: Ride) => string>> = {
  mass: ({ rig }) => `${quantityToken(rig.massKg, "mass", 0)} in all`,
  wind: ({ rig }) => (rig.windMps ? `${quantityToken(rig.windMps, "speed", 0)} of wind` : "no wind"),
  climb: (ride) => `${perMile(climbOf(ride))} of climb`,
  air: ({ rig }) =>
    `${quantityToken(rig.tempC, "temperature", 0)}${rig.altitudeM ? ` at ${quantityToken(rig.altitudeM, "climb", 0)}` : ""}`,
  speed: (ride) => quantityToken(speedOf(ride), "speed", 1),
  ground: ({ course }) => [...new Set(course.legs.map(({ ground }) => ground))].join(" and "),
  rider: ({ rig }) => `${watts(rig.riderW)} from the rider`,
  stops: ({ rig }) => `${rig.stopsPerMi.toFixed(1)} stops a mile`,
  lights: ({ rig }) => (rig.lightsOn ? `lights on, ${watts(ASSUMED.lightsW)}` : "lights off"),
};

/** "16.5 mph on the test, 15.0 mph under House." */
export function factorSentence(factor: Factor, from: Ride, to: Ride, reference: string): string {
  const outrun =
    factor === "speed" && from.restShare > 0
      ? `, the motor outrun on ${(100 * from.restShare).toFixed(0)} % of the way`
      : "";
  return `${SAYS[factor](from)} on the test${outrun}; ${SAYS[factor](to)} under ${reference}.`;
}
