import { DEFAULTS, unitToken } from "#core/base";
import type { Ground } from "#core/fields";
import { EFFORT_W, massOf, type Riding, roadOf, type RoadRow } from "#core/bike";
import type { Test } from "#core/records";
import type { SteadyUse } from "#core/analysis";

/** A logger's steady stretches as rows for the fit of the bike's road load. */
export function steadyRows(test: Test, riding: Riding, steady: readonly SteadyUse[]): readonly RoadRow[] {
  const riderW = test.drive === "throttle" ? 0 : (test.riderW ?? EFFORT_W[test.effort ?? "easy"]);
  return steady.map(({ level, ground, speedMps, whPerM, manyWays }) => ({
    name: `${test.title}: ${ground}, ${level}, ${unitToken(speedMps, "speed", 1)}`,
    state: {
      massKg: massOf(riding).kg,
      speedMps,
      ground: ground as Ground,
      tempC: test.airTempC ?? DEFAULTS.packTempC,
      riderW,
      lightsOn: riding.setUp?.lightsOn ?? false,
      ...roadOf(riding),
    },
    measured: whPerM,
    oneWay: !manyWays,
    riderSdW: riderW * DEFAULTS.riderSdShare,
  }));
}
