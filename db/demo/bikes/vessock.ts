import { BIKES } from "../desk.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

const vessock = BIKES.vessock.packs.main;
const wheel = ({ ride }: Makers): DemoTest => ({
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
    windMps: 4,
    stops: 11,
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
        rode: {
          bike: "vessock",
          setUp: "fat",
          rider: "idris",
          effort: "none",
          mph: 17.4,
          windMps: 4.3,
          climbPerMi: 2,
          stopsPerMi: 0.45,
          tempC: 18,
          seed: 7,
        },
        percentStep: 5,
        bars: 5,
        barsGo: [0.24, 0.47, 0.66, 0.86],
        display: 1.083,
        start: { ...full, bars: 5, percent: 100 },
        stages: [
          { miles: 5, level: "throttle", ground: "fine gravel", read: two },
          { miles: 5, read: two },
          { miles: 5, read: two },
          { miles: 5, read: two },
          {
            miles: 4.4,
            typed: { note: "blinks on the last bar for two miles" },
            ends: { kind: "end", reason: "cutOff" },
          },
        ],
      }),
    },
  ],
});

const hill = ({ ride }: Makers): DemoTest => ({
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
    windMps: 0,
    effort: "easy",
    stops: 8,
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
        rode: {
          bike: "vessock",
          setUp: "firm",
          rider: "maren",
          effort: "easy",
          mph: 10,
          windMps: 0.3,
          climbPerMi: 31.7,
          stopsPerMi: 0.65,
          tempC: 16,
          seed: 8,
        },
        percentStep: 5,
        start: { ...full, percent: 100 },
        stages: [
          { miles: 2.4, level: "boost", ground: "asphalt", read: two, typed: { climbM: 76 } },
          { miles: 2.4, level: "boost", ground: "brick", read: two, typed: { climbM: 152 } },
          {
            miles: 2.4,
            level: "tour",
            ground: "asphalt",
            read: two,
            typed: { climbM: 228 },
          },
          {
            miles: 2.4,
            level: "tour",
            ground: "asphalt",
            read: two,
            typed: { climbM: 304 },
          },
          {
            miles: 2.4,
            read: ["percent", "rest"],
            typed: { climbM: 380 },
            ends: { kind: "end", reason: "byChoice" },
          },
        ],
      }),
    },
  ],
});

/** The fat bike's tests: a run-down with a wrong wheel setting, and the water-tower hill. */
export const vessockTests = (makers: Makers): readonly DemoTest[] => [wheel(makers), hill(makers)];
