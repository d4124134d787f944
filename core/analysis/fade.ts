import type { Timeline } from "#core/ride/log";
import { fadeOnset } from "#core/analysis/projection";
import { nth, lastOf, METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import type { TestRecord } from "#core/records";
import { seriesAlong } from "./series.ts";
import type { CurvePoint } from "./types.ts";

/** Step of a display's speed, mph: a noted speed hides so much. */
const STEP_MPH = 0.5;
/** A logger's best held speed is taken over so many metres, as the one it stays above a tenth of the time. */
const SPAN_M = 2 * METRES_PER_MILE;
const BEST_OF = 0.9;
/** Before so much of the pack is used no pack fades; and a fall of less than this is the road's. */
const LEAST_USED = 0.5;
const LEAST_FALL = 0.08;

interface Held {
  readonly distanceM: number;
  readonly speedMps: number;
}

/** Speeds as they were noted at check-ins, on the level that was ridden most. */
function noted(course: Timeline): readonly Held[] {
  const metres = new Map<string, number>();
  for (const { level, distanceM } of course.legs) metres.set(level, (metres.get(level) ?? 0) + distanceM);
  const most = [...metres].reduce((far, each) => (each[1] > far[1] ? each : far), ["", -1] as const)[0];
  return course.marks.flatMap(({ index, distanceM, entries }) => {
    const leg = course.legs[Math.max(0, index - 1)];
    const speeds = entries.flatMap(({ struck, body }) =>
      !struck && "speedMps" in body && body.speedMps !== undefined ? [body.speedMps] : [],
    );
    return leg?.level === most && speeds.length ? [{ distanceM, speedMps: Math.max(...speeds) }] : [];
  });
}

/** The best speed held over each stretch of a logger's ride. */
function logged(record: TestRecord, course: Timeline): readonly Held[] {
  const series = seriesAlong(record, course);
  if (!series) return [];
  const spans = new Map<number, number[]>();
  series.distanceM.forEach((distanceM, i) => {
    const speed = series.speedMps[i];
    const span = Math.floor(distanceM / SPAN_M);
    if (speed !== null && speed !== undefined) spans.set(span, [...(spans.get(span) ?? []), speed]);
  });
  return [...spans].map(([span, speeds]) => ({
    distanceM: (span + 0.5) * SPAN_M,
    speedMps: nth(
      [...speeds].sort((a, b) => a - b),
      Math.floor(BEST_OF * (speeds.length - 1)),
    ),
  }));
}

/** Where along the curve a fraction of the pack was used. */
const usedAt = (curve: readonly CurvePoint[], distanceM: number) =>
  curve.find((point) => point.distanceM >= distanceM)?.used.mean ?? 1;

/**
 * Where full power ends by the speeds that were held: the fade test over a logger's, else over those noted, on the level
 * ridden most. Null where there are too few, or the speed does not fade in the second half of the pack.
 */
export function fadeAlong(record: TestRecord, course: Timeline, curve: readonly CurvePoint[]): number | null {
  const byLogger = logged(record, course);
  const held = byLogger.length ? byLogger : noted(course);
  const rising = held.filter(({ distanceM }, i) => i === 0 || distanceM > nth(held, i - 1).distanceM);
  const fade = fadeOnset(
    rising.map(({ distanceM }) => distanceM / METRES_PER_MILE),
    rising.map(({ speedMps }) => speedMps / MPS_PER_MPH),
    STEP_MPH,
  );
  if (!fade.ok || !fade.value.accepted) return null;
  const onsetM = fade.value.onset * METRES_PER_MILE;
  const mean = (values: readonly Held[]) =>
    values.reduce((sum, { speedMps }) => sum + speedMps, 0) / Math.max(1, values.length);
  const before = mean(rising.filter(({ distanceM }) => distanceM <= onsetM));
  const last = lastOf(rising).speedMps;
  return usedAt(curve, onsetM) >= LEAST_USED && last < (1 - LEAST_FALL) * before ? onsetM : null;
}
