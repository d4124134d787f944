import { ASSUMED } from "#core/assumptions";
import { profileOf, type TrackProfile } from "#core/distance";
import {
  budgetOf,
  energyFigure,
  ledgerInputSchema,
  linearFigure,
  milesOf,
  notToldApart,
  rideFigure,
  settingOf,
  solveLedger,
  usedBetween,
  variableFigure,
  widening,
  withSds,
  type LedgerInput,
  type Solved,
} from "#core/ledger";
import { foldLog, layCourse, type Course, type LoggedReading } from "#core/log";
import { labelEnergy, usableEnergy } from "#core/pack";
import { bad, badAll, good, type Problem, type Result } from "#core/problems";
import { rangeOwnMix, shareWithReserve, SKETCH_BELOW } from "#core/projection";
import { fixed, METRES_PER_MILE, scale, withRelative, type Uncertain } from "#core/quantities";
import { checkReading, markOf, rowOf } from "#core/readings";
import type { TestRecord } from "#core/records";
import { questioned } from "./flags.ts";
import { plainResult } from "./plain.ts";
import type { DrawnReading, Explained, TestResults } from "./types.ts";
import { differenceSentence, evidenceWords, flagSentence, readingText } from "./words.ts";

const cellName = (level: string, ground: string) => `${level} | ${ground}`;

/** The course of a record: its logs folded and laid end to end. */
function courseOf(record: TestRecord, tracks: readonly (TrackProfile | null)[]): Course {
  return layCourse(
    record.rides.map(({ entries }, ride) => ({ entries: foldLog(entries), track: tracks[ride]! })),
    {
      knownFactor: record.knownFactor,
      circumferenceMm: record.bike.wheelCircumferenceM && record.bike.wheelCircumferenceM * 1000,
      meterStepV: record.bike.meterStepV,
      firstLevel:
        record.test.firstLevel ||
        (record.test.drive === "throttle" ? "throttle" : (record.bike.levels[0] ?? "level")),
      firstGround: record.test.firstGround,
    },
  );
}

/** Bike, rider and load, or what is assumed of them, kg. */
function systemMass(record: TestRecord): number {
  const { bike, rider, setUp } = record;
  if (bike.massKg === undefined || rider?.massKg === undefined) return ASSUMED.massKg;
  return bike.massKg + rider.massKg + (setUp?.carriedKg ?? 0);
}

function ledgerInput(record: TestRecord, course: Course, readings: readonly LoggedReading[]): LedgerInput {
  const { pack, bike, test } = record;
  return ledgerInputSchema.parse({
    pack: { ...pack, packTempC: test.packTempC ?? test.airTempC },
    gauge: { percentStep: bike.percentStep || 1, counts: bike.counts, bars: bike.bars },
    massKg: systemMass(record),
    cells: [...new Set(course.legs.map(({ level, ground }) => cellName(level, ground)))],
    legs: course.legs.map(({ distanceM, level, ground, gainM, lossM }) => ({
      miles: { [cellName(level, ground)]: distanceM / METRES_PER_MILE },
      gainM,
      lossM,
    })),
    readings: readings.map(({ reading }) => reading),
  });
}

/** Readings the bike can have shown, and the problems of the others. */
function possible(
  record: TestRecord,
  course: Course,
): { readonly readings: readonly LoggedReading[]; readonly problems: readonly string[] } {
  const setting = settingOf({
    pack: record.pack,
    gauge: { percentStep: record.bike.percentStep || 1, counts: record.bike.counts, bars: record.bike.bars },
  });
  const problems: string[] = [];
  const readings = course.readings.filter(({ reading }) => {
    const found = checkReading(reading, setting);
    problems.push(...found.map(({ sentence }) => `${readingText(reading)} is left out. ${sentence}`));
    return found.length === 0;
  });
  return { readings, problems: [...new Set(problems)] };
}

const SOURCE_WORDS = { recorder: "by recorder", track: "by the track", display: "by the display" } as const;

