import { massOf } from "#core/bike";
import type { TrackProfile } from "#core/ride/distance";
import { settingOf, type Gauge, type LedgerInput } from "#core/estimation";
import { foldLog, buildTimeline, type Timeline, type LoggedReading } from "#core/ride/log";
import {
  yearsBetween,
  resistanceFromPairs,
  resistanceFromSteps,
  type Pack,
  type RestLoadPair,
} from "#core/battery";
import { nth } from "#core/base";
import { checkReading, readingText, type Setting } from "#core/battery/readings";
import { capacityOn, type Bike, type PackRecord, type TestRecord } from "#core/records";
import { byInstrument } from "./instruments.ts";
import { ledgerKnown } from "./known.ts";

/** From a record to what the ledger solves: the course, its cells, and the readings that can be. */

/**
 * A cell's name: level and ground.
 *
 * @example cellName("eco", "asphalt") === "eco | asphalt"
 */
export const cellName = (level: string, ground: string) => `${level} | ${ground}`;

/** The course of a record: its logs folded and laid end to end. */
export function courseOf(record: TestRecord, tracks: readonly (TrackProfile | null)[]): Timeline {
  return buildTimeline(
    record.rides.map(({ entries, telemetry }, ride) => ({
      entries: foldLog(entries),
      track: nth(tracks, ride),
      telemetry,
    })),
    {
      knownFactor: record.knownFactor,
      circumferenceMm: record.bike.wheelCircumferenceM && record.bike.wheelCircumferenceM * 1000,
      meterStepV: record.bike.meterStepV,
      firstLevel:
        record.test.firstLevel ||
        (record.test.drive === "throttle" ? "throttle" : (record.bike.levels[0] ?? "level")),
      firstGround: record.test.firstGround,
    },
  );
}

/** Longest time between a rest and a load reading that make a pair, s. */
const PAIR_S = 120;

/** Volts at rest and under load, noted within two minutes of each other. */
function restLoadPairs(course: Timeline): readonly RestLoadPair[] {
  const seen = course.marks.flatMap(({ entries }) =>
    entries.flatMap(({ body, timeS, struck, struckFields }) =>
      struck ||
      struckFields.includes("packVolts") ||
      !("packVolts" in body) ||
      body.packVolts === undefined ||
      timeS === null
        ? []
        : [{ timeS, volts: body.packVolts, amps: body.amps, loaded: body.underLoad === true }],
    ),
  );
  return seen.flatMap((load) => {
    if (!load.loaded || load.amps === undefined) return [];
    const rest = seen.find(({ loaded, timeS }) => !loaded && Math.abs(timeS - load.timeS) <= PAIR_S);
    return rest ? [{ restVolts: rest.volts, loadVolts: load.volts, amps: load.amps }] : [];
  });
}

/** A pack's resistance: its own, else from the ride's telemetry or pairs; undefined leaves the default. */
function resistanceOf(record: TestRecord, course: Timeline): number | undefined {
  if (record.pack.resistanceOhm !== undefined) return record.pack.resistanceOhm;
  const pairs = resistanceFromPairs(restLoadPairs(course));
  if (pairs.ok) return pairs.value;
  for (const { telemetry } of record.rides) {
    const steps = telemetry && resistanceFromSteps(telemetry.timeS, telemetry.volts, telemetry.amps);
    if (steps?.ok) return steps.value;
  }
  return undefined;
}

/** One pack as it was known on a day: what is measured later leaves it as it was. */
function single(pack: PackRecord, day: string) {
  const { chemistry, labelWh, ampHours, seriesCells, ocv, firstUsedOn, cycles } = pack;
  const measured = capacityOn(pack, day);
  return {
    ...{ chemistry, labelWh, ampHours, seriesCells, ocv, cycles },
    measuredWh: measured?.wh,
    measuredSdWh: measured?.sdWh,
    ageYears: firstUsedOn === undefined ? undefined : Math.max(0, yearsBetween(firstUsedOn, day)),
  };
}

/** The pack of a record as it was on the test: warm or cold, alone or with a second beside it. */
export function packOf(record: TestRecord, course?: Timeline): Pack {
  const packTempC = record.test.packTempC ?? record.test.airTempC;
  return {
    ...single(record.pack, record.test.day),
    packTempC,
    resistanceOhm: course ? resistanceOf(record, course) : record.pack.resistanceOhm,
    ...(record.secondPack && { beside: [{ ...single(record.secondPack, record.test.day), packTempC }] }),
  };
}

/** Name of the one pack and gauge of a test. */
export const ONLY = "only";

/** The display of a bike; one without percent has the usual step, which nothing then uses. */
function gaugeOf({ percentStep, counts, bars }: Bike): Gauge {
  return { percentStep: percentStep || 1, counts, bars };
}

/** The ledger of a course with the readings to count. */
export function ledgerInput(
  record: TestRecord,
  course: Timeline,
  readings: readonly LoggedReading[],
): LedgerInput {
  return {
    packs: { [ONLY]: packOf(record, course) },
    gauges: { [ONLY]: gaugeOf(record.bike) },
    known: ledgerKnown(record, ONLY),
    massKg: massOf(record).kg,
    cells: [...new Set(course.legs.map(({ level, ground }) => cellName(level, ground)))],
    rides: [
      {
        pack: ONLY,
        gauge: ONLY,
        legs: course.legs.map(({ distanceM, level, ground, gainM, lossM, charged }) =>
          charged
            ? { metres: {}, charged }
            : { metres: { [cellName(level, ground)]: distanceM }, gainM, lossM },
        ),
        readings: readings.map(({ reading }) => byInstrument(reading, record.instruments)),
      },
    ],
  };
}

/** What the readings of a record's bike and pack are checked against. */
export function recordSetting(record: TestRecord): Setting {
  return settingOf(
    { packs: { [ONLY]: packOf(record) }, gauges: { [ONLY]: gaugeOf(record.bike) } },
    { pack: ONLY, gauge: ONLY },
  );
}

/** Readings the bike can have shown, and the problems of the others. */
export function possible(
  record: TestRecord,
  course: Timeline,
): { readonly readings: readonly LoggedReading[]; readonly problems: readonly string[] } {
  const setting = recordSetting(record);
  const problems: string[] = [];
  const readings = course.readings.filter(({ reading }) => {
    const found = checkReading(reading, setting);
    problems.push(...found.map(({ sentence }) => `${readingText(reading)} is left out. ${sentence}`));
    return found.length === 0;
  });
  return { readings, problems: [...new Set(problems)] };
}
