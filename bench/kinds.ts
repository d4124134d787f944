import { liveView } from "#core/live";
import { METRES_PER_MILE, spanOf, Z_95 } from "#core/base";
import { cutRecord, lengthOf, analyseTest } from "#core/analysis";
import type { TestRecord } from "#core/records";
import { KINDS, type KindName, type Truth } from "#core/world";
import { worldTest } from "#tests/world";
import { middleOf } from "./measure.ts";

/** One kind of test, counted over its seeds. Shares are 0..1; null where there is nothing to count. */
export interface KindLine {
  readonly kind: KindName;
  readonly of: number;
  /** Tests that gave a figure. */
  readonly answered: number;
  /** 95 % spans of Wh/mi that hold the truth, and of usable energy. */
  readonly covers: number;
  readonly capacityCovers: number;
  /** Median relative error of best and of plain, and half width of the 95 % span. */
  readonly best: number;
  readonly plain: number | null;
  readonly half: number;
  /** True slips questioned; honest readings questioned. */
  readonly slips: number | null;
  readonly honest: number;
  /** Spans of the way left that hold it, at 35 and at 70 % of the way; rides that ended short of the span at 70 %. */
  readonly left35: number | null;
  readonly left70: number | null;
  readonly short70: number | null;
}

/** Whether the way left lay in its span, or short of it; null where the log so far told nothing. */
type Reached = "held" | "short" | "further" | null;

interface Outcome {
  readonly covers: boolean;
  readonly capacityCovers: boolean;
  readonly best: number;
  readonly plain: number | null;
  readonly half: number;
  readonly slip: boolean | null;
  readonly honest: number;
  readonly readings: number;
  readonly left35: Reached;
  readonly left70: Reached;
}

const share = (hits: readonly boolean[]) => hits.filter(Boolean).length / hits.length;
const holds = ({ mean, sd }: { mean: number; sd: number }, truth: number) =>
  Math.abs(mean - truth) <= Z_95 * sd;

/** The way left as the log stood at a share of the way, against what there truly was. */
function reachedAt(record: TestRecord, truth: Truth, along: number): Reached {
  const lengthM = lengthOf(record);
  const cut = analyseTest(cutRecord(record, along * lengthM));
  const view = cut.ok ? liveView(cut.value) : null;
  if (!view) return null;
  // In the log's own miles, as its reader rides on by them.
  const whole = (truth.rangeMi / truth.miles) * lengthM;
  const leftM = whole - view.distanceM;
  const { low, high } = spanOf(view.toEnd);
  return leftM < low ? "short" : leftM > high ? "further" : "held";
}

/** How one test is answered; null when it gets no figure. */
function outcomeOf(seed: number, kind: KindName): Outcome | null {
  const { record, truth } = worldTest(seed, kind);
  const reckoned = analyseTest(record);
  if (!reckoned.ok) return null;
  const { best, plain, capacity, flags, readings } = reckoned.value;
  const truly = truth.whPerMi / METRES_PER_MILE;
  const isSlip = ({ rootId }: { readonly rootId: string }) => rootId === truth.slip?.entryId;
  return {
    covers: holds(best.value, truly),
    capacityCovers: holds(capacity.value, truth.capacityWh),
    best: Math.abs(best.value.mean / truly - 1),
    plain: plain && Math.abs(plain.whPerM / truly - 1),
    half: (Z_95 * best.value.sd) / truly,
    slip: truth.slip && flags.some(isSlip),
    honest: flags.filter((flag) => !isSlip(flag)).length,
    readings: readings.length - (truth.slip ? 1 : 0),
    left35: reachedAt(record, truth, 0.35),
    left70: reachedAt(record, truth, 0.7),
  };
}

/** Rides seeds 1 to `count` of a kind. */
export function kindLine(kind: KindName, count: number): KindLine {
  const outcomes = Array.from({ length: count }, (_, i) => outcomeOf(i + 1, kind)).filter(
    (outcome) => outcome !== null,
  );
  const slips = outcomes.flatMap(({ slip }) => (slip === null ? [] : [slip]));
  const readings = outcomes.reduce((sum, each) => sum + each.readings, 0);
  const shareOf = (key: "left35" | "left70", where: Reached) => {
    const known = outcomes.map((outcome) => outcome[key]).filter((reached) => reached !== null);
    return known.length ? share(known.map((reached) => reached === where)) : null;
  };
  return {
    kind,
    of: count,
    answered: outcomes.length,
    covers: share(outcomes.map(({ covers }) => covers)),
    capacityCovers: share(outcomes.map(({ capacityCovers }) => capacityCovers)),
    best: middleOf(outcomes.map(({ best }) => best)) ?? NaN,
    plain: middleOf(outcomes.flatMap(({ plain }) => (plain === null ? [] : [plain]))),
    half: middleOf(outcomes.map(({ half }) => half)) ?? NaN,
    slips: slips.length ? share(slips) : null,
    honest: outcomes.reduce((sum, { honest }) => sum + honest, 0) / readings,
    left35: shareOf("left35", "held"),
    left70: shareOf("left70", "held"),
    short70: shareOf("left70", "short"),
  };
}

