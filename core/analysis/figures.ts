import {
  columnFigure,
  energyFigure,
  estimateOf,
  influences,
  judgeReadings,
  linearFigure,
  metresOf,
  rideFigure,
  usedBetween,
  usedOnRide,
  type LedgerInput,
  type SolvedLedger,
} from "#core/estimation";
import { labelEnergy } from "#core/battery";
import { lastOf, nth, widen, type Estimate } from "#core/base";
import type { TestRecord } from "#core/records";
import type { TrackProfile } from "#core/ride/distance";
import { foldLog, type LoggedReading, type Timeline } from "#core/ride/log";
import { alongTheWay } from "./alongTheWay.ts";
import { distanceBecause, rideFigures } from "./distance.ts";
import { endOf } from "./end.ts";
import { evidenceAlone } from "./evidence.ts";
import { fadeAlong } from "./fade.ts";
import { gaugeSeen } from "./gauge.ts";
import { howBest, howCapacity, howEnergy } from "./how.ts";
import { agree, inQuestion, questionWords } from "./inQuestion.ts";
import { packOf } from "./input.ts";
import { knownWords } from "./known.ts";
import { packLearned, thresholds } from "./learned.ts";
import { climbOnTheWay, rideObservations } from "./observations.ts";
import { parts } from "./parts.ts";
import { plainResult } from "./plain.ts";
import { plottedReadings } from "./plottedReadings.ts";
import { climbOfProfile, quartersOf } from "./quarters.ts";
import { ranges } from "./ranges.ts";
import { bestOf, reckoning, type Reckoning } from "./reckoning.ts";
import { profileAlong, seriesAlong } from "./series.ts";
import { slopesOf } from "./slopes.ts";
import { soFar } from "./soFar.ts";
import { steadyUse } from "./steady.ts";
import { surer } from "./surer.ts";
import type { TestResults } from "./types.ts";
import { varianceBudget } from "./varianceBudget.ts";
import { capacityWords, differenceSentence, evidenceWords } from "./words.ts";

/** A test laid out and solved, all its readings held and those set aside left out. */
export interface SolvedTest {
  readonly record: TestRecord;
  readonly course: Timeline;
  readonly tracks: readonly (TrackProfile | null)[];
  readonly readings: readonly LoggedReading[];
  readonly input: LedgerInput;
  readonly everything: SolvedLedger;
  readonly whole: SolvedLedger;
}

/** What the pack gave, held and holds, widened. */
function packFigures(reckoned: Reckoning) {
  const { solved, wide } = reckoned;
  const used = usedOnRide(solved, 0);
  return {
    fraction: widen(estimateOf(solved, linearFigure(solved, used.form)), wide),
    energyWh: widen(estimateOf(solved, energyFigure(solved, 0, used)), wide),
    usable: nth(Object.values(solved.columns.usable), 0),
    capacity: widen(
      estimateOf(solved, columnFigure(solved, nth(Object.values(solved.columns.capacity), 0))),
      wide,
    ),
  };
}
type PackFigures = ReturnType<typeof packFigures>;

/** Paper arithmetic beside the best, and why they differ. */
function plainFigures(test: SolvedTest, best: Estimate, { usable, capacity }: PackFigures) {
  const { record, course } = test;
  const plain = plainResult(record, course);
  const label = labelEnergy(packOf(record));
  const labelWh = label.ok ? label.value : usable.labelWh;
  const charged = course.legs.some((leg) => leg.charged);
  return {
    plain,
    plainMissing: plain
      ? null
      : charged
        ? "Paper cannot reckon through a charge in between."
        : "Paper needs a start and an end reading of one kind: percent, volts at rest or bars.",
    difference: plain && differenceSentence(plain.whPerM, best.mean, best.sd, labelWh, capacity.mean),
  };
}

/** Energy, distance and capacity, each with its reason. */
function quantities({ course, record }: SolvedTest, pack: PackFigures, distance: Estimate) {
  const { energyWh, capacity, fraction, usable } = pack;
  const display = lastOf(course.bases).source === "display";
  return {
    energy: {
      value: energyWh,
      because: "what left the pack between the first and the last mark",
      pencil: false,
      how: howEnergy(capacity, fraction, energyWh),
    },
    distance: {
      value: distance,
      because: distanceBecause(course, record.knownFactor),
      pencil: display && !factorOf(course) && !record.knownFactor,
      how: [],
    },
    capacity: {
      value: capacity,
      because: capacityWords(usable),
      pencil: usable.from === "label",
      how: howCapacity(usable, capacity),
    },
  };
}

/** The display's distance against another's, by the first ride that tells. */
const factorOf = ({ bases }: Timeline) =>
  bases.map((found) => found.factor).find((found) => found !== null) ?? null;

