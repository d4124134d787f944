import type { LedgerInput, LedgerRide } from "#core/estimation";
import type { Side } from "#core/fields";
import type { Timeline } from "#core/ride/log";
import { usableOnRide, type Pack } from "#core/battery";
import { there, nth } from "#core/base";
import type { Reading } from "#core/battery/readings";
import type { TestRecord } from "#core/records";
import type { PreparedTest } from "#core/analysis";

/** A test that takes part in a pair: wholly as A or B, or by the runs its log names. */
export interface PairedTest {
  readonly id: string;
  readonly bikeId: string;
  readonly packId: string;
  readonly secondPackId: string | null;
  readonly record: TestRecord;
  /** Null: the log itself says which stretch is A and which is B. */
  readonly side: Side | null;
}

/** A stretch of one test ridden as A or as B without a break. */
export interface SideRun {
  /** Which ride of the ledger. */
  readonly ride: number;
  readonly side: Side;
  readonly section: string;
  readonly fromMark: number;
  readonly toMark: number;
  readonly metres: number;
}

/** A test laid out, with the pack it shares and how much of that pack's energy the cold left. */
export interface LaidRun {
  readonly test: PairedTest;
  readonly laid: PreparedTest;
  readonly packKey: string;
  /** Usable energy at its own temperature over that of the pack's first test. */
  readonly warmth: number;
}

/** Legs of two runs are the same road when their lengths differ by no more than this share. */
const SAME_LENGTH = 0.1;

/** Packs by name, as their first test had them, and each test's share of that energy. */
export function shareUpPacks(laid: readonly { readonly test: PairedTest; readonly laid: PreparedTest }[]): {
  readonly packs: Readonly<Record<string, Pack>>;
  readonly runs: readonly LaidRun[];
} {
  const packs: Record<string, Pack> = {};
  const runs = laid.map(({ test, laid: each }): LaidRun => {
    const packKey = [test.packId, test.secondPackId ?? []].flat().join("+");
    const pack = nth(Object.values(each.input.packs), 0);
    packs[packKey] ??= pack;
    const [own, first] = [usableOnRide(pack), usableOnRide(nth(packs, packKey))];
    return {
      test,
      laid: each,
      packKey,
      warmth: own.ok && first.ok ? own.value.mean / first.value.mean : 1,
    };
  });
  return { packs, runs };
}

/** An energy reading as the pack's first test would have it: the cold leaves less of the same pack. */
function warmed(reading: Reading, by: number): Reading {
  switch (reading.kind) {
    case "energyCounter":
      return { ...reading, wh: reading.wh / by, stepWh: reading.stepWh / by };
    case "telemetry":
      return { ...reading, wh: reading.wh / by, sdWh: reading.sdWh / by };
    case "chargeCounter":
      return { ...reading, ah: reading.ah / by, stepAh: reading.stepAh / by };
    case "wallRefill":
    case "wallCharge":
      return { ...reading, wallWh: reading.wallWh / by, stepWh: reading.stepWh / by };
    default:
      return reading;
  }
}

/** Whether all tests ran the same road in the same legs, so that legs match by their order. */
function sameRoad(runs: readonly LaidRun[]): boolean {
  const [first] = runs;
  const name = there(first).test.record.test.course.trim();
  if (runs.length < 2 || name === "") return false;
  const lengths = (run: LaidRun) => run.laid.course.legs.map(({ distanceM }) => distanceM);
  const own = lengths(there(first));
  return runs.every((run) => {
    const legs = lengths(run);
    return (
      run.test.record.test.course.trim() === name &&
      legs.length === own.length &&
      legs.every((metres, i) => Math.abs(metres - nth(own, i)) <= SAME_LENGTH * Math.max(metres, nth(own, i)))
    );
  });
}

/** Which side each leg of a run is on; null for legs of neither. */
const sideOf = ({ test }: LaidRun, leg: Timeline["legs"][number]): Side | null => test.side ?? leg.side;

/**
 * The rides of a joint ledger: each side with cells of its own, packs and meters shared, runs of one section tied to one
 * another. Miles and energies are those of the pack as its first test had it, so that the pack's error stays one.
 */
export function jointRides(runs: readonly LaidRun[]): readonly LedgerRide[] {
  const shared = sameRoad(runs);
  return runs.map((run) => {
    const { laid, warmth, packKey, test } = run;
    const ride = nth(laid.input.rides, 0);
    const road = test.record.test.course.trim();
    return {
      pack: packKey,
      gauge: test.bikeId,
      ...(laid.input.massKg !== undefined && { massKg: laid.input.massKg }),
      legs: ride.legs.map((leg, i) => {
        const { section } = nth(laid.course.legs, i);
        const side = sideOf(run, nth(laid.course.legs, i)) ?? "neither";
        const named = section || (shared ? road : "");
        return {
          ...leg,
          ...(leg.gainM !== undefined && { gainM: leg.gainM / warmth }),
          ...(leg.lossM !== undefined && { lossM: leg.lossM / warmth }),
          metres: Object.fromEntries(
            Object.entries(leg.metres).map(([cell, metres]) => [`${side} | ${cell}`, metres / warmth]),
          ),
          ...(named && !leg.charged && { section: named }),
        };
      }),
      readings: ride.readings.map((reading) => warmed(reading, warmth)),
    };
  });
}

/** The joint ledger's input. */
export function jointInput(packs: LedgerInput["packs"], runs: readonly LaidRun[]): LedgerInput {
  const rides = jointRides(runs);
  const cells = new Set(rides.flatMap(({ legs }) => legs.flatMap(({ metres }) => Object.keys(metres))));
  return {
    packs,
    gauges: Object.fromEntries(
      runs.map(({ test, laid }) => [test.bikeId, nth(Object.values(laid.input.gauges), 0)]),
    ),
    cells: [...cells],
    rides: [...rides],
  };
}

/** Stretches ridden as A or B, in each test's order: broken where the side, the section or a charge breaks them. */
export function sideRuns(runs: readonly LaidRun[]): readonly SideRun[] {
  return runs.flatMap((run, ride) => {
    const found: SideRun[] = [];
    let open = false;
    for (const leg of run.laid.course.legs) {
      const side = sideOf(run, leg);
      if (side === null || leg.charged) {
        open = false;
        continue;
      }
      const metres = leg.distanceM;
      const last = found.at(-1);
      if (open && last && last.side === side && last.section === leg.section && last.toMark === leg.from)
        found[found.length - 1] = { ...last, toMark: leg.to, metres: last.metres + metres };
      else found.push({ ride, side, section: leg.section, fromMark: leg.from, toMark: leg.to, metres });
      open = true;
    }
    return found;
  });
}
