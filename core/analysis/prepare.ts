import { profileOf, type TrackProfile } from "#core/ride/distance";
import type { LedgerInput } from "#core/estimation";
import type { Timeline, LoggedReading } from "#core/ride/log";
import { labelEnergy } from "#core/battery";
import { err, ok, type Result } from "#core/base";
import type { TestRecord } from "#core/records";
import { courseOf, ledgerInput, packOf, possible } from "./input.ts";

/** A test laid out for the ledger: its course, the readings that can be, and the ledger of those that count. */
export interface PreparedTest {
  readonly tracks: readonly (TrackProfile | null)[];
  readonly course: Timeline;
  /** Readings the bike can have shown, those set aside among them. */
  readonly readings: readonly LoggedReading[];
  readonly problems: readonly string[];
  readonly input: LedgerInput;
}

/**
 * From a record to what the ledger solves.
 *
 * @returns problems when there is nothing to reckon: no distance, no label, no marks
 */
export function prepareTest(record: TestRecord): Result<PreparedTest> {
  const tracks = record.rides.map(({ track }) => track && profileOf(track));
  const course = courseOf(record, tracks);
  if (course.marks.length < 2)
    return err(
      "no-distance",
      "rides",
      "Two check-ins at different distances make a test: add the start and at least one more.",
    );
  const label = labelEnergy(packOf(record));
  if (!label.ok && record.pack.measuredWh === undefined) return label;
  const { readings, problems } = possible(record, course);
  const input = ledgerInput(
    record,
    course,
    readings.filter(({ struck }) => !struck),
  );
  return ok({ tracks, course, readings, problems, input });
}
