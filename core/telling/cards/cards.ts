import type { TestResults } from "#core/analysis";
import { type ClimbFigures, type JointPair, type SweepResults, lessText } from "#core/compare";
import { estimateToken, spanOf, type Estimate } from "#core/base";
import type { TestRecord } from "#core/records";
import { isTold, type SheetPlace } from "../sheet/comparisonSheet.ts";
import { conditionsLine, headlineFigures } from "../sheet/testSheet.ts";
import type { Card, CardRow } from "./card.ts";

/** Figures that a card has room for. */
const MOST_FIGURES = 4;

/** A test's figure, large. */
export const headlineCard = (record: TestRecord, results: TestResults): Card => ({
  title: record.test.title,
  line: conditionsLine(record),
  content: { kind: "figures", figures: headlineFigures(results).slice(0, MOST_FIGURES) },
});

/** The strip of a test, with its figure in the line under the title. */
export const stripCard = (record: TestRecord, { best }: TestResults): Card => ({
  title: record.test.title,
  line: `${record.bike.name}: ${estimateToken(best.value, "energyPerDistance")}`,
  content: { kind: "strip" },
});

/** Standings under some conditions. */
export const standingsCard = (places: readonly SheetPlace[], under: string): Card => ({
  title: `Energy for the way, ${under}`,
  line: "Each dot a bike, each line the span that holds the truth 95 times in 100.",
  content: {
    kind: "rows",
    dimension: "energyPerDistance",
    says: "least first",
    rows: places.map(({ name, value, hollow }) => ({ name, value, hollow })),
  },
});

/** Two set-ups against each other. */
export function pairCard(a: string, b: string, { whole }: JointPair): Card {
  const { difference, chanceA } = whole;
  return {
    title: `${a} and ${b}`,
    line: lessText(chanceA, a, b, "used"),
    content: {
      kind: "figures",
      figures: [
        {
          key: "difference",
          value: difference,
          dimension: "energyPerDistance",
          says: `${a} less ${b}`,
          pencil: false,
          signed: true,
        },
        { key: "a", value: whole.a, dimension: "energyPerDistance", says: a, pencil: false },
        { key: "b", value: whole.b, dimension: "energyPerDistance", says: b, pencil: false },
      ],
    },
  };
}

/** A bike's claims against what was measured. */
export interface ClaimedRanges {
  readonly bike: string;
  readonly under: string;
  readonly ridden: Estimate | null;
  readonly range: Estimate;
  readonly claims: readonly { readonly lowM: number; readonly highM: number; readonly mode: string }[];
}

/** What is claimed of a bike beside its range as ridden and under the reference. */
export function claimCard({ bike, under, ridden, range, claims }: ClaimedRanges): Card {
  const rowOf = (name: string, value: Estimate, claimed?: CardRow["claimed"]): CardRow => ({
    name,
    value,
    span: spanOf(value),
    ...(claimed && { claimed }),
  });
  const sides = claims.flatMap(({ lowM, highM, mode }) => {
    const claimed = { low: lowM, high: highM };
    const named = (name: string) => (mode ? `${name}, claim ${mode}` : name);
    return [
      ...(ridden ? [rowOf(named("as ridden"), ridden, claimed)] : []),
      { ...rowOf(named(under), range, claimed), hollow: true },
    ];
  });
  return {
    title: `${bike}: claimed and measured`,
    line: "Boxes: claimed. Dots and lines: measured, with the span that holds the truth 95 times in 100.",
    content: { kind: "rows", dimension: "distance", says: "range", rows: sides },
  };
}

/** A bike's ranges by level, ground and season. */
export const rangesCard = (
  bike: string,
  rows: readonly {
    readonly level: string;
    readonly ground: string;
    readonly seasons: readonly { readonly name: string; readonly total: Estimate }[];
  }[],
): Card => ({
  title: `How far: ${bike}`,
  line: "Range on a whole charge, with the span that holds the truth 95 times in 100.",
  content: {
    kind: "rows",
    dimension: "distance",
    says: "range",
    rows: rows.flatMap(({ level, ground, seasons }) =>
      seasons.flatMap(({ name, total }) =>
        isTold(total) ? [{ name: `${level}, ${ground}, ${name}`, value: total, span: spanOf(total) }] : [],
      ),
    ),
  },
});

/** What speed costs, by a sweep. */
export const sweepCard = (name: string, { curves, spots }: SweepResults): Card => ({
  title: name,
  line: "Energy over speed: held speeds, and the road load fitted to them.",
  content: {
    kind: "curves",
    curves: curves.map(({ ground, drive, speedMps, whPerM }) => ({
      name: `${ground}, ${drive}`,
      speedMps,
      whPerM,
    })),
    spots: spots.map(({ speedMps, whPerM, oneWay }) => ({ speedMps, whPerM, hollow: oneWay })),
  },
});

/** Metres up on a common pack, by the runs up one hill. */
export const climbsCard = (
  hill: string,
  runs: readonly { readonly name: string; readonly figures: ClimbFigures }[],
): Card => ({
  title: `Up ${hill}`,
  line: "Height that one common pack would climb at this rate, with the span that holds the truth 95 times in 100.",
  content: {
    kind: "rows",
    dimension: "climb",
    says: "most first",
    rows: runs.flatMap(({ name, figures: { onCommonM } }) => (onCommonM ? [{ name, value: onCommonM }] : [])),
  },
});
