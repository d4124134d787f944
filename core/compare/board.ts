import type { Ground } from "#core/log";
import { temperatureFactor } from "#core/pack";
import { good, type Result } from "#core/problems";
import { METRES_PER_MILE, scale, type Uncertain } from "#core/quantities";
import type { Bike, PackRecord } from "#core/records";
import type { TestDigest } from "#core/results";
import type { Factor, Reference } from "#core/roadload";
import type { Compared, PartOf } from "./compared.ts";
import { asRidden } from "./figure.ts";
import { inMeasure, type MeasureBasis, type MeasureName } from "./measure.ts";
import type { PackOption } from "./options.ts";
import { pooledTraced, type Traced } from "./traced.ts";
import { underReference } from "./underReference.ts";

/** What a standing is of: which conditions, which measure, which part of each ride. */
export interface BoardAsk {
  /** Null: each test as it was ridden. */
  readonly reference: Reference | null;
  readonly measure: MeasureName;
  /** The whole ride, a level by its place or name, or the throttle. */
  readonly level: string;
  readonly ground: Ground | null;
  /** One row for each test, or tests of a bike and set-up pooled. */
  readonly by: "test" | "set-up";
  readonly commonWh: number;
}

export interface BoardEntry {
  readonly compared: Compared;
  readonly digest: TestDigest;
  readonly setUpId: string | null;
  readonly pack: PackRecord;
  readonly option: PackOption | null;
}

export interface BoardRow {
  readonly id: string;
  /** Tests it rests on, the newest first. */
  readonly testIds: readonly string[];
  /** In the measure asked for, SI. */
  readonly figure: Traced;
  /** The plain arithmetic in the same measure, as ridden; null where there is none. */
  readonly plain: number | null;
  /** The reference lies outside what was ridden, by these. */
  readonly beyond: readonly Factor[];
}

export interface Board {
  readonly rows: readonly BoardRow[];
  /** Tests that have no such figure, and why. */
  readonly left: readonly { readonly testId: string; readonly why: string }[];
}

export const LEVEL_PLACES = [
  "whole ride",
  "lowest level",
  "middle level",
  "highest level",
  "throttle",
] as const;

/** Which parts a choice of level and ground means on a bike; undefined for the whole ride. */
export function partFor({ levels }: Bike, level: string, ground: Ground | null): PartOf | undefined {
  if (level === "whole ride" && ground === null) return undefined;
  const named =
    level === "lowest level"
      ? levels[0]
      : level === "highest level"
        ? levels.at(-1)
        : level === "middle level"
          ? levels[Math.floor((levels.length - 1) / 2)]
          : level;
  return (ridden, on) => (level === "whole ride" || ridden === named) && (ground === null || on === ground);
}

/** The pack's usable energy where the figure stands: on its ride, or at the reference's temperature. */
function capacityOf({ digest, pack }: BoardEntry, reference: Reference | null): Uncertain {
  if (!reference) return digest.capacity.value;
  const { tempC = 25 } = reference.conditions;
  return scale(digest.packLearned.after, temperatureFactor(pack.chemistry, tempC));
}

function basisOf(entry: BoardEntry, { reference, commonWh }: BoardAsk): MeasureBasis {
  const { distance, noted } = entry.digest;
  const climbM = entry.digest.climbM ?? noted.climbM;
  return {
    packId: entry.compared.packId,
    capacity: capacityOf(entry, reference),
    climbPerM: reference
      ? (reference.conditions.gainMPerMi ?? 0) / METRES_PER_MILE
      : climbM === null
        ? null
        : climbM / distance.value.mean,
    option: entry.option,
    commonWh,
  };
}

/** A test's figure as a board takes it, and the factors that lie far beyond what was ridden. */
export interface FigureOnBoard {
  readonly whPerM: Traced;
  readonly beyond: readonly Factor[];
}

/** What a test's figure depends on besides the test itself. */
export type FigureAsk = Pick<BoardAsk, "reference" | "level" | "ground">;

/** A test's figure under what a board asks for; a problem where it has none. */
export function figureFor(
  compared: Compared,
  { reference, level, ground }: FigureAsk,
): Result<FigureOnBoard> {
  const part = partFor(compared.ridden.bike, level, ground);
  if (!reference) {
    const found = asRidden(compared, part);
    return found.ok ? good({ whPerM: found.value, beyond: [] }) : found;
  }
  const found = underReference(compared, reference, part);
  return found.ok ? good({ whPerM: found.value.traced, beyond: found.value.beyond }) : found;
}

interface Figured {
  readonly entry: BoardEntry;
  readonly whPerM: Traced;
  readonly beyond: readonly Factor[];
}

/** A plain figure in the measure; null where there is none. */
function plainIn(entry: BoardEntry, ask: BoardAsk): number | null {
  const whPerM = entry.digest.plain?.whPerM;
  if (whPerM === undefined || ask.level !== "whole ride" || ask.ground !== null) return null;
  const found = inMeasure(
    ask.measure,
    { mean: whPerM, effects: {} },
    basisOf(entry, { ...ask, reference: null }),
  );
  return found.ok ? found.value.mean : null;
}

const mean = (values: readonly number[]) =>
  values.length ? values.reduce((sum, each) => sum + each, 0) / values.length : null;

/**
 * Every test, or bike and set-up, in one measure under one set of conditions, ready to be put in order. Tests of one
 * set-up are pooled by their own errors, while what they share stays.
 *
 * @param figure gives a test's figure; one that remembers makes a board of many tests quick
 */
export function boardOf(
  entries: readonly BoardEntry[],
  ask: BoardAsk,
  figure: typeof figureFor = figureFor,
): Board {
  const left: { testId: string; why: string }[] = [];
  const figured = entries.flatMap((entry): readonly Figured[] => {
    const { compared } = entry;
    const found = figure(compared, ask);
    if (!found.ok) {
      left.push({ testId: compared.id, why: found.problems[0]!.sentence });
      return [];
    }
    return [{ entry, ...found.value }];
  });
  const groups = new Map<string, Figured[]>();
  for (const each of figured) {
    const { compared, setUpId } = each.entry;
    const key =
      ask.by === "test" ? compared.id : [compared.bikeId, setUpId, compared.ridden.test.drive].join("/");
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  const rows = [...groups].flatMap(([id, group]): readonly BoardRow[] => {
    const { entry } = group[0]!;
    const found = inMeasure(
      ask.measure,
      pooledTraced(group.map(({ whPerM }) => whPerM)),
      basisOf(entry, ask),
    );
    if (!found.ok) {
      for (const each of group)
        left.push({ testId: each.entry.compared.id, why: found.problems[0]!.sentence });
      return [];
    }
    return [
      {
        id,
        testIds: group.map(({ entry: { compared } }) => compared.id),
        figure: found.value,
        plain: mean(group.flatMap((each) => plainIn(each.entry, ask) ?? [])),
        beyond: [...new Set(group.flatMap(({ beyond }) => beyond))],
      },
    ];
  });
  return { rows, left };
}
