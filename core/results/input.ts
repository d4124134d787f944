import { ASSUMED } from "#core/assumptions";
import type { TrackProfile } from "#core/distance";
import { ledgerInputSchema, settingOf, type LedgerInput } from "#core/ledger";
import { foldLog, layCourse, type Course, type LoggedReading } from "#core/log";
import { METRES_PER_MILE } from "#core/quantities";
import { checkReading } from "#core/readings";
import type { TestRecord } from "#core/records";
import { readingText } from "./words.ts";

/** From a record to what the ledger solves: the course, its cells, and the readings that can be. */

/** A cell's name: level and ground. */
export const cellName = (level: string, ground: string) => `${level} | ${ground}`;

/** The course of a record: its logs folded and laid end to end. */
export function courseOf(record: TestRecord, tracks: readonly (TrackProfile | null)[]): Course {
  return layCourse(
    record.rides.map(({ entries }, ride) => ({ entries: foldLog(entries), track: tracks[ride]! })),
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

/** Bike, rider and load, or what is assumed of them, kg. */
function systemMass(record: TestRecord): number {
  const { bike, rider, setUp } = record;
  if (bike.massKg === undefined || rider?.massKg === undefined) return ASSUMED.massKg;
  return bike.massKg + rider.massKg + (setUp?.carriedKg ?? 0);
}

/** The ledger of a course with the readings to count. */
export function ledgerInput(
  record: TestRecord,
  course: Course,
  readings: readonly LoggedReading[],
): LedgerInput {
  const { pack, bike, test } = record;
  return ledgerInputSchema.parse({
    pack: { ...pack, packTempC: test.packTempC ?? test.airTempC },
    gauge: { percentStep: bike.percentStep || 1, counts: bike.counts, bars: bike.bars },
    massKg: systemMass(record),
    cells: [...new Set(course.legs.map(({ level, ground }) => cellName(level, ground)))],
    legs: course.legs.map(({ distanceM, level, ground, gainM, lossM }) => ({
      miles: { [cellName(level, ground)]: distanceM / METRES_PER_MILE },
      gainM,
      lossM,
    })),
    readings: readings.map(({ reading }) => reading),
  });
}

/** Readings the bike can have shown, and the problems of the others. */
export function possible(
  record: TestRecord,
  course: Course,
): { readonly readings: readonly LoggedReading[]; readonly problems: readonly string[] } {
  const setting = settingOf({
    pack: record.pack,
    gauge: { percentStep: record.bike.percentStep || 1, counts: record.bike.counts, bars: record.bike.bars },
  });
  const problems: string[] = [];
  const readings = course.readings.filter(({ reading }) => {
    const found = checkReading(reading, setting);
    problems.push(...found.map(({ sentence }) => `${readingText(reading)} is left out. ${sentence}`));
    return found.length === 0;
  });
  return { readings, problems: [...new Set(problems)] };
}
