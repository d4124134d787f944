import { nth, DEFAULTS, fixed, aMile, unitToken } from "#core/base";
import { climbOfRide, speedOfRide, type Factor, type Ride } from "#core/bike";

export type Swap = (ride: Ride) => Ride;

/** What takes each factor of a ride to another ride of the same bike, alone. */
export function swapsTo(target: Ride): Readonly<Record<Factor, Swap>> {
  const to = target.conditions;
  const changed =
    (change: Partial<Ride["conditions"]>): Swap =>
    (ride) => ({ ...ride, conditions: { ...ride.conditions, ...change } });
  const { ground } = nth(target.legs, 0);
  return {
    mass: changed({ massKg: to.massKg }),
    wind: changed({ windMps: to.windMps, windFromDeg: to.windFromDeg }),
    air: changed({ tempC: to.tempC, altitudeM: to.altitudeM }),
    speed: (ride) => ({
      ...ride,
      conditions: {
        ...ride.conditions,
        speedMps: Object.fromEntries(
          Object.keys(ride.conditions.speedMps).map((level) => [level, nth(to.speedMps, to.level)]),
        ),
        // What a level gives says nothing of a speed that is held.
        motorW: Object.fromEntries(
          Object.keys(ride.conditions.motorW).map((level) => [level, to.motorW[to.level] ?? Infinity]),
        ),
      },
      restShare: 0,
    }),
    rider: changed({ riderW: to.riderW }),
    stops: changed({ stopsPerMi: to.stopsPerMi }),
    lights: changed({ lightsOn: to.lightsOn }),
    climb: (ride) => ({ ...ride, slopes: target.slopes }),
    ground: (ride) => ({ ...ride, legs: ride.legs.map((leg) => ({ ...leg, ground })) }),
  };
}

const watts = (w: number) => `${fixed(w, 0)} W`;

/** What each factor is of a ride, in words. */
const SAYS: Readonly<Record<Factor, (ride: Ride) => string>> = {
  mass: ({ conditions }) => `${unitToken(conditions.massKg, "mass", 0)} in all`,
  wind: ({ conditions }) =>
    conditions.windMps ? `${unitToken(conditions.windMps, "speed", 0)} of wind` : "no wind",
  climb: (ride) => `climb of ${unitToken(aMile(climbOfRide(ride)), "climbRate", 0)}`,
  air: ({ conditions }) =>
    `${unitToken(conditions.tempC, "temperature", 0)}${conditions.altitudeM ? ` at ${unitToken(conditions.altitudeM, "climb", 0)}` : ""}`,
  speed: (ride) => unitToken(speedOfRide(ride), "speed", 1),
  ground: ({ legs }) => [...new Set(legs.map(({ ground }) => ground))].join(" and "),
  rider: ({ conditions }) => `${watts(conditions.riderW)} from the rider`,
  stops: ({ conditions }) => unitToken(aMile(conditions.stopsPerMi), "stopRate", 1),
  lights: ({ conditions }) => (conditions.lightsOn ? `lights on, ${watts(DEFAULTS.lightsW)}` : "lights off"),
};

/** What a factor is of a ride, in words. */
export const describe = (factor: Factor, ride: Ride): string => SAYS[factor](ride);

/** What a factor is of a ride, in words; what nobody noted says that it is assumed. */
export const saysOf =
  (factor: Factor) =>
  (ride: Ride): string =>
    `${describe(factor, ride)}${ride.assumed?.some((each) => each === factor) ? " (assumed)" : ""}`;

/** "16.5 mph on the test; 15.0 mph under House." or "4 mph of wind (assumed) on the test; no wind under House." */
export function factorSentence(factor: Factor, from: Ride, to: Ride, reference: string): string {
  const outrun =
    factor === "speed" && from.restShare > 0
      ? `, the motor outrun on ${fixed(100 * from.restShare, 0)} % of the way`
      : "";
  return `${saysOf(factor)(from)} on the test${outrun}; ${SAYS[factor](to)} under ${reference}.`;
}
