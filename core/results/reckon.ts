import { profileOf } from "#core/distance";
import {
  budgetOf,
  energyFigure,
  linearFigure,
  rideFigure,
  solveLedger,
  usedBetween,
  variableFigure,
  widening,
  withSds,
} from "#core/ledger";
import { labelEnergy, usableEnergy } from "#core/pack";
import { bad, badAll, good, type Problem, type Result } from "#core/problems";
import { fixed, METRES_PER_MILE, scale, widen, withRelative, type Uncertain } from "#core/quantities";
import { markOf } from "#core/readings";
import type { TestRecord } from "#core/records";
import { distanceBecause, rideFigures } from "./distance.ts";
import { drawn } from "./drawn.ts";
import { bestFrom, questioned } from "./flags.ts";
import { courseOf, ledgerInput, possible } from "./input.ts";
import { parts } from "./parts.ts";
import { plainResult } from "./plain.ts";
import { ranges } from "./ranges.ts";
import type { TestResults } from "./types.ts";
import { differenceSentence, evidenceWords, flagSentence } from "./words.ts";

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
    withRelative(scale(widen(value, wide), 1 / METRES_PER_MILE), relativeSd);
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
  const innocent = counted.filter((logged) => !inQuestion.some(({ reading }) => reading === logged));
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
      value: widen(energyWh, wide),
      because: "what left the pack between the first and the last mark",
      pencil: counted.length === 0,
    },
    distance: {
      value: { mean: distanceM, sd: distanceM * relativeSd },
      because: distanceBecause(course),
      pencil: basis.source === "display" && !factor,
    },
    capacity: {
      value: widen(capacity, wide),
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
    curve: course.marks.map((mark, i) => ({ distanceM: mark.distanceM, used: widen(markSds[i]!, wide) })),
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
    bestWithoutFlags: inQuestion.length ? bestFrom(ledgerInput(record, course, innocent), relativeSd) : null,
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
