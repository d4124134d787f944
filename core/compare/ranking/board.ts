import type { Ground } from "#core/fields";
import { temperatureFactor } from "#core/battery";
import type { DeskPosterior } from "#core/desk";
import { nth, err, ok, type Result, METRES_PER_MILE, scale, meanIfAny } from "#core/base";
import type { Bike, PackRecord } from "#core/records";
import type { TestDigest } from "#core/analysis";
import type { Reference } from "#core/bike";
import type { Compared, PartOf } from "../compared.ts";
import { asRidden } from "../figure.ts";
import { inMeasure, onPack, type MeasureBasis, type MeasureName } from "./measure.ts";
import type { PackOption } from "./options.ts";
import { weightedMean, type ErrorComponents } from "../errorComponents.ts";
import { broughtTo, capacityUnder, subjectOf } from "../normalise/normaliseTo.ts";

/** What a standing is of: which conditions, which measure, which part of each ride. */
export interface BoardAsk {
  /** Null: each test as it was ridden. */
  readonly reference: Reference | null;
  readonly measure: MeasureName;
  /** The whole ride, a level by its place or name, or the throttle. */
  readonly level: string;
  readonly ground: Ground | null;
  /** As ridden: a row for each test, or tests of a bike and set-up pooled. Under a reference it is always the set-up's. */
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
  readonly figure: ErrorComponents;
  /** The plain arithmetic in the same measure, as ridden; null where there is none. */
  readonly plain: number | null;
  /** What the desk knows so little of that the figure is drawn hollow. */
  readonly beyond: readonly string[];
  /** The speed the motor holds where it does not hold the reference's, m/s. */
  readonly heldMps: number | null;
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
function capacityOf(
  { digest, pack, compared }: BoardEntry,
  desk: DeskPosterior,
  reference: Reference | null,
) {
  if (!reference) return onPack(compared.packId, digest.capacity.value);
  const { tempC = 25 } = reference.conditions;
  const usable = scale(digest.packLearned.after, temperatureFactor(pack.chemistry, tempC));
  return capacityUnder(desk, compared, usable);
}

function basisOf(entry: BoardEntry, desk: DeskPosterior, { reference, commonWh }: BoardAsk): MeasureBasis {
  const { distance, noted } = entry.digest;
  const climbM = entry.digest.climbM ?? noted.climbM;
  return {
    capacity: capacityOf(entry, desk, reference),
    climbPerM: reference
      ? (reference.conditions.gainMPerMi ?? 0) / METRES_PER_MILE
      : climbM === null
        ? null
        : climbM / distance.value.mean,
    option: entry.option,
    commonWh,
  };
}

/** A figure as a board takes it. */
export interface FigureOnBoard {
  readonly whPerM: ErrorComponents;
  /** What the desk knows so little of that the figure is drawn hollow. */
  readonly beyond: readonly string[];
  /** The speed the motor holds where it does not hold the reference's, m/s. */
  readonly heldMps: number | null;
}

/** What a figure depends on besides test and desk. */
export type FigureAsk = Pick<BoardAsk, "reference" | "level" | "ground">;

/** A bike's figure under a reference, on the ground that is asked for and by pedal or throttle as it was ridden or is asked for. */
function broughtFigure(
  desk: DeskPosterior,
  compared: Compared,
  reference: Reference,
  { level, ground }: FigureAsk,
): Result<FigureOnBoard> {
  const { bike } = compared.ridden;
  if (level === "throttle" && !bike.throttle) return err("no-throttle", "level", "It has no throttle.");
  if (level !== "whole ride" && level !== "throttle")
    return err(
      "levels-alike",
      "level",
      "Under a reference the speed and the rider's watts are given, whatever the level: levels differ as ridden.",
    );
  const on = ground ? { ...reference, conditions: { ...reference.conditions, ground } } : reference;
  const subject = subjectOf(compared);
  const found = broughtTo(desk, level === "throttle" ? { ...subject, drive: "throttle" } : subject, on);
  return ok({ whPerM: found.traced, beyond: found.beyond, heldMps: found.heldMps });
}

/** A test's figure as ridden, or its bike's under what a board asks for; a problem where there is none. */
export function figureFor(desk: DeskPosterior, compared: Compared, ask: FigureAsk): Result<FigureOnBoard> {
  const { reference, level, ground } = ask;
  if (compared.ridden.results.best.pencil)
    return err(
      "no-reading",
      "test",
      "Its figure is assumed, not measured: note a percent, volts, bars or a counter.",
    );
  if (reference) return broughtFigure(desk, compared, reference, ask);
  const found = asRidden(compared, partFor(compared.ridden.bike, level, ground));
  return found.ok ? ok({ whPerM: found.value, beyond: [], heldMps: null }) : found;
}

interface Figured extends FigureOnBoard {
  readonly entry: BoardEntry;
}

/** A plain figure in the measure; null where there is none. */
function plainIn(entry: BoardEntry, desk: DeskPosterior, ask: BoardAsk): number | null {
  const whPerM = entry.digest.plain?.whPerM;
  if (whPerM === undefined || ask.level !== "whole ride" || ask.ground !== null) return null;
  const found = inMeasure(
    ask.measure,
    { mean: whPerM, effects: {} },
    basisOf(entry, desk, { ...ask, reference: null }),
  );
  return found.ok ? found.value.mean : null;
}

/** What of a set-up makes a difference under a reference, which gives weight and lights. */
function mountOf({ ridden: { setUp } }: Compared) {
  return setUp && [setUp.tyreClass, setUp.posture, setUp.tyre, setUp.pressurePa];
}

/** One figure of a group: under a reference all its tests have spoken already; as ridden they are pooled. */
const figureOfGroup = (group: readonly Figured[], reference: Reference | null) =>
  reference ? nth(group, 0).whPerM : weightedMean(group.map(({ whPerM }) => whPerM));

/**
 * Every test as ridden, or every bike and set-up under a reference, in one measure, ready to be put in order. As ridden,
 * tests of one set-up are pooled by their own errors, while what they share stays.
 *
 * @param figure gives a figure; one that remembers makes a board of many tests quick
 */
export function boardOf(
  desk: DeskPosterior,
  entries: readonly BoardEntry[],
  ask: BoardAsk,
  figure: typeof figureFor = figureFor,
): Board {
  const left: { testId: string; why: string }[] = [];
  const figured = entries.flatMap((entry): readonly Figured[] => {
    const { compared } = entry;
    const found = figure(desk, compared, ask);
    if (!found.ok) {
      left.push({ testId: compared.id, why: nth(found.problems, 0).sentence });
      return [];
    }
    return [{ entry, ...found.value }];
  });
  const groups = new Map<string, Figured[]>();
  for (const each of figured) {
    const { compared, setUpId } = each.entry;
    const drive = ask.reference && ask.level === "throttle" ? "throttle" : compared.ridden.test.drive;
    const key =
      ask.by === "test" && !ask.reference
        ? compared.id
        : JSON.stringify([compared.bikeId, ask.reference ? mountOf(compared) : setUpId, drive]);
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  const rows = [...groups].flatMap(([id, group]): readonly BoardRow[] => {
    const { entry, heldMps } = nth(group, 0);
    const found = inMeasure(ask.measure, figureOfGroup(group, ask.reference), basisOf(entry, desk, ask));
    if (!found.ok) {
      for (const each of group)
        left.push({ testId: each.entry.compared.id, why: nth(found.problems, 0).sentence });
      return [];
    }
    return [
      {
        id,
        testIds: group.map(({ entry: { compared } }) => compared.id),
        figure: found.value,
        plain: meanIfAny(group.flatMap((each) => plainIn(each.entry, desk, ask) ?? [])),
        beyond: [...new Set(group.flatMap(({ beyond }) => beyond))],
        heldMps,
      },
    ];
  });
  return { rows, left };
}
