import { nth, assuming, DEFAULTS } from "#core/base";
import type { RouteSegment, Route } from "#core/route";
import type { Forecast } from "#core/forecast";
import type { LedgerInput, Solved } from "#core/estimation";
import { curveOf } from "#core/battery";
import type { Reading } from "#core/battery/readings";
import type { Bike } from "#core/records";
import type { PlannedReading } from "./method.ts";
import { solve } from "./solved.ts";

/** What a ride is expected to yield: where it is read, and by what. */
export interface ExpectedRide {
  readonly fromM: number;
  readonly toM: number;
  /** Places of readings between, rising, m. */
  readonly checkInsM: readonly number[];
  readonly taken: readonly PlannedReading[];
  readonly fromFull: boolean;
  /** The pack cuts off at the end. */
  readonly untilEmpty: boolean;
  /** Put before each ground, to tell runs apart; empty for the level. */
  readonly variant?: string;
  /** Name of the section, where it is ridden more than once. */
  readonly section?: string;
}

/** Metres in each cell, and up and down, of a stretch of a way. */
function stretch(way: Route, fromM: number, toM: number, cellOf: (piece: RouteSegment) => string) {
  const metres: Record<string, number> = {};
  let [gainM, lossM] = [0, 0];
  let atM = Math.floor(fromM / way.lapM + 1e-9) * way.lapM;
  while (atM < toM - 1e-6)
    for (const piece of way.lap) {
      const inside = Math.min(toM, atM + piece.lengthM) - Math.max(fromM, atM);
      if (inside > 1e-6) {
        const cell = cellOf(piece);
        metres[cell] = (metres[cell] ?? 0) + inside;
        if (piece.slope > 0) gainM += piece.slope * inside;
        else lossM -= piece.slope * inside;
      }
      atM += piece.lengthM;
    }
  return { metres, gainM, lossM };
}

/** Fraction of the pack that is expected to be used at a place. */
const usedOf = (forecast: Forecast, atM: number) => Math.min(1, Math.max(0, forecast.at(atM).used.mean));

/** Where a planned ride is looked at. */
interface Looks {
  /** Metres along the way, rising. */
  readonly marks: readonly number[];
  readonly looked: ReadonlySet<number>;
  readonly barsAt: readonly { readonly bar: number; readonly atM: number }[];
  readonly lowM: number | undefined;
}

/** Readings of the charge at the marks of a planned ride, exactly as forecast. */
function looksAt(forecast: Forecast, bike: Bike, ride: ExpectedRide, { marks, looked }: Looks): Reading[] {
  const { pack } = forecast.input;
  const { fromM, taken } = ride;
  const curve = curveOf(pack);
  const percentAt = (used: number) =>
    bike.counts === "energy" ? 100 * (1 - used) : 100 * curve.chargeAtFraction(used);
  // A look that ends one run and begins the next counts once: each of the two takes half its news.
  const step = Math.max(1, bike.percentStep) * (ride.section === undefined ? 1 : Math.SQRT2);
  return marks.flatMap((atM, mark): Reading[] => {
    const used = usedOf(forecast, atM);
    const edge = mark === 0 || mark === marks.length - 1;
    return [
      ...(mark === 0 && ride.fromFull ? [{ kind: "fullStart", mark } as const] : []),
      ...(taken.includes("percent") && bike.percentStep > 0 && looked.has(atM)
        ? [{ kind: "percent", mark, percent: percentAt(used), step } as const]
        : []),
      ...(taken.includes("rest volts") && edge && pack.seriesCells
        ? [
            {
              kind: "restVolts",
              mark,
              packVolts: pack.seriesCells * curve.voltsAt(curve.chargeAtFraction(used)),
              restMin: DEFAULTS.restMinutes,
              meterStepV: bike.meterStepV || 0.1,
            } as const,
          ]
        : []),
      ...(taken.includes("energy counter") && mark > 0 && looked.has(atM)
        ? [
            {
              kind: "energyCounter",
              fromMark: 0,
              toMark: mark,
              wh: forecast.at(atM).energyWh.mean - forecast.at(fromM).energyWh.mean,
              stepWh: 1,
              meter: "meter",
            } as const,
          ]
        : []),
    ];
  });
}