function distanceBecause(course: Course): string {
  const last = course.bases.at(-1)!;
  const factor = course.bases.map(({ factor }) => factor).find((found) => found !== null);
  if (!factor)
    return last.source === "display"
      ? "by the display, never checked against a recorder"
      : SOURCE_WORDS[last.source];
  const off = (1 / factor.k - 1) * 100;
  if (Math.abs(off) < 0.5) return `${SOURCE_WORDS[last.source]}; the display agrees`;
  const wheel = factor.warn ? `: wheel set too ${off > 0 ? "large" : "small"}` : "";
  return `${SOURCE_WORDS[last.source]}; the display read ${fixed(Math.abs(off), 1)} % ${off > 0 ? "more" : "less"}${wheel}`;
}

/** Several tracks' speed and climb together. */
function rideFigures(tracks: readonly (TrackProfile | null)[]) {
  const known = tracks.filter((track): track is TrackProfile => track !== null);
  if (!known.length) return { movingS: null, meanSpeedMps: null, topSpeedMps: null, climbM: null };
  const movingS = known.reduce((sum, track) => sum + track.movingS, 0);
  const metres = known.reduce((sum, track) => sum + track.totalM, 0);
  const heights = known.filter(({ hasHeights }) => hasHeights);
  return {
    movingS,
    meanSpeedMps: movingS > 0 ? metres / movingS : null,
    topSpeedMps: Math.max(...known.map(({ topSpeedMps }) => topSpeedMps)),
    climbM: heights.length ? heights.reduce((sum, { gainM }) => sum + (gainM.at(-1) ?? 0), 0) : null,
  };
}

function ranges(
  solved: Solved,
  distanceM: number,
  relativeSd: number,
  wide: number,
  ended: boolean,
  lowPowerM: number | null,
) {
  const lastMark = solved.prior.marks[0]!.length - 1;
  const [fraction, start] = withSds(solved, [
    linearFigure(solved, usedBetween(solved, 0, 0, lastMark)),
    linearFigure(solved, solved.prior.marks[0]![0]!),
  ]).map((value) => scaleSd(value, wide)) as [Uncertain, Uncertain];
  const sketch = fraction.mean < SKETCH_BELOW ? "; a sketch: under a third of the charge was used" : "";
  const explain = (share: number, because: string): Explained | null => {
    const value = rangeOwnMix(distanceM, fraction, share, relativeSd);
    return value && value.sd / value.mean < 1 ? { value, because, pencil: true } : null;
  };
  const full = Math.abs(start.mean) < 0.03;
  const total: Explained | null =
    ended && full
      ? {
          value: { mean: distanceM, sd: distanceM * relativeSd },
          because: "ridden, full to the end",
          pencil: false,
        }
      : explain(1, `projected from ${fixed(fraction.mean * 100, 0)} % of the energy${sketch}`);
  const fullPower: Explained | null =
    lowPowerM !== null && full
      ? {
          value: { mean: lowPowerM, sd: lowPowerM * relativeSd },
          because: "low-power mode began there",
          pencil: false,
        }
      : explain(ASSUMED.lowPowerAt, `assumed to end at ${fixed(ASSUMED.lowPowerAt * 100, 0)} % used`);
  return {
    rangeTotal: total,
    rangeFullPower: fullPower,
    rangeWithReserve: explain(
      shareWithReserve,
      `${fixed(ASSUMED.reserve * 100, 0)} % kept back for the way home and the pack's sake`,
    ),
  };
}

const scaleSd = ({ mean, sd }: Uncertain, factor: number): Uncertain => ({ mean, sd: sd * factor });

function drawn(
  course: Course,
  input: LedgerInput,
  readings: readonly LoggedReading[],
  standings: ReadonlyMap<LoggedReading, number>,
): DrawnReading[] {
  const setting = settingOf(input);
  return readings.map((logged) => {
    const { reading, rootId, field, struck } = logged;
    const row = rowOf(reading, setting);
    const known = row.unknowns.reduce(
      (sum, { unknown, coefficient }) => sum - coefficient * unknown.mean,
      row.value,
    );
    const variance =
      row.errors.reduce((sum, { sd }) => sum + sd * sd, 0) +
      row.unknowns.reduce((sum, { unknown, coefficient }) => sum + (coefficient * unknown.sd) ** 2, 0) +
      (row.smooth ? ASSUMED.smoothSd ** 2 : 0);
    const mark = markOf(reading);
    return {
      rootId,
      field,
      kind: reading.kind,
      mark,
      distanceM: course.marks[mark]!.distanceM,
      says: row.energy ? null : { mean: known, sd: Math.sqrt(variance) },
      struck,
      standing: standings.get(logged) ?? null,
      text: readingText(reading),
    };
  });
}