export const KIND_NAMES = Object.keys(KINDS) as readonly KindName[];

const percent = (value: number | null) => (value === null ? "" : (100 * value).toFixed(1)).padStart(8);

export const KINDS_HEAD = `${"kind of test".padEnd(18)}   tests  covers   packs    best   plain    half   slips  honest  left35  left70  short70`;

/** What is known to hold less often, and how often at least. */
const LEAST_COVER: Partial<Record<KindName, number>> = {
  // Wheels that nothing ever checked may be off by a quarter.
  "wheel unchecked": 0.88,
  "iron phosphate": 0.82,
  "meter off": 0.65,
};
/** Honest readings that are questioned: at most, where it is more than one in a hundred. */
const MOST_HONEST: Partial<Record<KindName, number>> = {
  ...{ ridges: 0.02, "hills, typed": 0.02, "hills, track": 0.02 },
  "iron phosphate": 0.025,
};
const MOST_COVER = 0.995;
/** The way left is held this often, and the ride ends short of its span no more often than this. */
const LEAST_LEFT = 0.9;
/** A slip of the last look cannot be told before the next one: until then the way left leans on it. */
const LEAST_LEFT_OF: Partial<Record<KindName, number>> = { "miles mistyped": 0.7, "wrong bar": 0.75 };
const MOST_SHORT = 0.1;
const LEAST_PACKS = 0.9;
/** Between 8 and 10 % nothing tells a meter that is off from a pack that is. */
const LEAST_PACKS_OF: Partial<Record<KindName, number>> = { "meter off": 0.65 };
const LEAST_SLIPS: Partial<Record<KindName, number>> = { "slip of ten": 0.9, "digits swapped": 0.9, "miles mistyped": 0.9 }; // prettier-ignore
/** What a kind's line falls short of, in words; empty when it holds. Shares are given three sds of chance. */
export function shortfalls(line: KindLine): readonly string[] {
  const { kind, of, answered, covers, capacityCovers, best, plain, slips, honest, short70 } = line;
  const lefts = [line.left35, line.left70];
  const leastLeft = LEAST_LEFT_OF[line.kind] ?? LEAST_LEFT;
  const chance = (share: number) => 3 * Math.sqrt((share * (1 - share)) / of);
  const least = LEAST_COVER[kind] ?? 0.92;
  const leastSlips = LEAST_SLIPS[kind];
  const leastPacks = LEAST_PACKS_OF[kind] ?? LEAST_PACKS;
  const mostHonest = MOST_HONEST[kind] ?? 0.01;
  return [
    answered < of ? "some got no figure" : "",
    covers < least - chance(least) || covers > MOST_COVER + chance(MOST_COVER) ? "covers" : "",
    capacityCovers < leastPacks - chance(leastPacks) ? "packs" : "",
    plain !== null && best > plain * (1 + 4 / Math.sqrt(of)) ? "best is no better than plain" : "",
    slips !== null && leastSlips !== undefined && slips < leastSlips - chance(leastSlips) ? "slips" : "",
    lefts.some((left) => left !== null && left < leastLeft - chance(leastLeft)) ? "way left" : "",
    leastLeft === LEAST_LEFT && short70 !== null && short70 > MOST_SHORT + chance(MOST_SHORT)
      ? "ends short of the way left"
      : "",
    honest > mostHonest ? "honest readings questioned" : "",
  ].filter(Boolean);
}

/** A kind's line as the trial prints it: in percent, with what it falls short of. */
export function kindText(line: KindLine): string {
  const { kind, of, answered, covers, capacityCovers, best, plain, half, slips, honest } = line;
  const short = shortfalls(line);
  return `${kind.padEnd(18)} ${`${answered}/${of}`.padStart(7)}${[covers, capacityCovers, best, plain, half, slips, honest, line.left35, line.left70, line.short70].map(percent).join("")}  ${short.length ? `OUTSIDE: ${short.join(", ")}` : "within"}`;
}
