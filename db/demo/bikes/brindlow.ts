import { METRES_PER_MILE } from "#core/base";
import { BIKES } from "../desk.ts";
import { makeTrack } from "../make.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

/** A seed whose ride shows what the demo is to show. */
const BOX_SEED = 31;

const brindlow = BIKES.brindlow.packs.main;
const slick = ({ ride }: Makers): DemoTest => ({
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
    windMps: 3,
    bpm: 108,
    effort: "easy",
    stops: 9,
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
        rode: {
          bike: "brindlow",
          setUp: "slick",
          rider: "maren",
          effort: "easy",
          mph: 13.8,
          windMps: 2.6,
          climbPerMi: 4.1,
          stopsPerMi: 0.45,
          tempC: 19,
          seed: 4,
        },
        display: 1.012,
        start: { ...full, percent: 100 },
        stages: [
          {
            miles: 5,
            level: "town",
            ground: "fine gravel",
            read: two,
            typed: { rangeGuessM: 41 * METRES_PER_MILE },
          },
          {
            miles: 5.2,
            ground: "fine gravel",
            read: two,
            typed: { rangeGuessM: 33 * METRES_PER_MILE },
          },
          { miles: 5, read: two, typed: { rangeGuessM: 22 * METRES_PER_MILE } },
          {
            miles: 5.1,
            read: ["percent", "rest"],
            ends: { kind: "end", reason: "byChoice" },
          },
        ],
      }),
    },
  ],
});

const winter = ({ ride }: Makers): DemoTest => ({
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
    windMps: 6,
    bpm: 108,
    effort: "easy",
    stops: 6,
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
        rode: {
          bike: "brindlow",
          setUp: "knobbly",
          rider: "maren",
          effort: "easy",
          mph: 13.4,
          windMps: 6.4,
          climbPerMi: 4.1,
          stopsPerMi: 0.6,
          tempC: 4,
          seed: 5,
        },
        start: { kind: "start", percent: 88, packVolts: 40.3, restMin: 30, note: "not full at the start" },
        stages: [
          { miles: 5, level: "town", ground: "fine gravel", read: two },
          {
            miles: 5.2,
            read: ["percent", "rest"],
            ends: { kind: "end", reason: "byChoice" },
          },
        ],
      }),
    },
  ],
});

const bold = ({ ride }: Makers): DemoTest => ({
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
        rode: {
          bike: "brindlow",
          setUp: "slick",
          rider: "tove",
          effort: "easy",
          mph: 12.4,
          windMps: 1.5,
          climbPerMi: 2,
          stopsPerMi: 1,
          tempC: 22,
          seed: 6,
        },
        start: { ...full, percent: 100, note: "claims far too much from four miles" },
        stages: [
          { miles: 2, level: "calm", ground: "brick", read: two },
          { miles: 2.1, read: two, ends: { kind: "end", reason: "byChoice" } },
        ],
      }),
    },
  ],
});

const box = ({ standinRides }: Makers): DemoTest => ({
  bike: "brindlow",
  pack: "main",
  setUp: "slick",
  rider: "maren",
  test: test("the box on the marsh hills", "2026-09-27", {
    course: "marsh hills and levee",
    airTempC: 17,
    wind: "light",
    firstLevel: "calm",
    windMps: 2,
    effort: "steady",
    stops: 14,
  }),
  rides: standinRides(
    BOX_SEED,
    { what: "demo", percentStep: 1, meter: "logger", hilly: true, restVolts: 0.3 },
    "2026-09-27",
    brindlow,
    ["calm", "brisk"],
    17,
    { bike: "brindlow", setUp: "slick", rider: "maren", effort: "steady" },
  ),
});

/** The city bike's tests: summer and winter tyres, a claim from four miles, a logger in the hills. */
export const brindlowTests = (makers: Makers): readonly DemoTest[] => [
  slick(makers),
  winter(makers),
  bold(makers),
  box(makers),
];
