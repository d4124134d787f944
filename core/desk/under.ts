import { bikeMass, conditionsOf, slopesOfClimb, type Reference, type Ride } from "#core/bike";
import type { Bike, Drive, SetUp } from "#core/records";

/** What is brought to a reference: a bike, as it is set up, by pedal or throttle. */
export interface Subject {
  readonly bikeId: string;
  readonly bike: Bike;
  readonly setUp: SetUp | null;
  readonly drive: Drive;
}

const LEVEL = "reference";

/** A reference as a ride of one bike: its mass with what is carried, no rider on the throttle, the motor no stronger than it is. */
export function rideUnder({ bike, setUp, drive }: Omit<Subject, "bikeId">, reference: Reference): Ride {
  const { conditions, carriedKg } = reference;
  const { speedMps, ground = "asphalt", gainMPerMi = 0, lossMPerMi = gainMPerMi } = conditions;
  const own = conditionsOf(
    { bike, setUp, rider: null },
    {
      drive,
      riderW: conditions.riderW ?? 0,
      airTempC: conditions.tempC,
      altitudeM: conditions.altitudeM,
      windMps: Math.abs(conditions.headwindMps ?? 0),
      stopsPerMi: conditions.stopsPerMi ?? 0,
    },
    { level: LEVEL, speedMps: { [LEVEL]: speedMps }, sdShare: 0 },
  );
  return {
    conditions: {
      ...own,
      massKg: bikeMass(bike) + carriedKg,
      lightsOn: conditions.lightsOn ?? false,
      motorW: bike.motorW === undefined ? {} : { [LEVEL]: bike.motorW },
    },
    legs: [{ level: LEVEL, ground, distanceM: 1000 }],
    slopes: slopesOfClimb(gainMPerMi, lossMPerMi),
    restShare: 0,
  };
}