/** The ride itself: its speeds and climbs, what was noted, how it went along the way. */
function rideParts(test: SolvedTest, reckoned: Reckoning) {
  const { record, course, tracks } = test;
  const { solved, wide } = reckoned;
  const logs = record.rides.map(({ entries }) => foldLog(entries));
  const ridden = rideFigures(tracks, course, logs);
  const along = alongTheWay(reckoned, course);
  const profile = profileAlong(course, tracks);
  const climb =
    profile && ridden.climbM !== null ? climbOfProfile(profile, ridden.climbM) : climbOnTheWay(course);
  const quarters = quartersOf(
    along.curve,
    climb,
    (from, to) => wide * estimateOf(solved, linearFigure(solved, usedBetween(solved, 0, from, to).form)).sd,
  );
  return {
    ...ridden,
    ...along,
    slopes: slopesOf(tracks),
    steady: steadyUse(record, course, tracks),
    noted: rideObservations(record, course, logs, tracks),
    quarters: quarters.ok ? quarters.value : null,
    profile,
    series: seriesAlong(record, course),
  };
}

/**
 * Where one reading alone is in question, the answer without it is known whole, its own widening too: the table beside the
 * readings says the same as the ledger.
 */
function withoutTheOnly(
  readings: TestResults["readings"],
  { flags, bestWithoutFlags }: Pick<TestResults, "flags" | "bestWithoutFlags">,
  isSetAside: boolean,
): TestResults["readings"] {
  const [only, other] = flags;
  if (!only || other || isSetAside || !bestWithoutFlags) return readings;
  return readings.map((reading) =>
    reading.row && reading.rootId === only.rootId && reading.field === only.field
      ? { ...reading, row: { ...reading.row, without: bestWithoutFlags } }
      : reading,
  );
}

/** Everything a solved test shows, each figure with its reason. */
export function figuresOf(test: SolvedTest): Omit<TestResults, "notices" | "course"> {
  const { record, course, readings, input, everything, whole } = test;
  const counted = readings.filter(({ struck }) => !struck);
  const setAside = readings.flatMap(({ struck }, i) => (struck ? [i] : []));
  const { relativeSd } = lastOf(course.bases);
  const judged = judgeReadings(everything, new Set(setAside));
  const standings = judged.standings.filter((_, i) => !nth(readings, i).struck);
  const solved = judged.headline;
  const reckoned = reckoning(solved, relativeSd);
  const { wide, perMetre } = reckoned;
  const best = bestOf(reckoned);
  const pack = packFigures(reckoned);
  const distanceM = metresOf(nth(input.rides, 0));
  const distance = { mean: distanceM, sd: distanceM * relativeSd };
  const bears = influences(whole, rideFigure(whole, 0)).map((bearing, i) => ({
    ...bearing,
    ...nth(standings, i),
  }));
  const bearing = new Map(counted.map((logged, i) => [logged, nth(bears, i)]));
  const questions = inQuestion(everything, judged, course, readings, relativeSd, setAside.length > 0);
  const rideSoFar = soFar(solved, distance, wide);
  const ridden = rideParts(test, reckoned);
  const end = endOf(course, pack.fraction, fadeAlong(record, course, ridden.curve));
  const { alone, sentence } = evidenceAlone(solved, input, counted, relativeSd);
  const settled = agree({ ...judged, standings }, readings);
  const factor = factorOf(course);
  return {
    best: {
      value: best,
      because: `${evidenceWords(counted.map(({ reading }) => reading))}${knownWords(record.known)}${questionWords(questions.flags.length)}${settled ? "" : "; what is left of them does not agree: see what each kind alone would say"}`,
      // What its own readings do not support is no bold figure.
      pencil: !settled,
      how: howBest({ ...pack, distanceM, whPerM: best, relativeSd, wide }),
    },
    ...plainFigures(test, best, pack),
    ...quantities(test, pack, distance),
    soFar: rideSoFar,
    ...ranges(solved, rideSoFar, relativeSd, course, end),
    ...ridden,
    parts: parts(solved, course, perMetre),
    readings: withoutTheOnly(
      plottedReadings(course, input, readings, solved.posterior.mean, bearing, perMetre),
      questions,
      setAside.length > 0,
    ),
    ...questions,
    bestWithStruck: setAside.length ? bestOf(reckoning(everything, relativeSd)) : null,
    alone,
    aloneSentence: sentence,
    surer: surer(solved, wide, best.mean * relativeSd),
    end,
    packLearned: packLearned(record, solved),
    thresholds: thresholds(record, solved, wide),
    gauge: gaugeSeen(record, course, input, counted, ridden.curve),
    budget: varianceBudget(solved, rideFigure(solved, 0), { best, relativeSd, wide }),
    widened: wide,
    chi2PerReading: solved.posterior.chi2PerReading,
    odometer: factor && {
      k: factor.k,
      sd: factor.sd,
      warn: factor.warn,
      impliedCircumferenceMm: factor.impliedCircumferenceMm ?? null,
    },
  };
}