/** Every reading a planned ride takes: looks, bars as they go, low power, the end, the refill. */
function readingsOf(forecast: Forecast, bike: Bike, ride: ExpectedRide, looks: Looks): Reading[] {
  const { marks, barsAt, lowM } = looks;
  const { toM, taken } = ride;
  const readings = looksAt(forecast, bike, ride, looks);
  const last = marks.length - 1;
  readings.push(
    ...barsAt.map(({ bar, atM }): Reading => ({ kind: "barLost", mark: marks.indexOf(atM), bar })),
  );
  if (lowM !== undefined && lowM < toM) readings.push({ kind: "lowPower", mark: marks.indexOf(lowM) });
  if (ride.untilEmpty) readings.push({ kind: "cutOff", mark: last });
  if (taken.includes("wall meter"))
    readings.push({
      kind: "wallRefill",
      mark: last,
      wallWh: Math.max(1, (forecast.capacity.mean * usedOf(forecast, toM)) / DEFAULTS.chargerEta),
      stepWh: 1,
      charger: "charger",
    });
  return readings;
}

/**
 * The ledger that a planned ride is expected to leave: its legs, and every reading exactly as forecast. Its doubt is then
 * the doubt the method will leave.
 */
function expectedLedger(forecast: Forecast, bike: Bike, rides: readonly ExpectedRide[]): LedgerInput {
  const { pack, rig } = forecast.input;
  const { way } = forecast.along;
  const cells = new Set<string>();
  const laid = rides.map((ride) => {
    const { fromM, toM, taken, variant } = ride;
    const barsAt = taken.includes("bars")
      ? Array.from({ length: Math.max(0, bike.bars - 1) }, (_, i) => ({
          bar: bike.bars - i,
          atM: forecast.where((i + 1) / bike.bars)?.mean ?? Infinity,
        })).filter(({ atM }) => atM > fromM + 1 && atM < toM - 1)
      : [];
    const lowM = ride.untilEmpty ? forecast.where(DEFAULTS.lowPowerAt)?.mean : undefined;
    const inner = [...ride.checkInsM, ...barsAt.map(({ atM }) => atM), ...(lowM === undefined ? [] : [lowM])];
    const marks = [...new Set([fromM, ...inner.filter((atM) => atM > fromM && atM < toM), toM])].sort(
      (a, b) => a - b,
    );
    const legs = marks.slice(1).map((atM, i) => {
      const leg = stretch(
        way,
        nth(marks, i),
        atM,
        ({ ground, level }) => `${variant ?? (level || rig.level)} | ${ground}`,
      );
      Object.keys(leg.metres).forEach((cell) => cells.add(cell));
      return ride.section === undefined ? leg : { ...leg, section: ride.section };
    });
    const looked = new Set([fromM, toM, ...ride.checkInsM]);
    const readings = readingsOf(forecast, bike, ride, { marks, looked, barsAt, lowM });
    return { legs, readings, pack: "only", gauge: "only" };
  });
  return {
    packs: { only: pack },
    gauges: { only: { percentStep: bike.percentStep || 1, counts: bike.counts, bars: bike.bars } },
    massKg: rig.massKg,
    cells: [...cells],
    rides: laid,
  };
}

/** That ledger solved. Readings that are all as forecast would teach it a road more even than any is: its scatter is the usual. */
export function expectedSolved(
  forecast: Forecast,
  bike: Bike,
  rides: readonly ExpectedRide[],
): Solved | null {
  return assuming({ scatterLnSd: 0 }, () => solve(expectedLedger(forecast, bike, rides)));
}
