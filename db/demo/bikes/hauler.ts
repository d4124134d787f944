import { BIKES } from "../desk.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

const hauler = BIKES.hauler.packs.main;
const runDown = ({ ride }: Makers): DemoTest => ({
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
    windMps: 3,
    bpm: 108,
    effort: "easy",
    stops: 21,
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
        rode: {
          bike: "hauler",
          setUp: "bare",
          rider: "maren",
          effort: "easy",
          mph: 15,
          windMps: 3.4,
          climbPerMi: 3,
          stopsPerMi: 0.6,
          tempC: 15,
          seed: 1,
        },
        start: { ...full, percent: 100, packVolts: 54.4, restMin: 40 },
        stages: [
          { miles: 4.3, level: "low", ground: "asphalt", read: two },
          { miles: 4.2, level: "high", ground: "fine gravel", read: two },
          {
            miles: 3.1,
            level: "low",
            ground: "fine gravel",
            read: ["percent", "rest"],
            typed: { note: "stopped at the sluice, 12 min" },
          },
          { miles: 3.4, level: "high", ground: "fine gravel", read: two, typed: { percent: 69 } },
          { miles: 2.3, level: "low", ground: "brick", read: two },
          { miles: 2.7, level: "low", ground: "fine gravel", read: two },
          { miles: 3.4, level: "high", ground: "fine gravel", read: ["percent", "rest"] },
          { miles: 3.2, level: "low", ground: "asphalt", read: two },
          { miles: 3.3, level: "high", ground: "asphalt", read: two },
          {
            miles: 2.2,
            level: "low",
            ground: "asphalt",
            typed: { climbM: 96 },
            ends: { kind: "lowPower", note: "levels feel the same from here" },
          },
          {
            miles: 1.6,
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
});

const throttle = ({ ride }: Makers): DemoTest => ({
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
    windMps: 0,
    stops: 8,
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
        rode: {
          bike: "hauler",
          setUp: "bare",
          rider: "idris",
          effort: "none",
          mph: 18.6,
          windMps: 0.4,
          climbPerMi: 3.6,
          stopsPerMi: 0.65,
          tempC: 12,
          seed: 2,
        },
        start: { ...full, percent: 100 },
        stages: [
          { miles: 3, level: "throttle", ground: "asphalt", read: two },
          { miles: 3, read: two },
          { miles: 3, read: two },
          {
            miles: 3.2,
            read: ["percent", "rest"],
            typed: { climbM: 44 },
            ends: { kind: "end", reason: "byChoice", note: "turned home before dusk" },
          },
        ],
      }),
    },
  ],
});

const bothPacks = ({ ride }: Makers): DemoTest => ({
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
    windMps: 3,
    bpm: 108,
    effort: "easy",
    stops: 34,
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
        rode: {
          bike: "hauler",
          setUp: "child",
          rider: "maren",
          effort: "easy",
          mph: 14,
          windMps: 2.6,
          climbPerMi: 5,
          stopsPerMi: 1.6,
          tempC: 11,
          seed: 3,
        },
        start: { ...full, percent: 100, counterWh: 0, meter: "inline meter" },
        stages: [
          {
            miles: 5.1,
            level: "mid",
            ground: "asphalt",
            read: ["percent", "counter"],
          },
          {
            miles: 5.3,
            level: "mid",
            ground: "brick",
            read: ["percent", "counter"],
          },
          {
            miles: 5.2,
            level: "mid",
            ground: "asphalt",
            read: ["percent", "counter"],
          },
          {
            miles: 5.2,
            level: "mid",
            ground: "brick",
            read: ["percent", "counter"],
            typed: { note: "child asleep, sacks of flour" },
            ends: { kind: "end", reason: "byChoice" },
          },
        ],
      }),
    },
  ],
});

/** The cargo bike's tests: a run-down with a typing slip, throttle on the tramway, a market day on both packs with a meter. */
export const haulerTests = (makers: Makers): readonly DemoTest[] => [
  runDown(makers),
  throttle(makers),
  bothPacks(makers),
];
