import { firstNotBefore, nth } from "#core/base";
import type { Said } from "./context.ts";
import { Course, farthest, FEWEST, figureOf, type Read, type Unread } from "./course.ts";
import type { Found } from "./found.ts";
import { isOfAnother, killed, REASONS } from "./kills.ts";
import { isNotRidden } from "./kinds/distance.ts";
import { namedBefore } from "./named.ts";
import { reportsOf } from "./reports.ts";

/** Charge that goes between two readings, %, at most. */
const MOST_CHARGE = 30;
/** Where a figure stands for itself: nothing before it in its statement, or what only leads up to a state. */
const LEADS_UP =
  /(?:^|\b(?:at|on|to|now|that's|it's|is|says|showing|shows|reading|and|so|there|here|made it|up|around|top|again|back|just|call it|water tower|house|point|battery|bars?|blinking|flashing|gone|dead|off|red|now we're)) (?:now |about |just |like |only |around |down to )?$/;
const OTHER_MEASURE = namedBefore(
  "speed|average|pulse|heart rate|voltage|volts|amps|watts|temperature|range|level|assist|pressure|weigh|(?<!the )(?:max|top)|cost|price|number",
);
const OTHER_AFTER =
  /^(?:on the|for the) (?:volts?|voltage|amps?|heart|pulse)|^(?:inch|by|or nothing|of (?:them|the|us|you)|people|guys|riders|bikes|seconds?)\b/;

/** A distance that fits between the one before and the one after, by its unit or its decimals. */
function distanceOf({ quantity }: Unread, said: Said, course: Course, unit: "mi" | "km"): Found | null {
  const { value, high, from, to, exact, clock } = quantity;
  const own = quantity.unit === unit;
  const around = said.around(from, to);
  const precise = exact || /^and (?:change|a (?:bit|half|quarter))\b/.test(around.after);
  if ((quantity.unit !== null && !own) || clock || high !== null || (!own && !precise)) return null;
  const { before, after, count } = course.at("distance", from);
  const first = before ?? 0;
  if (count < FEWEST || value <= first || value > (after ?? farthest(first))) return null;
  if (isNotRidden(around) || OTHER_MEASURE.test(around.before) || OTHER_AFTER.test(around.after)) return null;
  const volts = course.at("volts", from);
  const asVolts = [volts.before, volts.after].some(
    (each) => each !== null && Math.abs(value / each - 1) < 0.03,
  );
  // Between two known places a figure with decimals needs no words.
  const sure = before !== null && after !== null && after - before <= Math.max(12, before * 0.35);
  if (!own && (asVolts || !(sure || around.clause.trim() === "" || LEADS_UP.test(` ${around.clause}`))))
    return null;
  return { kind: "distance", value, unit, because: "it lies between the places before and after it" };
}

/** Charge that fits between the readings before and after it, or is what a difference or the used part leaves. */
function percentOf({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, high, from, to, exact, clock, began, unit } = quantity;
  if ((unit !== null && unit !== "%") || clock || high !== null || value > 100 || value < 0) return null;
  const { before, after, count } = course.at("percent_left", from);
  const used = course.beside("percent_used", from).flatMap((each) => figureOf(each) ?? []);
  const found = (because: string): Found => ({ kind: "percent_left", value, unit: "%", because });
  const around = said.around(from, to);
  if (/^(?:minutes?|seconds?|of)\b/.test(around.after) || OTHER_MEASURE.test(around.before)) return null;
  if (used.some((each) => Math.abs(100 - each - value) < 1e-6)) return found("what is left of the whole");
  if (before === null) return null;
  if (used.some((each) => Math.abs(before - each - value) < 1e-6)) return found("what the difference leaves");
  if (began !== null && Math.abs(began - before) <= 1 && value < began)
    return found("from one charge to the next");
  const fits = value < before && value >= Math.max(after ?? 0, before - MOST_CHARGE) && !exact;
  if (!fits || count < FEWEST) return null;
  if (unit === "%") return found("it lies between the charges before and after it");
  const place = course.beside("distance", from).length > 0 || /^at #_?(mi|km)?\b/.test(around.after);
  const states =
    /\b(?:at|on|to|showing|shows|says|reads|reading|now|leaves|leaving) (?:about |just |like |only )?$/;
  const sure =
    after !== null &&
    course.beside("distance", from).some((each) => from - each.at > 0 && from - each.at <= 6);
  return (sure || states.test(around.clause)) &&
    place &&
    !/\b(?:level|assist|mile|speed|doing)\b/.test(around.clause)
    ? found("it lies between the charges before and after it")
    : null;
}

const COUNTED = ["speed", "amps", "watts", "volts"] as const;

/** "11 miles an hour, 10, 9, 8": what is counted on, figure after figure. */
function countedOn({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, clock, high } = quantity;
  if (unit !== null || clock || high !== null || value < 3) return null;
  let i = firstNotBefore(said.quantities.length, (each) => nth(said.quantities, each).from < quantity.from);
  for (let here = quantity; i > 0; i -= 1) {
    const before = nth(said.quantities, i - 1);
    if (before.to !== here.from || Math.abs(before.value - here.value) > Math.max(3, here.value * 0.2))
      return null;
    const last = COUNTED.flatMap((kind) => course.of(kind)).find(({ at }) => at === before.from);
    if (last)
      return {
        kind: last.kind as Found["kind"],
        value,
        unit: last.unit,
        because: "figure after figure of one measure",
      };
    if (before.unit !== null) return null;
    here = before;
  }
  return null;
}

/** How far volts are from the last ones, as a part of them. */
const VOLTS_NEAR = 0.08;

/** Volts with a decimal near the last ones, where no place on the way can be meant. */
function voltsOf({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, from, to, exact, clock, high } = quantity;
  if (unit !== null || clock || high !== null || !exact || value < 20) return null;
  const { before, after } = course.at("volts", from);
  const near = (each: number | null) => each !== null && Math.abs(value / each - 1) < VOLTS_NEAR;
  const way = course.at("distance", from);
  const first = way.before ?? 0;
  if (!near(before) || (after !== null && !near(after))) return null;
  if (value > first && value <= (way.after ?? farthest(first))) return null;
  const { before: words, clause, after: rest } = said.around(from, to);
  if (
    /\b(?:was|were|been|full is|flat is|empty is) $/.test(clause) ||
    /^(?:at the start|so there)/.test(rest)
  )
    return null;
  if (OTHER_MEASURE.test(words.replace(/\b(?:volts?|voltage)\b/g, " "))) return null;
  return { kind: "volts", value, unit: "V", because: "near the volts before it" };
}

/** "7 percent against 9": as much as went between the last two charges. */
function usedOf({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, from, to, high } = quantity;
  if (unit !== "%" || high !== null || value <= 0) return null;
  const own = course
    .of("percent_left")
    .filter((each) => each.at < from)
    .map(figureOf);
  const [last, first] = [own.at(-1) ?? null, own.at(-2) ?? null];
  if (last === null) return null;
  const went = [100 - last, ...(first === null ? [] : [first - last])];
  return went.some((each) => Math.abs(each - value) < 1e-6) &&
    !/^(?:of|grade|hill)\b/.test(said.around(from, to).after)
    ? { kind: "percent_used", value, unit: "%", because: "as much as went between two charges" }
    : null;
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
  const out = new Map<number, Found>(reportsOf(said, unread, course, unit));
  for (const each of unread) {
    const { quantity, because } = each;
    if (out.has(quantity.from) || because !== REASONS.unlicensed) continue;
    const around = said.around(quantity.from, quantity.to);
    if (killed(around) || isOfAnother(around)) continue;
    const found =
      percentOf(each, said, course) ??
      countedOn(each, said, course) ??
      usedOf(each, said, course) ??
      voltsOf(each, said, course) ??
      distanceOf(each, said, course, unit);
    if (found) out.set(quantity.from, found);
  }
  return out;
}
