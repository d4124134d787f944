import type { CheckIn } from "#core/planning";
import type { ExpectedAt } from "#core/forecast";
import { fixed, formatBare, Z_95, type System, type Estimate } from "#core/base";

/** Texts of what is expected at a check-in, each with its span. */
interface SpanText {
  readonly expected: string;
  readonly span: string;
}

/** "1:32", hours and minutes of a duration in seconds. */
export function hoursText(seconds: number): string {
  const minutes = Math.max(0, Math.round(seconds / 60));
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}

export function percentText({ percent }: ExpectedAt): SpanText | null {
  if (!percent) return null;
  return {
    expected: `${fixed(percent.expected, 0)} %`,
    span: `${fixed(percent.low, 0)} to ${fixed(percent.high, 0)}`,
  };
}

export function barsText({ bars }: ExpectedAt): SpanText | null {
  if (!bars) return null;
  const span = bars.low === bars.high ? "" : `${fixed(bars.low, 0)} to ${fixed(bars.high, 0)}`;
  return { expected: fixed(bars.expected, 0), span };
}

export function voltsText({ restVolts }: ExpectedAt): SpanText | null {
  if (!restVolts) return null;
  return {
    expected: `${fixed(restVolts.expected, 1)} V`,
    span: `${fixed(restVolts.low, 1)} to ${fixed(restVolts.high, 1)}`,
  };
}

export function timeText({ timeS }: ExpectedAt): SpanText {
  const half = Z_95 * timeS.sd;
  return {
    expected: hoursText(timeS.mean),
    span: `${hoursText(timeS.mean - half)} to ${hoursText(timeS.mean + half)}`,
  };
}

/** A distance with its span: "42.1", "33 to 51". */
export function distanceSpan(at: Estimate, system: System): SpanText {
  const half = Z_95 * at.sd;
  const bare = (metres: number, decimals: number) =>
    formatBare(Math.max(0, metres), "distance", system, decimals);
  return { expected: bare(at.mean, 1), span: `${bare(at.mean - half, 0)} to ${bare(at.mean + half, 0)}` };
}

/** The least the display may show to go on: percent, else bars, else rest volts. */
export function goOnText({ goOnAbove }: CheckIn): string {
  if (!goOnAbove) return "";
  if (goOnAbove.impossible) return "go home here";
  if (goOnAbove.percent !== null) return `${fixed(goOnAbove.percent, 0)} %`;
  if (goOnAbove.bars !== null) return `${fixed(goOnAbove.bars, 0)} bars`;
  return goOnAbove.restVolts === null ? "" : `${fixed(goOnAbove.restVolts, 1)} V`;
}
