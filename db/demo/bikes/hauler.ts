import { BIKES } from "../desk.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

/** The cargo bike's tests: a run-down with a typing slip, throttle on the tramway, a market day on both packs with a meter. */
export function haulerTests({ ride }: Makers): readonly DemoTest[] {
  const hauler = BIKES.hauler.packs.main;
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
              typed: { climbM: 96 },
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
          start: { ...full, percent: 100 },
          stages: [
            { miles: 3, whPerMi: 23.9, level: "throttle", ground: "asphalt", read: two },
            { miles: 3, whPerMi: 24.6, read: two },
            { miles: 3, whPerMi: 23.2, read: two },
            {
              miles: 3.2,
              whPerMi: 24.8,
              read: ["percent", "rest"],
              typed: { climbM: 44 },
              ends: { kind: "end", reason: "byChoice", note: "turned home before dusk" },
            },
          ],
        }),
      },
    ],
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

  return [runDown, throttle, bothPacks];
}
