import { nth, lastOf, DEFAULTS, firstNotBefore, interpolate } from "#core/base";
import { sumTelemetry } from "#core/battery/readings";
import type { LoggedReading, Mark } from "./timeline.ts";

/** Samples of a logger as parallel columns; amps are negative when energy comes back. */
export interface TelemetryColumns {
  readonly logger: string;
  readonly timeS: readonly number[];
  readonly volts: readonly number[];
  readonly amps: readonly number[];
}

/** Least share of a stretch's time that samples must cover before its energy counts as logged. */
const LEAST_COVER = 0.5;

/** First index whose time is not before `time`. */
const firstFrom = (times: readonly number[], time: number): number =>
  firstNotBefore(times.length, (i) => nth(times, i) < time);

/** How well a mark's time is known, s: to the minute when every note is on a whole one, else to a tap's slowness. */
function clockSd(marks: readonly Mark[]): number {
  const whole = marks.every(({ timeS }) => timeS === null || timeS % 60 === 0);
  return whole ? 60 / Math.sqrt(12) : DEFAULTS.tapSd;
}

/**
 * Telemetry as readings, one for each pair of neighbouring marks with times that the samples cover.
 *
 * @param marks of one ride, in order
 */
export function telemetryReadings(
  marks: readonly Mark[],
  telemetry: TelemetryColumns,
): readonly LoggedReading[] {
  const { timeS, volts, amps, logger } = telemetry;
  const [first, last] = [timeS[0], timeS.at(-1)];
  if (first === undefined || last === undefined) return [];
  return marks.slice(1).flatMap((mark, i): readonly LoggedReading[] => {
    const before = nth(marks, i);
    if (before.timeS === null || mark.timeS === null || mark.timeS <= before.timeS) return [];
    const [from, to] = [Math.max(before.timeS, first), Math.min(mark.timeS, last)];
    if (to - from < LEAST_COVER * (mark.timeS - before.timeS)) return [];
    const [start, end] = [firstFrom(timeS, from), firstFrom(timeS, to)];
    const cut = (column: readonly number[]) => [
      interpolate(timeS, column, from),
      ...column.slice(start, end),
      interpolate(timeS, column, to),
    ];
    // Samples that begin late or stop early leave a gap, bridged at the nearest one.
    const { wh, sdWh, gapS } = sumTelemetry(
      [before.timeS, from, ...timeS.slice(start, end), to, mark.timeS],
      [volts[start] ?? lastOf(volts), ...cut(volts), nth(volts, Math.max(0, end - 1))],
      [amps[start] ?? lastOf(amps), ...cut(amps), nth(amps, Math.max(0, end - 1))],
    );
    const power = (3600 * Math.abs(wh)) / (mark.timeS - before.timeS);
    const clockWh = (power * Math.SQRT2 * clockSd(marks)) / 3600;
    if (gapS > (1 - LEAST_COVER) * (mark.timeS - before.timeS)) return [];
    return [
      {
        reading: {
          kind: "telemetry",
          fromMark: before.index,
          toMark: mark.index,
          wh,
          sdWh: Math.hypot(sdWh, clockWh),
          logger,
        },
        rootId: `telemetry ${logger} ${mark.index}`,
        field: null,
        struck: false,
      },
    ];
  });
}
