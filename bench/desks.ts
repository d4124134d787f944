import { REFERENCES } from "#core/bike";
import { chanceLess, comparedOf, rankUnder, type ErrorComponents } from "#core/compare";
import { METRES_PER_MILE, Z_95, meanOf } from "#core/base";
import { analyseTest } from "#core/analysis";
import { DESK_TOLD, type DeskOptions } from "#core/world";
import { worldDesk } from "#tests/world";
import { middleOf } from "./measure.ts";

const HOUSE = REFERENCES[0]!;

/** A kind of desk, counted over its seeds. Shares are 0..1. */
export interface DeskLine {
  readonly name: string;
  readonly desks: number;
  /** 95 % spans under House that hold the truth; their half width and median error, as shares of it. */
  readonly covers: number;
  readonly half: number;
  readonly error: number;
  /** Median error of plain arithmetic, as ridden. */
  readonly plainError: number;
  /** Pairs of bikes in the right order, under House and by plain arithmetic. */
  readonly order: number;
  readonly plainOrder: number;
  /** Pairs called sure at 90 % that are right; null where none is. */
  readonly sureRight: number | null;
  readonly sure: number;
}

interface Brought {
  readonly truth: number;
  readonly mean: number;
  readonly sd: number;
  readonly traced: ErrorComponents;
  readonly plain: number;
}

const share = (hits: readonly boolean[]) => meanOf(hits.map(Number));

/** One desk brought to House: each bike's figure against what it truly takes. */
function bringDesk(seed: number, options: DeskOptions): readonly Brought[] {
  const { tests, truths } = worldDesk(seed, options, HOUSE);
  const reckoned = tests.flatMap((test) => {
    const results = analyseTest(test.record);
    return results.ok ? [{ ...test, results: results.value }] : [];
  });
  const { ranked } = rankUnder(comparedOf(reckoned), () => HOUSE);
  return ranked.map(({ tests: ids, under: { whPerM, traced } }) => {
    const own = ids.map((id) => reckoned[Number(id)]!);
    const plains = own.map(({ results: { plain, best } }) => plain?.whPerM ?? best.value.mean);
    return {
      truth: truths[own[0]!.bike]!,
      mean: whPerM.mean * METRES_PER_MILE,
      sd: whPerM.sd * METRES_PER_MILE,
      traced,
      plain: meanOf(plains) * METRES_PER_MILE,
    };
  });
}

const pairsOf = <T>(all: readonly T[]) => all.flatMap((a, i) => all.slice(i + 1).map((b) => [a, b] as const));

function deskLine(name: string, desks: number, options: DeskOptions): DeskLine {
  const brought = Array.from({ length: desks }, (_, i) => bringDesk(i + 1, options));
  const all = brought.flat();
  const pairs = brought.flatMap(pairsOf).map(([a, b]) => {
    const less = chanceLess(a.traced, b.traced);
    const chance = Math.max(less, 1 - less);
    return {
      right: a.mean < b.mean === a.truth < b.truth,
      plainRight: a.plain < b.plain === a.truth < b.truth,
      sure: chance >= 0.9,
    };
  });
  const sure = pairs.filter((pair) => pair.sure);
  return {
    name,
    desks,
    covers: share(all.map(({ truth, mean, sd }) => Math.abs(mean - truth) <= Z_95 * sd)),
    half: middleOf(all.map(({ mean, sd }) => (Z_95 * sd) / mean))!,
    error: middleOf(all.map(({ truth, mean }) => Math.abs(mean / truth - 1)))!,
    plainError: middleOf(all.map(({ truth, plain }) => Math.abs(plain / truth - 1)))!,
    order: share(pairs.map(({ right }) => right)),
    plainOrder: share(pairs.map(({ plainRight }) => plainRight)),
    sureRight: sure.length ? share(sure.map(({ right }) => right)) : null,
    sure: sure.length / pairs.length,
  };
}

/** The desks of the trial: by what was told, with one test a bike and with four, and bikes that scatter more than assumed. */
export const DESK_KINDS: Readonly<Record<string, DeskOptions>> = {
  ...Object.fromEntries(DESK_TOLD.map((told) => [told, { bikes: 6, riders: 2, testsEach: 1, told }])),
  "typical, four each": { bikes: 6, riders: 2, testsEach: 4, told: "typical" },
  "typical, scattered": { bikes: 6, riders: 2, testsEach: 1, told: "typical", scatter: 1.7 },
};

export const deskKind = (name: string, desks: number) => deskLine(name, desks, DESK_KINDS[name]!);

const percent = (value: number | null) => (value === null ? "" : (100 * value).toFixed(1)).padStart(8);
export const DESKS_HEAD = `${"desk told".padEnd(20)}  covers    half   error   plain   order   plain    sure   right`;
export const deskText = (line: DeskLine) =>
  `${line.name.padEnd(20)}${[line.covers, line.half, line.error, line.plainError, line.order, line.plainOrder, line.sure, line.sureRight].map(percent).join("")}`;

/** What is asked of a kind of desk: least cover, and most median error, least order where they are named. */
const ASKED: Readonly<
  Record<string, { readonly cover?: number; readonly error?: number; readonly order?: number }>
> = {
  typical: { error: 0.12 },
  track: { error: 0.08, order: 0.78 },
  "typical, scattered": { cover: 0.88 },
};
const MOST_COVER = 0.98;
const LEAST_RIGHT = 0.88;

/** What a kind's line falls short of, in words; empty when it holds. Shares are given three sds of chance. */
export function deskShortfalls(line: DeskLine): readonly string[] {
  const { cover = 0.92, error = 1, order = 0 } = ASKED[line.name] ?? {};
  const bikes = 6 * line.desks;
  const pairs = 15 * line.desks;
  const chance = (share: number, of: number) => 3 * Math.sqrt((share * (1 - share)) / Math.max(1, of));
  const { covers, sureRight, sure } = line;
  return [
    covers < cover - chance(cover, bikes) || covers > MOST_COVER + chance(MOST_COVER, bikes) ? "covers" : "",
    line.error > error * (1 + 4 / Math.sqrt(bikes)) ? "median error" : "",
    line.error > line.plainError ? "no better than plain" : "",
    line.order < Math.max(order, line.plainOrder) - chance(0.75, pairs) ? "order" : "",
    sureRight !== null && sureRight < LEAST_RIGHT - chance(LEAST_RIGHT, sure * pairs) ? "sure pairs" : "",
  ].filter(Boolean);
}
