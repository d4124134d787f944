import type { Said } from "./context.ts";
import type { Course, Unread } from "./course.ts";
import { MOST_CHARGE } from "./continued.ts";
import type { Found } from "./found.ts";
import { REASONS } from "./kills.ts";
import type { Quantity } from "./quantities.ts";
import { wordsOf } from "./tokens.ts";

/** What may stand between the two: "92 for me. 93.", "I'm at 88. And I'm at 90." */
const BETWEEN =
  /^(?:(?:for me|here|on mine|mine|and|and i'm|i'm|i've|and i've|got|and you've|you've|and yours|yours|yours is|and mine's|mine's|mine is|he's|she's|his is|hers is|on|at|still|is|says|what about|you|me|now|for \w+|(?:the )?\w+ (?:bike )?(?:has|is on|is at|was on)|on the \w+ bike) ?){0,7}$/;
/** Two bikes that ride together differ by less, %. */
const MOST_APART = 7;
/** So many words from a place on the way. */
const [AFTER_PLACE, BEFORE_PLACE] = [14, 8];
/** A gauge that wavers, %. */
const WAVERS = 2;

const isCharge = ({ unit, exact, clock, high, value }: Quantity) =>
  (unit === null || unit === "%") && !exact && !clock && high === null && value >= 0 && value <= 100;

/**
 * Charges of two who ride together, one after the other at one place. The first is taken for the one who tells the ride.
 *
 * @returns by the token a figure begins at, what it is
 */
export function pairsOf(
  said: Said,
  unread: readonly Unread[],
  course: Course,
): readonly (readonly [from: number, found: Found])[] {
  const { quantities, tokens } = said;
  const open = new Set(
    unread.flatMap(({ quantity, because }) => (because === REASONS.unlicensed ? [quantity.from] : [])),
  );
  const charges = new Set(course.of("percent_left").map(({ at }) => at));
  // "I'm at 61. And mine's on 64": the first read as a place.
  const places = new Set(course.of("distance").map(({ at }) => at));
  const because = "two charges at one place, of two who ride together";
  const isAtPlace = (first: number, last: number) =>
    course
      .of("distance")
      .some(
        ({ at }) => (at < first && first - at <= AFTER_PLACE) || (at > last && at - last <= BEFORE_PLACE),
      );
  return quantities.flatMap((one, i): (readonly [number, Found])[] => {
    const other = quantities[i + 1];
    if (!other || !isCharge(one) || !isCharge(other) || Math.abs(one.value - other.value) > MOST_APART)
      return [];
    if (!said.around(one.from, one.to).together || !BETWEEN.test(wordsOf(tokens, one.to, other.from)))
      return [];
    if (!isAtPlace(one.from, other.from)) return [];
    const fits = [one, other].every(({ from, value }) => {
      const { before, after } = course.at("percent_left", from);
      return (
        (open.has(from) || charges.has(from) || places.has(from)) &&
        before !== null &&
        value <= before + WAVERS &&
        value >= Math.max((after ?? 0) - WAVERS, before - MOST_CHARGE)
      );
    });
    if (!fits) return [];
    const found = ({ value }: Quantity, of: "mine" | "yours"): Found => ({
      ...{ kind: "percent_left", value, unit: "%", because, of },
    });
    return [
      [one.from, found(one, "mine")],
      [other.from, found(other, "yours")],
    ];
  });
}
