import { KG_PER_LB, nth } from "#core/base";
import type { Figure } from "./figures.ts";
import { TEN_OF } from "./numberWords.ts";
import { BEHIND, partsOf } from "./parts.ts";
import { corrected, joinedSpans } from "./spans.ts";
import { isTime, joinedTimes, unsaidHours } from "./times.ts";
import { pauseBefore, wordsOf as words, type Token } from "./tokens.ts";
import { FEWEST_VOLTS, unitAt, type Unit } from "./units.ts";

/** A figure with its unit, or without one. */
export interface Quantity extends Figure {
  readonly unit: Unit | null;
  /** "a 52 volt system": the unit said as of one. */
  readonly singular: boolean;
  /** What was said first and taken back. */
  readonly withdrawn: number | null;
  /** Where it began, of a figure said as "from 8 to 7". */
  readonly began: number | null;
}

const SINGULAR = /^(volt|amp|watt|hour|mile|kilometre|kilometer|pound|bar|inch|degree|minute)$/;
const isFigure = (word: string) => /^\d/.test(word) || TEN_OF.has(word);

/** Gives each figure the unit that follows it, and the fraction that follows the unit. */
function united(tokens: readonly Token[], figure: Figure): Quantity {
  const base = { ...figure, singular: false, withdrawn: null, began: null };
  if (
    tokens[figure.from - 1]?.word === "$" ||
    tokens[figure.from - 1]?.word === "£" ||
    tokens[figure.from - 1]?.word === "€"
  )
    return { ...base, unit: "money" };
  // "36 more miles": the unit comes after what says that they are still to come.
  const more = tokens[figure.to]?.word === "more" || tokens[figure.to]?.word === "extra" ? 1 : 0;
  const pause = pauseBefore(tokens, figure.to);
  const parted = figure.decade ? pause === "sentence" : pause !== "";
  // "18 and a bit kilometres".
  const bit = words(tokens, figure.to, figure.to + 3) === "and a bit" ? 3 : 0;
  const found = parted ? null : unitAt(tokens, figure.to + more + bit);
  if (!found) return { ...base, unit: null };
  // "Thirteen miles, an hour and ten minutes", said without a stop.
  const hour = found.to - 2;
  if (found.unit === "mph" && tokens[hour]?.word === "an" && isTime(tokens, hour))
    return { ...base, unit: "mi", to: hour };
  // "Bars are still four, volts are 50.9".
  if (
    found.unit === "V" &&
    figure.value < FEWEST_VOLTS &&
    (/^(are|is|at|now)$/.test(tokens[found.to]?.word ?? "") || isFigure(tokens[found.to]?.word ?? ""))
  )
    return { ...base, unit: null };
  // "Good for 35 | mile 7.5, 55.1": the name of the next figure.
  if (
    tokens[found.to - 1]?.word === "mile" &&
    found.unit === "mi" &&
    figure.value !== 1 &&
    /^\d/.test(tokens[found.to]?.word ?? "") &&
    !unitAt(tokens, found.to + 1)
  )
    return { ...base, unit: null };
  // "It's 53.0, watts are bouncing".
  if (/^[VWA]$/.test(found.unit) && tokens[found.to]?.word === "are") return { ...base, unit: null };
  const { unit, to } = found;
  const singular = SINGULAR.test(tokens[to - 1]?.word ?? "");
  const rest = words(tokens, to, to + 3);
  const next = tokens[to];
  if (next && /^\.\d+$/.test(next.word) && next.glued && !figure.exact)
    return { ...base, unit, singular, value: figure.value + Number(next.word), to: to + 1, exact: true };
  const part = figure.exact ? undefined : BEHIND.get(rest);
  if (part !== undefined)
    return { ...base, unit, singular, value: figure.value + part, to: to + 3, exact: true };
  return { ...base, unit, singular, to };
}

const POUNDS_PER_STONE = 14;
const KG_PER_STONE = POUNDS_PER_STONE * KG_PER_LB;
/** A weight said again in another unit is rounded, as a part of it. */
const ROUNDED = 0.04;
/** "So what's that, 196 pounds". */
const AGAIN =
  /^(?:so |or |and )?(?:call it|that's|which is|what's that|that is|it's|is)?(?: about| around| roughly)?$/;

/** "14 stone 3", "twelve stone and six pounds" in stone; "14 stone, so that's 196 pounds" in pounds: one weight each. */
function joinedStones(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (const next of all) {
    const stones = out.at(-1);
    const between = stones?.unit === "st" ? words(tokens, stones.to, next.from) : "none";
    const isRest =
      stones?.unit === "st" &&
      (next.unit === null || next.unit === "lb") &&
      !next.exact &&
      next.value < POUNDS_PER_STONE &&
      /^(?:and)?$/.test(between) &&
      pauseBefore(tokens, stones.to) === "";
    const inStone = next.value / (next.unit === "kg" ? KG_PER_STONE : POUNDS_PER_STONE);
    if (stones && isRest) {
      const value = Math.round(1000 * (stones.value + inStone)) / 1000;
      out.splice(-1, 1, { ...stones, value, to: next.to, exact: true });
    } else if (
      stones &&
      (next.unit === "kg" || next.unit === "lb") &&
      AGAIN.test(between) &&
      Math.abs(inStone / stones.value - 1) < ROUNDED
    )
      out.splice(-1, 1, { ...next, from: stones.from });
    else out.push(next);
  }
  return out;
}

/** Every quantity of a text in the order it was said. */
export function quantitiesOf(tokens: readonly Token[], figures: readonly Figure[]): readonly Quantity[] {
  const hours = [...partsOf(tokens), ...unsaidHours(tokens)];
  const taken = (at: number) => hours.some(({ from, to }) => at >= from && at < to);
  const all = [
    ...figures.filter(({ from }) => !taken(from)).map((figure) => united(tokens, figure)),
    ...hours,
  ]
    .sort((a, b) => a.from - b.from)
    // "87 kilos.3": the decimal is its own figure's already.
    .filter(({ from }, i, sorted) => i === 0 || from >= nth(sorted, i - 1).to);
  return corrected(tokens, joinedSpans(tokens, joinedTimes(tokens, joinedStones(tokens, all))));
}