/**
 * Everything known of one test: the log folded into marks and stretches, the ledger solved, plain beside it, and each
 * figure with its reason.
 *
 * @returns problems when there is nothing to reckon: no distance, no label, no marks
 */
export function reckonTest(record: TestRecord): Result<TestResults> {
  const tracks = record.rides.map(({ track }) => track && profileOf(track));
  const course = courseOf(record, tracks);
  if (course.marks.length < 2)
    return bad(
      "no-distance",
      "rides",
      "Two check-ins at different distances make a test: add the start and at least one more.",
    );
  const usable = usableEnergy(record.pack);
  if (!usable.ok) return usable;
  const { readings, problems } = possible(record, course);
  const counted = readings.filter(({ struck }) => !struck);
  const input = ledgerInput(record, course, counted);
  const result = solveLedger(input);
  if (!result.ok) return badAll(result.problems as readonly Problem[]);
  const solved = result.value;
  const wide = widening(solved.posterior.chi2PerReading);
  const loo = solved.posterior.looStandardised();
  const standings = new Map(counted.map((logged, i) => [logged, loo[i]!]));

  const basis = course.bases.at(-1)!;
  const distanceM = course.marks.at(-1)!.distanceM - course.marks[0]!.distanceM;
  const relativeSd = basis.relativeSd;
  const best = rideFigure(solved, 0);
  const lastMark = course.marks.length - 1;
  const energy = energyFigure(solved, usedBetween(solved, 0, 0, lastMark));
  const [bestWhPerMi, energyWh, capacity] = withSds(solved, [
    best,
    energy,
    variableFigure(solved, solved.prior.capacity),
  ]) as [Uncertain, Uncertain, Uncertain];
  const perMetre = (value: Uncertain) =>
    withRelative(scale(scaleSd(value, wide), 1 / METRES_PER_MILE), relativeSd);
  const legs = course.legs.filter((leg) => leg.distanceM > 0);
  const legSds = withSds(
    solved,
    legs.map(({ from, to, distanceM: metres }) =>
      energyFigure(solved, usedBetween(solved, 0, from, to), metres / METRES_PER_MILE),
    ),
  );
  const markSds = withSds(
    solved,
    solved.prior.marks[0]!.map((form) => linearFigure(solved, form)),
  );
  const inQuestion = questioned(counted, loo, (kept) => ledgerInput(record, course, kept));
  const flags = inQuestion.map(({ reading: logged, standing }) => {
    const place = course.marks[markOf(logged.reading)]!.distanceM;
    return {
      rootId: logged.rootId,
      field: logged.field,
      distanceM: place,
      standing,
      sentence: flagSentence(logged.reading, place, standing),
    };
  });
  const plain = plainResult(record, course.marks);
  const label = labelEnergy(record.pack);
  const factor = course.bases.map((found) => found.factor).find((found) => found !== null) ?? null;
  const end = course.marks
    .flatMap(({ entries }) => entries)
    .find(({ body, struck }) => body.kind === "end" && !struck)?.body;
  const closed = end?.kind === "end" && end.reason !== "byChoice";
  const lowPowerMark = course.marks.find(({ entries }) =>
    entries.some(({ body, struck }) => body.kind === "lowPower" && !struck),
  );
  const whPerM = perMetre(bestWhPerMi);
  return good({
    best: {
      value: whPerM,
      because: `${evidenceWords(counted.map(({ reading }) => reading))}${flags.length ? `; ${flags.length === 1 ? "one reading is" : `${flags.length} readings are`} in question` : ""}`,
      pencil: counted.length === 0,
    },
    plain,
    plainMissing: plain
      ? null
      : "Paper needs a start and an end reading of one kind: percent, rest volts or bars.",
    difference:
      plain &&
      differenceSentence(
        plain.whPerM,
        whPerM.mean,
        whPerM.sd,
        label.ok ? label.value : usable.value.labelWh,
        capacity.mean,
      ),
    energy: {
      value: scaleSd(energyWh, wide),
      because: "what left the pack between the first and the last mark",
      pencil: counted.length === 0,
    },
    distance: {
      value: { mean: distanceM, sd: distanceM * relativeSd },
      because: distanceBecause(course),
      pencil: basis.source === "display" && !factor,
    },
    capacity: {
      value: scaleSd(capacity, wide),
      because:
        usable.value.from === "measured"
          ? "measured, at the test's temperature, weighed with this ride"
          : `${fixed(usable.value.labelWh, 0)} Wh on the label, less 5 % and the cold, weighed with this ride`,
      pencil: usable.value.from === "label",
    },
    ...ranges(
      solved,
      distanceM,
      relativeSd,
      wide,
      closed,
      lowPowerMark ? lowPowerMark.distanceM - course.marks[0]!.distanceM : null,
    ),
    ...rideFigures(tracks),
    curve: course.marks.map((mark, i) => ({ distanceM: mark.distanceM, used: scaleSd(markSds[i]!, wide) })),
    stretches: legs.map((leg, i) => ({
      fromM: course.marks[leg.from]!.distanceM,
      toM: course.marks[leg.to]!.distanceM,
      level: leg.level,
      ground: leg.ground,
      whPerM: perMetre(legSds[i]!),
    })),
    parts: parts(solved, course, perMetre),
    readings: drawn(course, input, readings, standings),
    flags,
    bestWithoutFlags: inQuestion.length
      ? bestWithout(
          record,
          course,
          counted.filter((logged) => !inQuestion.some(({ reading }) => reading === logged)),
          relativeSd,
        )
      : null,
    budget: budgetOf(solved, best),
    widened: wide,
    chi2PerReading: solved.posterior.chi2PerReading,
    odometer: factor && {
      k: factor.k,
      sd: factor.sd,
      warn: factor.warn,
      impliedCircumferenceMm: factor.impliedCircumferenceMm ?? null,
    },
    notices: problems,
    course,
  });
}

