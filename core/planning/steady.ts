import { DEFAULTS } from "#core/base";
import { segmentCost } from "#core/bike";
import { NOMINAL_CELL_VOLTS } from "#core/battery";
import type { PlannedRoute } from "./record.ts";
import { rideSd, solve } from "./solved.ts";

/** Length of one steady pass, m. */
const PASS_M = 800;

/** Two steady passes, out and back: amps read as they flicker, volts and speed beside them. */
export function steadyYield({ forecast }: PlannedRoute) {
  const { rig, pack } = forecast.input;
  const use = segmentCost(
    { lengthM: PASS_M, slope: 0, ground: "asphalt", level: rig.level, headingDeg: null, leg: 0 },
    { ...rig, stopsPerMi: 0 },
  );
  const volts = (pack.seriesCells ?? 13) * NOMINAL_CELL_VOLTS[pack.chemistry];
  const flickerWh = (volts * DEFAULTS.ampsFlicker * use.s) / 3600;
  const pass = (mark: number) =>
    ({
      kind: "energyCounter",
      fromMark: mark,
      toMark: mark + 1,
      wh: use.wh,
      stepWh: flickerWh,
      meter: "display",
    }) as const;
  const solved = solve({
    packs: { only: pack },
    gauges: { only: { percentStep: 1, counts: "charge", bars: 0 } },
    massKg: rig.massKg,
    cells: ["steady"],
    rides: [
      {
        pack: "only",
        gauge: "only",
        legs: [{ metres: { steady: PASS_M } }, { metres: { steady: PASS_M } }],
        readings: [pass(0), pass(1)],
      },
    ],
  });
  if (!solved) return null;
  const mean = use.wh / PASS_M;
  const sd = Math.hypot(rideSd(solved), (mean * DEFAULTS.speedReadSd) / Math.SQRT2);
  return { whPerM: { mean, sd }, rideS: 2 * use.s, energyWh: 2 * use.wh };
}
