import { foldLog, type Entry, type LiveEntry } from "#core/ride/log";
import { lastOf, nth, METRES_PER_MILE, unitToken, Z_95, type DimensionName, type Estimate } from "#core/base";
import type { TestResults } from "#core/analysis";
import { displayOf, FAULTS, type Fault, type Rehearsal } from "./display.ts";
import type { Stand } from "./ride.ts";

/** What nobody on a rehearsal could see, up to its last entry. Energy at the terminals. SI units but for Wh. */
export interface RehearsalTruth {
  readonly distanceM: number;
  readonly energyWh: number;
  readonly whPerM: number;
  /** Of the usable energy. */
  readonly used: number;
  readonly capacityWh: number;
  /** Where each level began, along the way. */
  readonly levels: readonly { readonly level: string; readonly fromM: number }[];
  readonly lowPowerM: number | null;
  readonly cutOffM: number | null;
}

/** One figure of the person's reckoning against the truth. */
export interface TrainerRow {
  readonly what: string;
  readonly dimension: DimensionName;
  readonly yours: Estimate;
  readonly truth: number;
  /** The truth lies within the plus-or-minus. */
  readonly inside: boolean;
}

export interface Debrief {
  readonly rows: readonly TrainerRow[];
  /** How the protocol was kept, each in a sentence. */
  readonly remarks: readonly string[];
}

/** A change noted this near where it happened was noted in time, m. */
const IN_TIME_M = 0.4 * METRES_PER_MILE;

/** When the rider was told to stand, from the stops of a log: the stand-in stands as long as the person says. */
export function standsOf(entries: readonly LiveEntry[], startMs: number): readonly Stand[] {
  const stands: { fromS: number; toS: number | null }[] = [];
  for (const { body, timeS, struck } of [...entries].sort((a, b) => a.seq - b.seq)) {
    if (struck || timeS === null) continue;
    const atS = timeS - startMs / 1000;
    const open = stands.at(-1)?.toS === null ? lastOf(stands) : null;
    if (body.kind === "stop" && !open) stands.push({ fromS: atS, toS: null });
    if (body.kind === "go" && open) open.toS = atS;
  }
  return stands;
}

/**
 * The truth of a rehearsal up to a moment.
 *
 * @param endS since the ride's start, s
 */
export function truthOf(rehearsal: Rehearsal, endS: number, stands: readonly Stand[]): RehearsalTruth {
  const levels: { level: string; fromM: number }[] = [];
  let [startUsed, distanceM, energyWh, used] = [null as number | null, 0, 0, 0];
  let [lowPowerM, cutOffM] = [null as number | null, null as number | null];
  for (const { atS, sample } of displayOf(rehearsal, { stands })) {
    if (atS > endS) break;
    startUsed ??= sample.fractionUsed;
    ({ distanceM } = sample);
    energyWh = sample.pack.usedWh;
    used = sample.fractionUsed;
    if (levels.at(-1)?.level !== sample.level) levels.push({ level: sample.level, fromM: sample.distanceM });
    if (sample.lowPower) lowPowerM ??= sample.distanceM;
    if (sample.cutOff) cutOffM ??= sample.distanceM;
  }
  const fraction = used - (startUsed ?? 0);
  return {
    distanceM,
    energyWh,
    whPerM: distanceM > 0 ? energyWh / distanceM : 0,
    used,
    capacityWh: fraction > 0 ? energyWh / fraction : 0,
    levels,
    lowPowerM,
    cutOffM,
  };
}

const isInside = ({ mean, sd }: Estimate, truth: number) => Math.abs(truth - mean) <= Z_95 * sd;

/** Changes of level that the log says nothing of near where they happened. */
function missedLevels({ levels }: RehearsalTruth, entries: readonly LiveEntry[], places: Places) {
  return levels
    .slice(1)
    .filter(
      ({ level, fromM }) =>
        !entries.some(
          ({ body, struck, rootId }) =>
            !struck &&
            "level" in body &&
            body.level === level &&
            Math.abs((places.get(rootId) ?? Infinity) - fromM) < IN_TIME_M,
        ),
    );
}

type Places = ReadonlyMap<string, number>;

/**
 * Sets a person's reckoning of a rehearsal against its truth, and says how the protocol was kept.
 *
 * @param fault what was wrong with the display, as it was set
 */
export function debrief(
  results: TestResults,
  truth: RehearsalTruth,
  log: readonly Entry[],
  fault: Fault = "none",
): Debrief {
  const { best, capacity, distance, end, course } = results;
  const row = (what: string, dimension: DimensionName, yours: Estimate, value: number): TrainerRow => ({
    what,
    dimension,
    yours,
    truth: value,
    inside: isInside(yours, value),
  });
  const places: Places = new Map(
    course.marks.flatMap(({ entries, distanceM }) =>
      entries.map(({ rootId }) => [rootId, distanceM] as const),
    ),
  );
  const entries = foldLog(log);
  const changes = truth.levels.length - 1;
  const missed = missedLevels(truth, entries, places);
  const checks = entries.filter(({ struck, body }) => !struck && body.kind === "checkIn").length;
  const apartM = distance.value.mean / Math.max(1, checks);
  const rested = entries.some(
    ({ struck, body }) =>
      !struck && "packVolts" in body && body.packVolts !== undefined && body.underLoad === false,
  );
  const remarks = [
    `${checks} check-ins, one in ${unitToken(apartM, "distance", 1)}.`,
    changes === 0
      ? ""
      : missed.length === 0
        ? `All ${changes} changes of level were noted where they happened.`
        : `${missed.length} of ${changes} changes of level were not noted where they happened, the first at ${unitToken(nth(missed, 0).fromM, "distance", 1)}.`,
    truth.lowPowerM !== null && !entries.some(({ body, struck }) => !struck && body.kind === "lowPower")
      ? `Low-power mode began at ${unitToken(truth.lowPowerM, "distance", 1)} and was not noted.`
      : "",
    rested ? "" : "No rest volts: stand for ten minutes and read them, and the figure is surer.",
    fault === "none" ? "" : `The display was wrong: ${FAULTS[fault]}.`,
  ];
  return {
    rows: [
      row("energy per distance", "energyPerDistance", best.value, truth.whPerM),
      row("distance", "distance", distance.value, truth.distanceM),
      row("pack's energy", "energy", capacity.value, truth.capacityWh),
      row("charge used", "percent", { mean: 100 * end.used.mean, sd: 100 * end.used.sd }, 100 * truth.used),
    ],
    remarks: remarks.filter(Boolean),
  };
}
