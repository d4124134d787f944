import { firstNotBefore, nth } from "#core/base";
import { beginsAnew } from "./beginsAnew.ts";
import type { Around, Said } from "./context.ts";
import { countedOn } from "./counted.ts";
import { Course, farthest, FEWEST, figureOf, type Read, type Unread } from "./course.ts";
import {
  barsContinued,
  chargeContinued,
  climbContinued,
  isListed,
  MOST_CHARGE,
  OTHER_MEASURE,
  usedContinued,
} from "./continued.ts";
import type { Found } from "./found.ts";
import { isOfAnother, killed, REASONS } from "./kills.ts";
import { isNotRidden, placeRead } from "./kinds/distance.ts";
import type { Quantity } from "./quantities.ts";
import { wordsOf } from "./tokens.ts";
import { pairsOf } from "./pairs.ts";
import { reportsOf } from "./reports.ts";
import { rowsOf } from "./rows.ts";

/** Where a figure stands for itself: nothing before it in its statement, or what only leads up to a state. */
const LEADS_UP =
  /(?:^|\b(?:at|on|to|now|that's|it's|is|says|showing|shows|reading|and|so|there|here|made it|up|around|top|again|back|just|call it|water tower|house|point|battery|bars?|blinking|flashing|gone|dead|off|red|now we're)) (?:now |about |just |like |only |around |down to )?$/;
const OTHER_AFTER =
  /^in (?:the )?(?:front|back|rear)\b|^(?:on the|for the) (?:volts?|voltage|amps?|heart|pulse)|^(?:inch|by|or nothing|of (?:them|the|us|you)|people|guys|riders|bikes|seconds?)\b/;

/** What is read at a place. */
const BESIDE = ["percent_left", "bars_left", "volts", "elapsed_time"];
const METERED =
  /^(?:on (?:the|my) (?:clock|trip|meter|computer|display|phone|gps|odometer|screen|watch)|so far|altogether|in total|total|all in)\b/;
const ROUND = 5;
/** Places this near, in the ride's unit, leave little room between them. */
const NEAR_MILES = 12;
const PASSED =
  /\b(?:there's|here's|that's|there goes|here comes|past|passed|call it|i make it|we're at|i'm at|it's|just (?:hit|did|ticked)) (?:the |our |my |exactly |about |just )?$/;
const EVEN =
  /^(?:flat|even|dead|exactly|bang on|on the (?:dot|nose|button)|up\b|already|done|now|gone|behind)\b/;

/** "Thirty, and that's gone quickly", "there's the seventy": a round place between those before and after it. */
function milestoneOf(
  { quantity, around }: { readonly quantity: Quantity; readonly around: Around },
  course: Course,
  unit: "mi" | "km",
): Found | null {
  const { value, from, parted } = { ...quantity, parted: around.parted };
  const { before, after, count } = course.at("distance", from);
  if (count < FEWEST || before === null || after === null || value <= before || value >= after) return null;
  const charge = course.at("percent_left", from);
  const asCharge = charge.before !== null && value < charge.before && value > (charge.after ?? 0);
  if (asCharge || OTHER_MEASURE.test(around.before) || OTHER_AFTER.test(around.after)) return null;
  const alone = around.clause.trim() === "" && (parted || EVEN.test(around.after));
  const passes =
    PASSED.test(` ${around.clause}`) && (parted || around.after === "" || EVEN.test(around.after));
  // A sentence of its own, far above any charge.
  const isAll =
    around.before.trim() === "" &&
    /^[ .]*$/.test(around.after) &&
    after - before <= NEAR_MILES &&
    course.beside("speed", from).length === 0 &&
    (charge.before === null || value > charge.before);
  const isRound = isAll || (value % ROUND === 0 && (alone || passes));
  return isRound || EVEN.test(around.after.replace(/^(?:up|now|done|gone)\b/, ""))
    ? { kind: "distance", value, unit, because: "a round place between those before and after it" }
    : null;
}

/** "3.5, 6.6, 10.3, 14.1 and 18": one of a row of as many. */
const ROW = 4;
function isInRow({ from }: Quantity, { quantities, tokens }: Said): boolean {
  let i = firstNotBefore(quantities.length, (each) => nth(quantities, each).from < from);
  const touches = (a: Quantity | undefined, b: Quantity | undefined) =>
    a?.unit === null && b?.unit === null && /^(?:and)?$/.test(wordsOf(tokens, a.to, b.from));
  while (touches(quantities[i - 1], quantities[i])) i -= 1;
  let end = i;
  while (touches(quantities[end], quantities[end + 1])) end += 1;
  return end - i + 1 >= ROW;
}

/** A distance that fits between the one before and the one after, by its unit or its decimals. */
function distanceOf({ quantity }: Unread, said: Said, course: Course, unit: "mi" | "km"): Found | null {
  const { value, high, from, to, exact, clock } = quantity;
  const own = quantity.unit === unit;
  const around = said.around(from, to);
  const precise = exact || /^and (?:change|a (?:bit|half|quarter))\b/.test(around.after);
  if (quantity.unit === null && !precise && !isListed(quantity, said))
    return milestoneOf({ quantity, around }, course, unit);
  if ((quantity.unit !== null && !own) || clock || high !== null || (!own && !precise)) return null;
  // "Fifteen and a half, sixteen": a figure that flickers.
  const next =
    said.quantities[firstNotBefore(said.quantities.length, (i) => nth(said.quantities, i).from < to)];
  if (!own && next?.from === to && next.unit === null && Math.abs(next.value - value) <= 0.1 * value)
    return null;
  const { before, after, count } = course.at("distance", from);
  const first = before ?? 0;
  if (count < FEWEST || value <= first || value > (after ?? farthest(first))) return null;
  if (!own && isInRow(quantity, said)) return null;
  if (isNotRidden(around) || OTHER_MEASURE.test(around.before) || OTHER_AFTER.test(around.after)) return null;
  const volts = course.at("volts", from);
  const asVolts = [volts.before, volts.after].some(
    (each) => each !== null && Math.abs(value / each - 1) < 0.03,
  );
  // Between two known places a figure with decimals needs no words.
  const read =
    exact &&
    BESIDE.some((kind) => course.beside(kind, from).some(({ at }) => at - from > 0 && at - from <= 7));
  const sure =
    (read && before !== null && value <= Math.max(before * 2, before + 30)) ||
    METERED.test(around.after) ||
    (before !== null && after !== null && after - before <= Math.max(12, before * 0.35));
  const happened = /\b(?:dead|died|cut|out|gone|dropped|lost|blinking|flashing|flat|limp)\b/.test(
    around.before,
  );
  if (
    !own &&
    (asVolts || !(sure || around.clause.trim() === "" || happened || LEADS_UP.test(` ${around.clause}`)))
  )
    return null;
  return placeRead({ quantity, around }, unit, "it lies between the places before and after it");
}

/** Charge that fits between the readings before and after it, or is what a difference or the used part leaves. */
function percentOf(unread: Unread, said: Said, course: Course): Found | null {
  const { value, high, from, to, exact, clock, began, unit } = unread.quantity;
  if ((unit !== null && unit !== "%") || clock || high !== null || value > 100 || value < 0) return null;
  const { before, after, count } = course.at("percent_left", from);
  const used = course.beside("percent_used", from).flatMap((each) => figureOf(each) ?? []);
  const found = (because: string): Found => ({ kind: "percent_left", value, unit: "%", because });
  const around = said.around(from, to);
  if (
    /^(?:minutes?|seconds?|of|instead of|versus|vs|against|compared)\b/.test(around.after) ||
    OTHER_MEASURE.test(around.before)
  )
    return null;
  if (used.some((each) => Math.abs(100 - each - value) < 1e-6)) return found("what is left of the whole");
  if (before === null) return null;
  if (used.some((each) => Math.abs(before - each - value) < 1e-6)) return found("what the difference leaves");
  if (began !== null && Math.abs(began - before) <= 1 && value < began)
    return found("from one charge to the next");
  const fits = value < before && value >= Math.max(after ?? 0, before - MOST_CHARGE) && !exact;
  return fits && count >= FEWEST && unit === "%"
    ? found("it lies between the charges before and after it")
    : null;
}

/** How far volts are from the last ones, as a part of them. */
const VOLTS_NEAR = 0.1;
/** And from what the pack is said to have. */
const PACK_NEAR = 0.18;

/** Volts with a decimal near the last ones, where no place on the way can be meant. */
function voltsOf({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, from, to, exact, clock, high } = quantity;
  if (unit !== null || clock || high !== null || value < 20) return null;
  const words = said.around(from, to);
  const even =
    EVEN.test(words.after) &&
    (course.beside("distance", from).some(({ at }) => Math.abs(at - from) <= 8) ||
      course.beside("bars_left", from).some(({ at }) => at < from && from - at <= 4));
  if (!exact && (!even || course.at("percent_left", from).count > 0)) return null;
  const { before: last, after } = course.at("volts", from);
  // Before any was said, what the pack is said to have.
  const before = last ?? course.of("pack_v").map(figureOf).at(-1) ?? null;
  const within = last === null ? PACK_NEAR : VOLTS_NEAR;
  const near = (each: number | null, by = within) => each !== null && Math.abs(value / each - 1) < by;
  const way = course.at("distance", from);
  const first = way.before ?? 0;
  if (!near(before) || (after !== null && !near(after, 2 * VOLTS_NEAR))) return null;
  // "It's dead at 46. 46.0."
  if (course.beside("distance", from).some((each) => figureOf(each) === value)) return null;
  if (value > first && value <= (way.after ?? farthest(first))) return null;
  const { clause, after: rest } = words;
  if (
    /\b(?:was|were|been|full is|flat is|empty is|charged is) $/.test(clause) ||
    /^(?:at the start|so there)/.test(rest)
  )
    return null;
  if (OTHER_MEASURE.test(words.before.replace(/\b(?:volts?|voltage)\b/g, " "))) return null;
  return { kind: "volts", value, unit: "V", because: "near the volts before it" };
}

/**
 * Figures that nothing licenses by itself and that the course of the ride, known once all of it was read, leaves only one place
 * for: between the distance before and the one after, between two charges, or as what a difference leaves.
 *
 * @returns by the token a figure begins at, what it is
 */
export function placesInCourse(
  said: Said,
  unread: readonly Unread[],
  read: readonly Read[],
  unit: "mi" | "km",
): ReadonlyMap<number, Found> {
  const course = new Course(read);
  const out = new Map<number, Found>([
    ...reportsOf(said, unread, course, unit),
    ...rowsOf(said, unread, course, unit),
    ...pairsOf(said, unread, course),
  ]);
  for (const each of unread) {
    const { quantity, because } = each;
    const anew = beginsAnew(each, said, course, unit);
    if (anew && !out.has(quantity.from)) out.set(quantity.from, anew);
    const isOpen =
      because === REASONS.unlicensed || (because === REASONS.size && /^(m|ft)$/.test(quantity.unit ?? ""));
    if (out.has(quantity.from) || !isOpen) continue;
    const around = said.around(quantity.from, quantity.to);
    if (killed(around) || isOfAnother(around)) continue;
    const found =
      percentOf(each, said, course) ??
      chargeContinued(each, said, course) ??
      barsContinued(each, said, course) ??
      climbContinued(each, said, course) ??
      countedOn(each, said, course) ??
      usedContinued(each, said, course) ??
      voltsOf(each, said, course) ??
      distanceOf(each, said, course, unit);
    if (found) out.set(quantity.from, found);
  }
  return out;
}
