import type { Timeline, Mark, LiveEntry } from "#core/ride/log";
import { plainFromPercent, plainFromVolts, type Plain } from "#core/analysis/plain";
import { labelEnergy } from "#core/battery";
import { lastOf, nth, type Result, fixed, METRES_PER_MILE } from "#core/base";
import type { TestRecord } from "#core/records";
import { packOf } from "./input.ts";
import type { PlainResult } from "./types.ts";

type Field = "percent" | "packVolts" | "bars";

function standing(entry: LiveEntry, field: Field): number | undefined {
  if (entry.struck || entry.struckFields.includes(field) || !(field in entry.body)) return undefined;
  return (entry.body as Partial<Record<Field, number>>)[field];
}

interface Ends {
  readonly start: number;
  readonly end: number;
  readonly distanceM: number;
}

const isFullStart = ({ body, struck }: LiveEntry) =>
  !struck && body.kind === "start" && body.chargerDone === true;

/**
 * First and last standing value of a field, with the distance between them.
 *
 * @param ofFull what it is of a full charge, for a full start where it was not noted
 */
function endsOf(marks: readonly Mark[], field: Field, ofFull?: number): Ends | null {
  const restOnly = field === "packVolts";
  const seen = marks.flatMap((mark) =>
    mark.entries.flatMap((entry) => {
      const value = standing(entry, field) ?? (isFullStart(entry) ? ofFull : undefined);
      if (value === undefined || (restOnly && "underLoad" in entry.body && entry.body.underLoad)) return [];
      return [{ value, distanceM: mark.distanceM }];
    }),
  );
  const first = seen[0];
  const last = seen.at(-1);
  if (!first || !last || last.distanceM <= first.distanceM) return null;
  return { start: first.value, end: last.value, distanceM: last.distanceM - first.distanceM };
}

const both = (marks: readonly Mark[], test: (entry: LiveEntry) => boolean) =>
  marks.some(({ entries }) => entries.some((entry) => !entry.struck && test(entry)));

function explained(plain: Result<Plain>, because: string): PlainResult | null {
  if (!plain.ok) return null;
  const { energyWh, whPerMi, projectedRangeMi } = plain.value;
  return { energyWh, whPerM: whPerMi / METRES_PER_MILE, rangeM: projectedRangeMi * METRES_PER_MILE, because };
}

/**
 * What paper would give: label energy for a full run-down; else the drop in percent, in rest volts, or in bars, in that
 * order, over the distance between the first and the last such reading. Null with a charge in between.
 */
export function plainResult(record: TestRecord, { marks, legs }: Timeline): PlainResult | null {
  const label = labelEnergy(packOf(record));
  if (!label.ok || legs.some(({ charged }) => charged)) return null;
  const labelWh = label.value;
  const from = (ends: Ends, startPercent: number, endPercent: number) =>
    plainFromPercent({ startPercent, endPercent, labelWh, distanceMi: ends.distanceM / METRES_PER_MILE });
  const full = both(marks, isFullStart);
  const dead = both(marks, ({ body }) => body.kind === "end" && body.reason === "cutOff");
  const whole = marks.length ? lastOf(marks).distanceM - nth(marks, 0).distanceM : 0;
  if (full && dead)
    return explained(
      from({ start: 100, end: 0, distanceM: whole }, 100, 0),
      `the label's ${fixed(labelWh, 0)} Wh over the miles, full to cut-off`,
    );
  const percent = endsOf(marks, "percent", 100);
  const byPercent =
    percent &&
    explained(
      from(percent, percent.start, percent.end),
      `${percent.start} to ${percent.end} % of the label's ${fixed(labelWh, 0)} Wh`,
    );
  if (byPercent) return byPercent;
  const volts = endsOf(marks, "packVolts");
  const cells = record.pack.seriesCells;
  const byVolts =
    volts &&
    cells !== undefined &&
    explained(
      plainFromVolts({
        chemistry: record.pack.chemistry,
        seriesCells: cells,
        startVolts: volts.start,
        endVolts: volts.end,
        labelWh,
        distanceMi: volts.distanceM / METRES_PER_MILE,
      }),
      `${volts.start} to ${volts.end} V on the cell curve, of the label's ${fixed(labelWh, 0)} Wh`,
    );
  if (byVolts) return byVolts;
  const bars = endsOf(marks, "bars", record.bike.bars) ?? lostBars(marks, record.bike.bars);
  if (!bars || record.bike.bars === 0) return null;
  const share = (count: number) => (100 * count) / record.bike.bars;
  return explained(
    from(bars, share(bars.start), share(bars.end)),
    `${bars.start} to ${bars.end} of ${record.bike.bars} bars, as if equal, of the label's ${fixed(labelWh, 0)} Wh`,
  );
}

/** A start at full, then the last bar seen to go: the drop in whole bars. */
function lostBars(marks: readonly Mark[], count: number): Ends | null {
  const first = marks[0];
  const lost = [...marks]
    .reverse()
    .flatMap((mark) =>
      mark.entries.flatMap(({ body, struck }) =>
        body.kind === "barLost" && !struck ? [{ left: body.bar - 1, distanceM: mark.distanceM }] : [],
      ),
    )[0];
  if (!first || !lost || !first.entries.some(isFullStart) || lost.distanceM <= first.distanceM) return null;
  return { start: count, end: lost.left, distanceM: lost.distanceM - first.distanceM };
}
