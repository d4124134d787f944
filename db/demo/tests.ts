import type { PackRecord, TelemetryRecord, Test, TestRecord, TrackRecord } from "#core/records";
import { makeStandin, type Scenario } from "#core/standin";
import { BIKES, type RIDERS } from "./desk.ts";
import { makeRide, makeTrack, type MadeRide, type RideSpec } from "./make.ts";

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

const BOX_SEED = 31;
const TOP_UP_SEED = 12;

const full = { kind: "start", chargerDone: true } as const;
const test = (title: string, day: string, rest: Partial<Test>): Test => ({
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

export function demoTests(nextId: () => string): readonly DemoTest[] {
  const ride = (spec: RideSpec) => makeRide(spec, nextId);
  const hauler = BIKES.hauler.packs.main;
  const brindlow = BIKES.brindlow.packs.main;
  const pellam = BIKES.pellam.packs.rack;
  const tarrick = BIKES.tarrick.packs.seat;
  const vessock = BIKES.vessock.packs.main;
  const two = ["percent"] as const;

  const runDown: DemoTest = {
    bike: "hauler",
    pack: "main",
    setUp: "bare",
    rider: "maren",
    test: test("run-down on two levels", "2026-10-18", {
      school: "run-down",
      course: "marsh levee loop",
      airTempC: 15,
      wind: "light, from the west",
      firstLevel: "low",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: hauler,
          capacityWh: 612,
          from: 0.004,
          startsAt: "2026-10-18T09:10:00Z",
          mph: 14,
          start: { ...full, percent: 100, packVolts: 54.4, restMin: 40 },
          stages: [
            { miles: 4.3, whPerMi: 15.2, level: "low", ground: "asphalt", read: two },
            { miles: 4.2, whPerMi: 20.4, level: "high", ground: "fine gravel", read: two },
            {
              miles: 3.1,
              whPerMi: 16.3,
              level: "low",
              ground: "fine gravel",
              read: ["percent", "rest"],
              typed: { note: "stopped at the sluice, 12 min" },
            },
            {
              miles: 3.4,
              whPerMi: 21.4,
              level: "high",
              ground: "fine gravel",
              read: two,
              typed: { percent: 69 },
            },
            { miles: 2.3, whPerMi: 17.2, level: "low", ground: "brick", read: two },
            { miles: 2.7, whPerMi: 16.5, level: "low", ground: "fine gravel", read: two },
            { miles: 3.4, whPerMi: 22.1, level: "high", ground: "fine gravel", read: ["percent", "rest"] },
            { miles: 3.2, whPerMi: 16.1, level: "low", ground: "asphalt", read: two },
            { miles: 3.3, whPerMi: 20.6, level: "high", ground: "asphalt", read: two },
            {
              miles: 2.2,
              whPerMi: 16.1,
              level: "low",
              ground: "asphalt",
              ends: { kind: "lowPower", note: "levels feel the same from here" },
            },
            {
              miles: 1.6,
              whPerMi: 19.4,
              level: "high",
              ground: "asphalt",
              read: two,
              typed: { percent: 2 },
              ends: { kind: "end", reason: "cutOff" },
            },
          ],
        }),
      },
    ],
  };

  const throttle: DemoTest = {
    bike: "hauler",
    pack: "main",
    setUp: "bare",
    rider: "idris",
    test: test("tramway, up and down", "2026-10-25", {
      drive: "throttle",
      course: "disused tramway, up and down",
      airTempC: 12,
      wind: "still",
      firstLevel: "throttle",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: hauler,
          capacityWh: 606,
          from: 0,
          startsAt: "2026-10-25T13:30:00Z",
          mph: 18,
          start: { ...full, percent: 100 },
          stages: [
            { miles: 3, whPerMi: 23.9, level: "throttle", ground: "asphalt", read: two },
            { miles: 3, whPerMi: 24.6, read: two },
            { miles: 3, whPerMi: 23.2, read: two },
            {
              miles: 3.2,
              whPerMi: 24.8,
              read: ["percent", "rest"],
              ends: { kind: "end", reason: "byChoice", note: "turned home before dusk" },
            },
          ],
        }),
      },
    ],
  };

  const slick: DemoTest = {
    bike: "brindlow",
    pack: "main",
    setUp: "slick",
    rider: "maren",
    test: test("levee loop, town level", "2026-06-14", {
      school: "part charge",
      course: "levee loop, two laps",
      airTempC: 19,
      wind: "light, from the sea",
      firstLevel: "town",
      firstGround: "fine gravel",
    }),
    rides: [
      {
        name: "Ride 1",
        track: makeTrack("levee loop, two laps", "2026-06-14T08:20:00Z", 20.4, 13.5, 21),
        made: ride({
          pack: brindlow,
          capacityWh: 391,
          from: 0,
          startsAt: "2026-06-14T08:20:00Z",
          mph: 13.5,
          display: 1.012,
          start: { ...full, percent: 100 },
          stages: [
            { miles: 5, whPerMi: 10.1, level: "town", ground: "fine gravel", read: two },
            { miles: 5.2, whPerMi: 10.8, ground: "fine gravel", read: two },
            { miles: 5, whPerMi: 9.9, read: two },
            {
              miles: 5.1,
              whPerMi: 10.4,
              read: ["percent", "rest"],
              ends: { kind: "end", reason: "byChoice" },
            },
          ],
        }),
      },
    ],
  };

  const winter: DemoTest = {
    bike: "brindlow",
    pack: "main",
    setUp: "knobbly",
    rider: "maren",
    test: test("levee loop, winter tyres", "2026-11-15", {
      school: "fixed course, volts before and after",
      course: "levee loop, one lap",
      airTempC: 4,
      wind: "fresh, from the north",
      firstLevel: "town",
      firstGround: "fine gravel",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: brindlow,
          capacityWh: 357,
          from: 0.13,
          startsAt: "2026-11-15T15:05:00Z",
          mph: 12.6,
          start: { kind: "start", percent: 88, packVolts: 40.3, restMin: 30, note: "not full at the start" },
          stages: [
            { miles: 5, whPerMi: 14.2, level: "town", ground: "fine gravel", read: two },
            {
              miles: 5.2,
              whPerMi: 14.9,
              read: ["percent", "rest"],
              ends: { kind: "end", reason: "byChoice" },
            },
          ],
        }),
      },
    ],
  };

  const bold: DemoTest = {
    bike: "brindlow",
    pack: "main",
    setUp: "slick",
    rider: "tove",
    test: test("the quick one: 70 miles, surely", "2026-07-02", {
      course: "harbour front, out and back",
      airTempC: 22,
      firstLevel: "calm",
      firstGround: "brick",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: brindlow,
          capacityWh: 394,
          from: 0,
          startsAt: "2026-07-02T17:40:00Z",
          mph: 12,
          start: { ...full, percent: 100, note: "claims far too much from four miles" },
          stages: [
            { miles: 2, whPerMi: 7.9, level: "calm", ground: "brick", read: two },
            { miles: 2.1, whPerMi: 8.4, read: two, ends: { kind: "end", reason: "byChoice" } },
          ],
        }),
      },
    ],
  };

  const weekRides = (
    capacityWh: number,
    whPerMi: number,
    days: readonly string[],
    barsGo: readonly number[],
    mph: number,
  ) => {
    let from = 0;
    return days.map((day, i) => {
      const made = ride({
        pack: pellam,
        capacityWh,
        from,
        startsAt: `${day}T07:45:00Z`,
        mph,
        bars: 5,
        barsGo,
        start: i === 0 ? { ...full, bars: 5 } : { kind: "start" },
        stages: [
          { miles: 3.4, whPerMi: whPerMi * 1.02, level: "3", ground: "asphalt", read: ["bars"] },
          { miles: 1.1, whPerMi: whPerMi * 1.12, level: "3", ground: "brick", read: [] },
          {
            miles: 3.3,
            whPerMi: whPerMi * 0.95,
            level: "3",
            ground: "asphalt",
            read: i === days.length - 1 ? ["bars", "rest"] : ["bars"],
            ...(i === days.length - 1 && { ends: { kind: "end", reason: "byChoice" } as const }),
          },
        ],
      });
      from = made.usedAtEnd;
      return { name: ["Monday", "Tuesday", "Wednesday", "Thursday"][i]!, made, track: null };
    });
  };

  const week: DemoTest = {
    bike: "pellam",
    pack: "rack",
    setUp: "light",
    rider: "idris",
    test: test("commute week, days", "2026-05-21", {
      school: "commute week",
      course: "quay to the library and home",
      airTempC: 14,
      wind: "changing",
      firstLevel: "3",
    }),
    rides: weekRides(
      446,
      11.8,
      ["2026-05-18", "2026-05-19", "2026-05-20", "2026-05-21"],
      [0.23, 0.42, 0.64, 0.85],
      13,
    ),
  };

  const darkWeek: DemoTest = {
    bike: "pellam",
    pack: "rack",
    setUp: "laden",
    rider: "idris",
    test: test("commute week, lights and 12 kg", "2026-11-12", {
      school: "commute week",
      course: "quay to the library and home",
      airTempC: 5,
      wind: "fresh, from the west",
      firstLevel: "3",
    }),
    rides: weekRides(408, 14.9, ["2026-11-10", "2026-11-11", "2026-11-12"], [0.23, 0.42, 0.64, 0.85], 12),
  };

  const fold: DemoTest = {
    bike: "tarrick",
    pack: "seat",
    setUp: "only",
    rider: "tove",
    test: test("harbour and back on volts", "2026-08-09", {
      school: "fixed course, volts before and after",
      course: "harbour brick and tramway, out and back",
      airTempC: 21,
      wind: "light",
      firstLevel: "on",
      firstGround: "brick",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: tarrick,
          capacityWh: 233,
          from: 0.09,
          startsAt: "2026-08-09T10:00:00Z",
          mph: 11,
          bars: 4,
          barsGo: [0.27, 0.55, 0.78],
          start: { kind: "start", packVolts: 40.8, restMin: 25, note: "unplugged early" },
          stages: [
            { miles: 2.6, whPerMi: 12.3, level: "on", ground: "brick", read: [] },
            { miles: 3.4, whPerMi: 10.2, level: "on", ground: "asphalt", read: ["rest"] },
            { miles: 3.3, whPerMi: 10.6, level: "on", ground: "asphalt", read: [] },
            {
              miles: 2.6,
              whPerMi: 12.7,
              level: "on",
              ground: "brick",
              read: ["rest"],
              ends: { kind: "end", reason: "byChoice" },
            },
          ],
        }),
      },
    ],
  };

  const wheel: DemoTest = {
    bike: "vessock",
    pack: "main",
    setUp: "fat",
    rider: "idris",
    test: test("levee run-down", "2026-09-06", {
      school: "run-down",
      drive: "throttle",
      course: "salt-marsh levee, end to end, six times",
      airTempC: 18,
      wind: "steady, from the south-west",
      firstLevel: "throttle",
      firstGround: "fine gravel",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: vessock,
          capacityWh: 668,
          from: 0,
          startsAt: "2026-09-06T09:30:00Z",
          mph: 17,
          percentStep: 5,
          bars: 5,
          barsGo: [0.24, 0.47, 0.66, 0.86],
          display: 1.083,
          start: { ...full, bars: 5, percent: 100 },
          stages: [
            { miles: 5, whPerMi: 27.2, level: "throttle", ground: "fine gravel", read: two },
            { miles: 5, whPerMi: 28.1, read: two },
            { miles: 5, whPerMi: 26.6, read: two },
            { miles: 5, whPerMi: 27.5, read: two },
            {
              miles: 4.4,
              whPerMi: 27.9,
              typed: { note: "blinks on the last bar for two miles" },
              ends: { kind: "end", reason: "cutOff" },
            },
          ],
        }),
      },
    ],
  };

  const hill: DemoTest = {
    bike: "vessock",
    pack: "main",
    setUp: "firm",
    rider: "maren",
    test: test("water-tower hill loops", "2026-09-20", {
      school: "vertical",
      course: "water-tower hill, eight loops",
      airTempC: 16,
      wind: "still",
      firstLevel: "boost",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: vessock,
          capacityWh: 664,
          from: 0,
          startsAt: "2026-09-20T10:15:00Z",
          mph: 9,
          percentStep: 5,
          start: { ...full, percent: 100 },
          stages: [
            { miles: 2.4, whPerMi: 33, level: "boost", ground: "asphalt", read: two },
            { miles: 2.4, whPerMi: 34.1, level: "boost", ground: "brick", read: two },
            { miles: 2.4, whPerMi: 32.4, level: "tour", ground: "asphalt", read: two },
            { miles: 2.4, whPerMi: 24.2, level: "tour", ground: "asphalt", read: two },
            {
              miles: 2.4,
              whPerMi: 23.1,
              read: ["percent", "rest"],
              ends: { kind: "end", reason: "byChoice" },
            },
          ],
        }),
      },
    ],
  };

  const standinRides = (
    seed: number,
    scenario: Scenario,
    day: string,
    deskPack: PackRecord,
    levels: readonly [string, string],
    tempC: number,
  ) => {
    const { chemistry, labelWh = 0, ampHours = 0, seriesCells = 0 } = deskPack;
    const { record } = makeStandin(seed, scenario, {
      pack: { chemistry, labelWh, ampHours, seriesCells },
      levels,
      tempC,
      startS: Date.parse(`${day}T08:40:00Z`) / 1000,
      nextId,
    });
    return record.rides.map(({ name, entries, track, telemetry }: TestRecord["rides"][number]) => ({
      name,
      made: { entries, usedAtEnd: 0 },
      track,
      telemetry,
    }));
  };

  const box: DemoTest = {
    bike: "brindlow",
    pack: "main",
    setUp: "slick",
    rider: "maren",
    test: test("the box on the marsh hills", "2026-09-27", {
      course: "marsh hills and levee",
      airTempC: 17,
      wind: "light",
      firstLevel: "calm",
    }),
    rides: standinRides(
      BOX_SEED,
      { what: "demo", percentStep: 1, meter: "logger", hilly: true, restVolts: 0.3 },
      "2026-09-27",
      brindlow,
      ["calm", "brisk"],
      17,
    ),
  };

  const topUp: DemoTest = {
    bike: "pellam",
    pack: "rack",
    setUp: "light",
    rider: "idris",
    test: test("two market days, charged between", "2026-10-08", {
      school: "commute week",
      course: "quay, market and home",
      airTempC: 13,
      wind: "changing",
      firstLevel: "2",
    }),
    rides: standinRides(
      TOP_UP_SEED,
      { what: "demo", percentStep: 0, bars: 5, days: 2, topUp: true, restVolts: 0.3 },
      "2026-10-07",
      pellam,
      ["2", "4"],
      13,
    ),
  };

  const bothPacks: DemoTest = {
    bike: "hauler",
    pack: "main",
    secondPack: "rail",
    setUp: "child",
    rider: "maren",
    test: test("market day on both packs", "2026-11-02", {
      course: "harbour, tower hill and the market, twice",
      airTempC: 11,
      wind: "light, from the west",
      firstLevel: "mid",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: hauler,
          capacityWh: 1030,
          from: 0,
          startsAt: "2026-11-02T08:20:00Z",
          mph: 13,
          start: { ...full, percent: 100, counterWh: 0, meter: "inline meter" },
          stages: [
            {
              miles: 5.1,
              whPerMi: 19.8,
              level: "mid",
              ground: "asphalt",
              read: two,
              typed: { counterWh: 101, meter: "inline meter" },
            },
            {
              miles: 5.3,
              whPerMi: 22.6,
              level: "mid",
              ground: "brick",
              read: two,
              typed: { counterWh: 221, meter: "inline meter" },
            },
            {
              miles: 5.2,
              whPerMi: 20.1,
              level: "mid",
              ground: "asphalt",
              read: two,
              typed: { counterWh: 326, meter: "inline meter" },
            },
            {
              miles: 5.2,
              whPerMi: 22.9,
              level: "mid",
              ground: "brick",
              read: two,
              typed: { counterWh: 445, meter: "inline meter", note: "child asleep, sacks of flour" },
              ends: { kind: "end", reason: "byChoice" },
            },
          ],
        }),
      },
    ],
  };

  return [runDown, throttle, slick, winter, bold, week, darkWeek, fold, wheel, hill, box, topUp, bothPacks];
}