/** The same ledger on fewer readings: whole-ride Wh per metre, widened, with the distance error. */
function bestWithout(
  record: TestRecord,
  course: Course,
  readings: readonly LoggedReading[],
  relativeSd: number,
): Uncertain | null {
  const result = solveLedger(ledgerInput(record, course, readings));
  if (!result.ok) return null;
  const [whPerMi] = withSds(result.value, [rideFigure(result.value, 0)]) as [Uncertain];
  const wide = widening(result.value.posterior.chi2PerReading);
  return withRelative(scale(scaleSd(whPerMi, wide), 1 / METRES_PER_MILE), relativeSd);
}

function parts(solved: Solved, course: Course, perMetre: (value: Uncertain) => Uncertain) {
  const cells = solved.input.cells.map((cell) => {
    const { level, ground } = course.legs.find((leg) => cellName(leg.level, leg.ground) === cell)!;
    return { cell, level, ground, miles: milesOf(solved, 0, cell) };
  });
  const rateForms = cells.map(({ cell }) => variableFigure(solved, solved.prior.rate.get(cell)!));
  const rates = withSds(solved, rateForms);
  const ridden = cells.filter(({ miles }) => miles > 0);
  const used = withSds(
    solved,
    ridden.map(({ cell, miles }) => energyFigure(solved, solved.prior.cellUse[0]!.get(cell)!, miles)),
  );
  return ridden.map(({ cell, level, ground, miles }, i) => ({
    level,
    ground,
    distanceM: miles * METRES_PER_MILE,
    whPerM: notToldApart(rates[cells.findIndex((other) => other.cell === cell)]!.sd, solved.usable.mean)
      ? null
      : perMetre(used[i]!),
  }));
}
