import { BIKES } from "../desk.ts";
import { full, test, two, type DemoTest, type Makers } from "../kit.ts";

/** The way up the tower hill in two sections, with the child seat empty (A) and with sand in it (B), A B B A in one log. */
export function sectionTests({ ride }: Makers): readonly DemoTest[] {
  const run = (side: "A" | "B", lower: number, upper: number, next: "A" | "B" | null) => [
    { miles: 1.1, whPerMi: lower, read: two, typed: { section: "upper" } },
    {
      miles: 0.9,
      whPerMi: upper,
      read: two,
      typed: next ? { section: "lower", side: next } : { note: `last run, ${side}` },
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
          start: { ...full, percent: 100, side: "A", section: "lower" },
          stages: [
            ...run("A", 26.1, 38.4, "B"),
            ...run("B", 30.2, 43.9, "B"),
            ...run("B", 29.6, 44.6, "A"),
            ...run("A", 26.8, 38.9, null),
          ],
        }),
      },
    ],
  };
  return [hill];
}
