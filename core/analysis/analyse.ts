import type { TrackProfile } from "#core/ride/distance";
import {
  influences,
  columnFigure,
  energyFigure,
  flagSentence,
  linearFigure,
  milesOf,
  judgeReadings,
  otherStory,
  rideFigure,
  solveLedger,
  estimateOf,
  usedBetween,
  usedOnRide,
  birgeRatio,
  type LedgerInput,
  type Judgement,
  type Solved,
  type SolvedLedger,
} from "#core/estimation";
import { foldLog, type Timeline, type LoggedReading } from "#core/ride/log";
import { labelEnergy } from "#core/battery";
import {
  there,
  nth,
  lastOf,
  err,
  ok,
  type Result,
  METRES_PER_MILE,
  scale,
  widen,
  withRelative,
  type Estimate,
} from "#core/base";
import { markOf } from "#core/battery/readings";
import type { TestRecord } from "#core/records";
import { distanceBecause, rideFigures } from "./distance.ts";
import { varianceBudget } from "./varianceBudget.ts";
import { plottedReadings } from "./plottedReadings.ts";
import { endOf } from "./end.ts";
import { evidenceAlone } from "./evidence.ts";
import { fadeAlong } from "./fade.ts";
import { gaugeSeen } from "./gauge.ts";
import { howBest, howCapacity, howEnergy } from "./how.ts";
import { climbNoted, rideObservations } from "./observations.ts";
import { packOf } from "./input.ts";
import { prepareTest } from "./prepare.ts";
import { packLearned, thresholds } from "./learned.ts";
import { parts } from "./parts.ts";
import { plainResult } from "./plain.ts";
import { ranges } from "./ranges.ts";
import { climbOfProfile, quartersOf } from "./quarters.ts";
import { profileAlong, seriesAlong } from "./series.ts";
import { slopesOf } from "./slopes.ts";
import { soFar } from "./soFar.ts";
import { steadyUse } from "./steady.ts";
import { surer } from "./surer.ts";
import type { Flag, TestResults } from "./types.ts";
import { capacityWords, differenceSentence, evidenceWords } from "./words.ts";

/** A solved ledger with what turns its figures into the answer's: widened, in metres, with the distance's own error. */
interface Reckoning {
  readonly solved: Solved;
  /** Factor of every sd, where readings disagree. */
  readonly wide: number;
  perMetre(whPerMi: Estimate): Estimate;
}

function reckoning(solved: Solved, distanceRelativeSd: number): Reckoning {
  const wide = birgeRatio(solved.posterior);
  return {
    solved,
    wide,
    perMetre: (value) => withRelative(scale(widen(value, wide), 1 / METRES_PER_MILE), distanceRelativeSd),
  };
}

const bestOf = ({ solved, perMetre }: Reckoning) => perMetre(estimateOf(solved, rideFigure(solved, 0)));

/** What breaks the order of the log is hardly anything else, nats. */
const SURE_SLIP = 10;

/** The readings in question, in words, with the answer without them. */
function inQuestion(
  solved: SolvedLedger,
  { flags, without }: Judgement,
  course: Timeline,
  readings: readonly LoggedReading[],
  relativeSd: number,
  isSetAside: boolean,
) {
  const places = new Map(
    course.marks.flatMap(({ entries, distanceM }) =>
      entries.map(({ rootId }) => [rootId, distanceM] as const),
    ),
  );
  const byOrder = course.slips.map(({ rootId, field, sentence }): Flag => {
    const distanceM = places.get(rootId) ?? 0;
    return { rootId, field, distanceM, standing: 0, logOdds: SURE_SLIP, sentence };
  });
  const doubted = flags.map((flag): Flag => {
    const { reading, rootId, field } = nth(readings, flag.reading);
    const { distanceM } = nth(course.marks, markOf(reading));
    const sentence = flagSentence(reading, distanceM, flag, otherStory(solved, without, flag));
    return { rootId, field, distanceM, standing: flag.standing, logOdds: flag.logOdds, sentence };
  });
  return {
    flags: [...byOrder, ...doubted],
    bestWithoutFlags: flags.length || isSetAside ? bestOf(reckoning(without, relativeSd)) : null,
  };
}

