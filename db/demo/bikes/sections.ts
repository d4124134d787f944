import { BIKES } from "../desk.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

/** Sand in the child seat, kg. */
const SAND_KG = 24;

/** The way up the tower hill in two sections, with the child seat empty (A) and with sand in it (B), A B B A in one log. */
export function sectionTests({ ride }: Makers): readonly DemoTest[] {
  const run = (side: "A" | "B", next: "A" | "B" | null) => [
    {
      miles: 1.1,
      level: "throttle",
      upM: 22,
      loadKg: side === "B" ? SAND_KG : 0,
      read: two,
      typed: { section: "upper" },
    },
    {
      miles: 0.9,
      upM: 46,
      loadKg: side === "B" ? SAND_KG : 0,
      read: two,
      typed: next ? { section: "lower", side: next } : { note: `last run, ${side}`, climbM: 272 },
      ...(next ? {} : { ends: { kind: "end", reason: "byChoice" } as const }),
    },
  ];
  const hill: DemoTest = {
    bike: "hauler",
    pack: "main",
    setUp: "bare",
    rider: "idris",
    test: test("tower hill, seat empty and laden", "2026-11-08", {
      school: "sections A/B",
      drive: "throttle",
      course: "water-tower hill, the old way up",
      airTempC: 9,
      wind: "none",
      windMps: 0,
      firstLevel: "throttle",
    }),
    rides: [
      {
        name: "Ride 1",
        track: null,
        made: ride({
          pack: BIKES.hauler.packs.main,
          capacityWh: 598,
          from: 0.005,
          startsAt: "2026-11-08T13:10:00Z",
          mph: 11,
          rode: {
            bike: "hauler",
            setUp: "bare",
            rider: "idris",
            effort: "none",
            mph: 12,
            windMps: 0.2,
            climbPerMi: 0,
            stopsPerMi: 0.2,
            tempC: 9,
            seed: 30,
          },
          start: { ...full, percent: 100, side: "A", section: "lower" },
          stages: [...run("A", "B"), ...run("B", "B"), ...run("B", "A"), ...run("A", null)],
        }),
      },
    ],
  };
  return [hill];
}
