import { fixed, formatBare, formatQuantity, formatUncertain, nth, unitOf, type System } from "#core/base";
import type { TestResults } from "#core/analysis";

/** What stands under the picture for a while, s of the film. */
export interface Cue {
  readonly fromS: number;
  readonly toS: number;
  readonly text: string;
}

/** Where a part of the film begins. */
export interface Chapter {
  readonly atS: number;
  readonly title: string;
}

/** The figures of a ride as they run along with its film, and its parts. */
export interface Film {
  readonly cues: readonly Cue[];
  readonly chapters: readonly Chapter[];
  /** Marks that nobody noted a time for, and so stand nowhere in it. */
  readonly untimed: number;
}

type Told = Pick<TestResults, "best" | "course" | "curve" | "capacity">;

/** The last cue stands for so long, s. */
const LAST_STANDS_S = 8;
/** Before so little of the way is ridden, Wh a mile says nothing, m. */
const TOO_SHORT_M = 800;

/** Energy a metre since the start, at a mark; null where too little was ridden. */
function soFarAt({ curve, capacity }: Told, mark: number): number | null {
  const [first, here] = [nth(curve, 0), nth(curve, mark)];
  const metres = here.distanceM - first.distanceM;
  const whPerM = ((here.used.mean - first.used.mean) * capacity.value.mean) / metres;
  return metres >= TOO_SHORT_M && whPerM > 0 ? whPerM : null;
}

/** "5.2 mi, 82 % left, about 14 Wh/mi so far"; at the last mark the ledger's own figure with its plus-or-minus. */
function figuresAt(told: Told, mark: number, system: System): string {
  const { distanceM, left } = nth(told.curve, mark);
  const soFar = soFarAt(told, mark);
  const rate =
    mark === told.curve.length - 1
      ? formatUncertain(told.best.value, "energyPerDistance", system)
      : soFar === null
        ? null
        : `about ${formatQuantity(soFar, "energyPerDistance", system, 0)} so far`;
  return [
    `${formatBare(distanceM, "distance", system)} ${unitOf("distance", system)}`,
    `${fixed(100 * left.mean, 0)} % left`,
    ...(rate === null ? [] : [rate]),
  ].join(", ");
}

/** What begins at a mark, in words: another level or ground, a section, the end; null where all goes on. */
function begins({ course }: Told, mark: number): string | null {
  if (mark === 0) return "Start";
  const kinds = nth(course.marks, mark).entries.map(({ body }) => body.kind);
  if (kinds.includes("end")) return "The end";
  if (kinds.includes("refill")) return "Charged";
  if (kinds.includes("lowPower")) return "Low power";
  const [before, after] = [course.legs[mark - 1], course.legs[mark]];
  if (!before || !after || (before.level === after.level && before.ground === after.ground)) return null;
  return [
    ...(before.level === after.level ? [] : [`${after.level}`]),
    ...(before.ground === after.ground ? [] : [`on ${after.ground}`]),
  ].join(" ");
}

/**
 * Captions and chapters of a film of the ride: from each mark on the figures there, until the next; a chapter where something
 * else begins.
 *
 * @param filmStartS the clock's time at which the film begins, s since 1970; what lies before it is left out
 * @returns cues and chapters in s of the film, in order
 */
export function filmOf(told: Told, filmStartS: number, system: System): Film {
  const timed = told.course.marks.flatMap(({ index, timeS, distanceM }) =>
    timeS === null || index >= told.curve.length ? [] : [{ index, atS: timeS - filmStartS, distanceM }],
  );
  const cues = timed.flatMap(({ index, atS }, i): readonly Cue[] => {
    const toS = timed[i + 1]?.atS ?? atS + LAST_STANDS_S;
    return toS > Math.max(0, atS)
      ? [{ fromS: Math.max(0, atS), toS, text: figuresAt(told, index, system) }]
      : [];
  });
  const titled = (what: string, index: number, distanceM: number) => {
    const where =
      index === 0 ? "" : `, ${formatBare(distanceM, "distance", system)} ${unitOf("distance", system)}`;
    return `${nth(what, 0).toUpperCase()}${what.slice(1)}${where}`;
  };
  const chapters = timed.flatMap(({ index, atS, distanceM }): readonly Chapter[] => {
    const what = begins(told, index);
    return what === null || atS < 0 ? [] : [{ atS, title: titled(what, index, distanceM) }];
  });
  // A film that begins on the way begins with what was ridden then, at the place its first caption tells.
  const under = timed.filter(({ atS }) => atS < 0).at(-1);
  const leg = under && told.course.legs[under.index];
  const begun: readonly Chapter[] =
    under && leg && chapters[0]?.atS !== 0
      ? [{ atS: 0, title: titled(`${leg.level} on ${leg.ground}`.trim(), under.index, under.distanceM) }]
      : [];
  return { cues, chapters: [...begun, ...chapters], untimed: told.course.marks.length - timed.length };
}