/** Mean square of the standings over which readings do not agree, even without those in question. */
const DISAGREE_ABOVE = 2;

/** Whether the readings that are not in question agree with one another. */
function agree({ standings, flags }: Judgement, readings: readonly LoggedReading[]): boolean {
  const counted = readings.flatMap(({ struck }, i) => (struck ? [] : [i]));
  const asked = new Set(flags.map(({ reading }) => reading));
  const rest = standings.filter((_, i) => !asked.has(nth(counted, i)));
  const square = rest.reduce((sum, { standing }) => sum + standing * standing, 0);
  return rest.length === 0 || square / rest.length <= DISAGREE_ABOVE;
}

const questionWords = (count: number) =>
  count === 0 ? "" : `; ${count === 1 ? "one reading is" : `${count} readings are`} in question`;

/** Curve and stretches: fraction used at each mark, Wh per metre between neighbours. */
function alongTheWay({ solved, wide, perMetre }: Reckoning, course: Timeline) {
  const curve = course.marks.map(({ distanceM }, mark) => {
    const used = widen(estimateOf(solved, linearFigure(solved, new Map([[mark, 1]]))), wide);
    return { distanceM, used, left: { mean: 1 - used.mean, sd: used.sd } };
  });
  const stretches = course.legs
    .filter(({ distanceM, charged }) => distanceM > 0 && !charged)
    .map(({ from, to, distanceM, level, ground }) => ({
      fromM: nth(course.marks, from).distanceM,
      toM: nth(course.marks, to).distanceM,
      level,
      ground,
      whPerM: perMetre(
        estimateOf(
          solved,
          energyFigure(solved, 0, usedBetween(solved, 0, from, to), distanceM / METRES_PER_MILE),
        ),
      ),
    }));
  return { curve, stretches };
}

