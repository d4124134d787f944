import { DEFAULTS, fixed, halfWidth95, scale, type Estimate } from "#core/base";
import { expectedShare, packHealth, labelEnergy, type CapacityPoint, type PackHealth } from "#core/battery";
import { measurementsOf, type PackRecord } from "#core/records";
import type { PackLearned } from "./types.ts";

/** A test of the pack by itself, and what it says of it. */
export interface PackTest {
  readonly day: string;
  readonly learned: PackLearned;
}

export interface PackHistory {
  readonly labelWh: number;
  /** Oldest first: the bench, and the rides that measured it, each with its share of the label. */
  readonly points: readonly (CapacityPoint & { readonly share: Estimate })[];
  /** At the latest point. */
  readonly health: PackHealth | null;
  readonly sentence: string;
  /** What age and cycles let expect over the pack's life so far; empty when its age is not known. */
  readonly expected: readonly { readonly day: string; readonly share: Estimate }[];
}

const DAY_MS = 86_400_000;
const STEPS = 12;
const percent = (share: number, digits = 0) => `${fixed(share * 100, digits)} %`;

/** What a bench would find of a pack that gave so much on a ride. */
const asOnBench = (onRide: Estimate): Estimate => ({
  mean: onRide.mean / DEFAULTS.benchToRide,
  sd: Math.hypot(onRide.sd, DEFAULTS.benchToRideSd * onRide.mean) / DEFAULTS.benchToRide,
});

/** A pack's capacity over its life at 25 C, against what its age and cycles let expect; null without a label. */
export function packHistory(pack: PackRecord, tests: readonly PackTest[], today: string): PackHistory | null {
  const label = labelEnergy(pack);
  if (!label.ok) return null;
  const labelWh = label.value;
  const bench = measurementsOf(pack).flatMap(({ on, wh, sdWh }): readonly CapacityPoint[] =>
    on === null
      ? []
      : [
          {
            day: on,
            wh: { mean: wh, sd: Math.max(sdWh ?? 0, DEFAULTS.measuredSdFloor * wh) },
            from: "bench",
          },
        ],
  );
  const rides = tests.flatMap(({ day, learned: { own, learned } }): readonly CapacityPoint[] =>
    own && learned ? [{ day, wh: asOnBench(own), from: "ride" }] : [],
  );
  const points = [...bench, ...rides]
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .map((point) => ({ ...point, share: scale(point.wh, 1 / labelWh) }));
  const last = points.at(-1);
  const health = last ? packHealth(last, labelWh, pack.firstUsedOn, pack.cycles) : null;
  return {
    labelWh,
    points,
    health,
    sentence: sentenceOf(last, health, labelWh),
    expected: expectedOver(pack, today),
  };
}

function expectedOver({ firstUsedOn, cycles }: PackRecord, today: string): PackHistory["expected"] {
  if (firstUsedOn === undefined) return [];
  const [from, to] = [Date.parse(firstUsedOn), Date.parse(today)];
  if (!(to > from)) return [];
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const part = i / STEPS;
    const { mean, sd } = expectedShare((part * (to - from)) / (365.25 * DAY_MS), part * (cycles ?? 0));
    return { day: new Date(from + part * (to - from)).toISOString().slice(0, 10), share: { mean, sd } };
  });
}

/** "633 of 672 Wh, 94 %: inside what 2.6 years and 190 cycles let expect (77 to 95 %), ..." */
function sentenceOf(last: CapacityPoint | undefined, health: PackHealth | null, labelWh: number): string {
  if (!last || !health)
    return "Never measured: a bench test, or a ride with a meter, a wall refill or a run to the end, would tell.";
  const holds = `${fixed(last.wh.mean, 0)} of ${fixed(labelWh, 0)} Wh, ${percent(health.share.mean)}`;
  const { expected, verdict } = health;
  if (!expected || verdict === null)
    return `${holds}. Type when it was first used to see whether that is well for its age.`;
  const span = `${percent(expected.mean - halfWidth95(expected))} to ${percent(expected.mean + halfWidth95(expected))}`;
  const age = `${fixed(expected.years, 1)} years${expected.cycles === null ? "" : ` and ${expected.cycles} cycles`}`;
  const side = verdict === "inside" ? "inside" : verdict === "above" ? "above" : "below";
  return `${holds}: ${side} what ${age} let expect (${span}), if a new pack yields ${percent(DEFAULTS.newDerate)} of its label and loses ${percent(DEFAULTS.fadePerYear, 1)} a year and ${percent(100 * DEFAULTS.fadePerCycle)} in 100 cycles (assumed).`;
}
