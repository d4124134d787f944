import { BIKES } from "../desk.ts";
import { test, type DemoTest, type Makers } from "../kit.ts";

/** The folding bike's test: lamps and a volts menu. */
export function tarrickTests({ ride }: Makers): readonly DemoTest[] {
  const tarrick = BIKES.tarrick.packs.seat;
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
          rode: {
            bike: "tarrick",
            setUp: "only",
            rider: "tove",
            effort: "easy",
            mph: 12,
            windMps: 2,
            climbPerMi: 3,
            stopsPerMi: 1.1,
            tempC: 21,
            seed: 9,
          },
          bars: 4,
          barsGo: [0.27, 0.55, 0.78],
          start: { kind: "start", packVolts: 40.8, restMin: 25, note: "unplugged early" },
          stages: [
            { miles: 2.6, level: "on", ground: "brick", read: [] },
            { miles: 3.4, level: "on", ground: "asphalt", read: ["rest"] },
            { miles: 3.3, level: "on", ground: "asphalt", read: [] },
            {
              miles: 2.6,
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

  return [fold];
}