function figures(
  record: TestRecord,
  course: Timeline,
  tracks: readonly (TrackProfile | null)[],
  readings: readonly LoggedReading[],
  input: LedgerInput,
  everything: SolvedLedger,
  whole: SolvedLedger,
): Omit<TestResults, "notices" | "course"> {
  const counted = readings.filter(({ struck }) => !struck);
  const setAside = readings.flatMap(({ struck }, i) => (struck ? [i] : []));
  const basis = lastOf(course.bases);
  const { relativeSd } = basis;
  const judged = judgeReadings(everything, new Set(setAside));
  const standings = judged.standings.filter((_, i) => !nth(readings, i).struck);
  const solved = judged.headline;
  const reckoned = reckoning(solved, relativeSd);
  const { wide, perMetre } = reckoned;
  const figure = rideFigure(solved, 0);
  const whPerM = bestOf(reckoned);
  const used = usedOnRide(solved, 0);
  const fraction = widen(estimateOf(solved, linearFigure(solved, used.form)), wide);
  const energyWh = widen(estimateOf(solved, energyFigure(solved, 0, used)), wide);
  const usable = nth(Object.values(solved.columns.usable), 0);
  const capacity = widen(
    estimateOf(solved, columnFigure(solved, nth(Object.values(solved.columns.capacity), 0))),
    wide,
  );
  const distanceM = milesOf(nth(input.rides, 0)) * METRES_PER_MILE;
  const bears = influences(whole, rideFigure(whole, 0)).map((bearing, i) => ({
    ...bearing,
    ...nth(standings, i),
  }));
  const questions = inQuestion(everything, judged, course, readings, relativeSd, setAside.length > 0);
  const plain = plainResult(record, course);
  const label = labelEnergy(packOf(record));
  const factor = course.bases.map((found) => found.factor).find((found) => found !== null) ?? null;
  const along = alongTheWay(reckoned, course);
  const end = endOf(course, fraction, fadeAlong(record, course, along.curve));
  const { alone, sentence } = evidenceAlone(solved, input, counted, relativeSd);
  const settled = agree({ ...judged, standings }, readings);
  const logs = record.rides.map(({ entries }) => foldLog(entries));
  const ridden = rideFigures(tracks, course, logs);
  const profile = profileAlong(course, tracks);
  const climb =
    profile && ridden.climbM !== null ? climbOfProfile(profile, ridden.climbM) : climbNoted(course);
  const quarters = quartersOf(
    along.curve,
    climb,
    (from, to) => wide * estimateOf(solved, linearFigure(solved, usedBetween(solved, 0, from, to).form)).sd,
  );
  return {
    best: {
      value: whPerM,
      because: `${evidenceWords(counted.map(({ reading }) => reading))}${questionWords(questions.flags.length)}${settled ? "" : "; what is left of them does not agree: see what each kind alone would say"}`,
      // What its own readings do not support is no bold figure.
      pencil: !settled,
      how: howBest({ capacity, fraction, energyWh, distanceM, whPerM, relativeSd, wide }),
    },
    plain,
    plainMissing: plain
      ? null
      : course.legs.some(({ charged }) => charged)
        ? "Paper cannot reckon through a charge in between."
        : "Paper needs a start and an end reading of one kind: percent, rest volts or bars.",
    difference:
      plain &&
      differenceSentence(
        plain.whPerM,
        whPerM.mean,
        whPerM.sd,
        label.ok ? label.value : usable.labelWh,
        capacity.mean,
      ),
    energy: {
      value: energyWh,
      because: "what left the pack between the first and the last mark",
      pencil: false,
      how: howEnergy(capacity, fraction, energyWh),
    },
    distance: {
      value: { mean: distanceM, sd: distanceM * relativeSd },
      because: distanceBecause(course),
      pencil: basis.source === "display" && !factor,
      how: [],
    },
    capacity: {
      value: capacity,
      because: capacityWords(usable),
      pencil: usable.from === "label",
      how: howCapacity(usable, capacity),
    },
    soFar: soFar(solved, { mean: distanceM, sd: distanceM * relativeSd }, wide),
    ...ranges(solved, distanceM, relativeSd, wide, course, end),
    ...ridden,
    slopes: slopesOf(tracks),
    steady: steadyUse(record, course, tracks),
    noted: rideObservations(record, course, logs, tracks),
    ...along,
    quarters: quarters.ok ? quarters.value : null,
    parts: parts(solved, course, perMetre),
    readings: plottedReadings(
      course,
      input,
      readings,
      solved.posterior.mean,
      new Map(counted.map((logged, i) => [logged, nth(bears, i)])),
      perMetre,
    ),
    ...questions,
    bestWithStruck: setAside.length ? bestOf(reckoning(everything, relativeSd)) : null,
    alone,
    aloneSentence: sentence,
    surer: surer(solved, wide, whPerM.mean * relativeSd),
    end,
    packLearned: packLearned(record, solved),
    thresholds: thresholds(solved, wide),
    gauge: gaugeSeen(record, course, input, counted, along.curve),
    profile,
    series: seriesAlong(record, course),
    budget: varianceBudget(solved, figure, { best: whPerM, relativeSd, wide }),
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

/**
 * Everything known of one test: the log folded into marks and stretches, the ledger solved, plain beside it, and each
 * figure with its reason.
 *
 * @returns problems when there is nothing to reckon: no distance, no label, no marks
 */
export function analyseTest(record: TestRecord): Result<TestResults> {
  const laid = prepareTest(record);
  if (!laid.ok) return laid;
  const { tracks, course, readings, problems, input } = laid.value;
  // A full start alone says where the charge began, and nothing of what was used.
  if (input.rides.every((ride) => ride.readings.every(({ kind }) => kind === "fullStart")))
    return err(
      "no-reading",
      "rides",
      "Nothing tells the charge yet: note a percent, bars, volts, a counter or how it ended, and the figure comes.",
    );
  const [ride] = input.rides;
  const solved = solveLedger({
    ...input,
    rides: [{ ...there(ride), readings: readings.map(({ reading }) => reading) }],
  });
  if (!solved.ok) return solved;
  const counted = readings.flatMap(({ struck }, i) => (struck ? [] : [i]));
  const whole = counted.length < readings.length ? solved.value.keeping(counted) : solved.value;
  if (!whole) return err("singular", "readings", "Without what is set aside nothing can be weighed.");
  return ok({
    ...figures(record, course, tracks, readings, input, solved.value, whole),
    notices: [...problems, ...course.notices],
    course,
  });
}
