import type { PackRecord, TelemetryRecord, Test, TrackRecord } from "#core/records";
import { makeStandin, type Scenario } from "#core/simulator";
import type { BIKES, RIDERS } from "./desk.ts";
import { makeRide, type MadeRide, type RideSpec } from "./make.ts";
import { trulyOf } from "./ridden.ts";

/** The desk's tests of two seasons, of several schools; some flawed on purpose, as the notes say. */
export interface DemoTest {
  readonly bike: keyof typeof BIKES;
  readonly pack: string;
  /** A second pack beside the first. */
  readonly secondPack?: string;
  readonly setUp: string;
  readonly rider: keyof typeof RIDERS | null;
  readonly test: Test;
  readonly rides: readonly {
    readonly name: string;
    readonly made: MadeRide;
    readonly track: TrackRecord | null;
    readonly telemetry?: TelemetryRecord | null;
  }[];
}

/** A start whose charger said done. */
export const full = { kind: "start", chargerDone: true } as const;
/** A test's own fields over the usual ones. */
export const test = (title: string, day: string, rest: Partial<Test>): Test => ({
  title,
  day,
  school: "part charge",
  drive: "pedal",
  wind: "",
  course: "",
  firstLevel: "",
  firstGround: "asphalt",
  pencil: [],
  ...rest,
});

/** What is read where nothing else is said. */
export const two = ["percent"] as const;

/** Makes rides with ids in a row. */
export interface Makers {
  ride(spec: RideSpec): MadeRide;
  /** Rides of the stand-in bike on a pack of the desk. */
  standinRides(
    seed: number,
    scenario: Scenario,
    day: string,
    deskPack: PackRecord,
    levels: readonly [string, string],
    tempC: number,
    who: Parameters<typeof trulyOf>[0],
  ): DemoTest["rides"];
}

/** @param nextId ids in a row, the same at every seeding */
export function makersFrom(nextId: () => string): Makers {
  return {
    ride: (spec) => makeRide(spec, nextId),
    standinRides: (seed, scenario, day, deskPack, levels, tempC, who) => {
      const { chemistry, labelWh = 0, ampHours = 0, seriesCells = 0 } = deskPack;
      const { record } = makeStandin(seed, scenario, {
        pack: { chemistry, labelWh, ampHours, seriesCells },
        levels,
        tempC,
        rig: trulyOf(who),
        startS: Date.parse(`${day}T08:40:00Z`) / 1000,
        nextId,
      });
      return record.rides.map(({ name, entries, track, telemetry }) => ({
        name,
        made: { entries, usedAtEnd: 0 },
        track,
        telemetry,
      }));
    },
  };
}
