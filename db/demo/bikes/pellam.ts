import { BIKES } from "../desk.ts";
import type { RodeOn } from "../ridden.ts";
import { full, test, type DemoTest, type Makers } from "../kit.ts";

/** A seed whose ride shows what the demo is to show. */
const TOP_UP_SEED = 12;

const pellam = BIKES.pellam.packs.rack;
const weekRides = (
  ride: Makers["ride"],
  capacityWh: number,
  rode: Omit<RodeOn, "seed">,
  days: readonly string[],
  barsGo: readonly number[],
) => {
  let from = 0;
  return days.map((day, i) => {
    const made = ride({
      pack: pellam,
      capacityWh,
      from,
      startsAt: `${day}T07:45:00Z`,
      mph: rode.mph,
      rode: { ...rode, seed: 20 + i },
      bars: 5,
      barsGo,
      start: i === 0 ? { ...full, bars: 5 } : { kind: "start" },
      stages: [
        { miles: 3.4, level: "3", ground: "asphalt", read: ["bars"] },
        { miles: 1.1, level: "3", ground: "brick", read: [] },
        {
          miles: 3.3,
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

const week = ({ ride }: Makers): DemoTest => ({
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
    windMps: 3,
    effort: "steady",
    stops: 62,
  }),
  rides: weekRides(
    ride,
    446,
    {
      bike: "pellam",
      setUp: "light",
      rider: "idris",
      effort: "steady",
      mph: 14,
      windMps: 3,
      climbPerMi: 5,
      stopsPerMi: 2,
      tempC: 14,
    },
    ["2026-05-18", "2026-05-19", "2026-05-20", "2026-05-21"],
    [0.23, 0.42, 0.64, 0.85],
  ),
});

const darkWeek = ({ ride }: Makers): DemoTest => ({
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
    windMps: 5,
    effort: "steady",
    stops: 60,
  }),
  rides: weekRides(
    ride,
    408,
    {
      bike: "pellam",
      setUp: "laden",
      rider: "idris",
      effort: "steady",
      mph: 13.2,
      windMps: 5.6,
      climbPerMi: 5,
      stopsPerMi: 2.5,
      tempC: 5,
    },
    ["2026-11-10", "2026-11-11", "2026-11-12"],
    [0.23, 0.42, 0.64, 0.85],
  ),
});

const topUp = ({ standinRides }: Makers): DemoTest => ({
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
    windMps: 3,
    effort: "steady",
  }),
  rides: standinRides(
    TOP_UP_SEED,
    { what: "demo", percentStep: 0, bars: 5, days: 2, topUp: true, restVolts: 0.3 },
    "2026-10-07",
    pellam,
    ["2", "4"],
    13,
    { bike: "pellam", setUp: "light", rider: "idris", effort: "steady" },
  ),
});

/** The most lent bike's tests: two commute weeks on bars, two market days with a charge between. */
export const pellamTests = (makers: Makers): readonly DemoTest[] => [
  week(makers),
  darkWeek(makers),
  topUp(makers),
];
