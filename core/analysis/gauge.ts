import { nth } from "#core/base";
import { logEvidence, solveLedger, type LedgerInput } from "#core/estimation";
import type { Timeline, LoggedReading } from "#core/ride/log";
import type { TestRecord } from "#core/records";
import type { CurvePoint, GaugeSeen } from "./types.ts";

/** With fewer percents than this nothing tells what the gauge counts; on longer logs it is not worth its time. */
const LEAST_PERCENTS = 4;
const MOST_MARKS = 120;

/** The evidence for each way a percent may count, the rest of the ledger the same. */
function countsOf(input: LedgerInput, percents: number, marks: number): GaugeSeen["counts"] {
  if (percents < LEAST_PERCENTS || marks > MOST_MARKS) return null;
  const found = (["charge", "energy", "volts"] as const).map((counts) => {
    const gauges = Object.fromEntries(
      Object.entries(input.gauges).map(([name, gauge]) => [name, { ...gauge, counts }]),
    );
    const solved = solveLedger({ ...input, gauges });
    return [counts, solved.ok ? logEvidence(solved.value.parts) : null] as const;
  });
  return found.every(([, log]) => log !== null) ? (Object.fromEntries(found) as GaugeSeen["counts"]) : null;
}

/**
 * What a test shows of its bike's gauge: percents against what was used, rebounds, the way left after the last bar blinked,
 * the percent at cut-off, and the evidence for what it counts.
 *
 * @param counted readings that count; @param curve of the answer, a point a mark
 */
export function gaugeSeen(
  record: TestRecord,
  course: Timeline,
  input: LedgerInput,
  counted: readonly LoggedReading[],
  curve: readonly CurvePoint[],
): GaugeSeen {
  const percents = counted.flatMap(({ reading }) => {
    if (reading.kind !== "percent") return [];
    const { used, distanceM } = nth(curve, reading.mark);
    return [{ shown: reading.percent, used, distanceM }];
  });
  const bodies = course.marks.flatMap(({ entries, distanceM }) =>
    entries.flatMap(({ struck, body }) => (struck ? [] : [{ body, distanceM }])),
  );
  const blink = bodies.find(({ body }) => body.kind === "lastBar");
  const end = bodies.find(({ body }) => body.kind === "end" && body.reason !== "byChoice");
  const cutOff = bodies.find(({ body }) => body.kind === "end" && body.reason === "cutOff")?.body;
  return {
    percents,
    rebounds: course.rebounds,
    blinkToEndM: blink && end ? Math.max(0, end.distanceM - blink.distanceM) : null,
    percentAtCutOff: cutOff && "percent" in cutOff ? (cutOff.percent ?? null) : null,
    counts: record.bike.percentStep > 0 ? countsOf(input, percents.length, course.marks.length) : null,
  };
}
