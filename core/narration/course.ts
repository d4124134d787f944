import { nth } from "#core/base";
import type { Said } from "./context.ts";
import type { Found } from "./found.ts";
import { isOfAnother, killed, REASONS, type Reason } from "./kills.ts";
import { isNotRidden } from "./kinds/distance.ts";
import { namedBefore } from "./named.ts";
import type { Quantity } from "./quantities.ts";

/** Something read already, as far as the course of the ride goes. */
export interface Read {
  readonly kind: string;
  readonly value: Found["value"];
  readonly unit: string | null;
  readonly of: Found["of"] | null;
  readonly at: number;
}
/** A figure that was left out, with why. */
export interface Unread {
  readonly quantity: Quantity;
  readonly because: Reason;
}

/** Between what two readings of a kind something was said: the last one before, and the first one after. */
interface Between {
  readonly before: number | null;
  readonly after: number | null;
}

/** How much farther one reading may be than the last, when none comes after it. */
const farthest = (from: number) => from + Math.max(8, from * 0.4);
/** Charge that goes between two readings, %, at most. */
const MOST_CHARGE = 30;
/** Words within which a difference or a rest belongs to a reading. */
const BESIDE_WORDS = 14;
/** Fewer readings of a kind make no course. */
const FEWEST = 2;

const figureOf = ({ value }: Pick<Read, "value">) => (typeof value === "number" ? value : null);

/** What is read of one kind on the charge that is ridden at a place in the text. */
function courseAt(read: readonly Read[], kind: string, at: number): Between & { readonly count: number } {
  const began = read.findLast((each) => each.kind === "full_charge" && each.at <= at)?.at ?? 0;
  const ends = read.find((each) => each.kind === "full_charge" && each.at > at)?.at ?? Infinity;
  const own = read.filter(
    (each) => each.kind === kind && each.at >= began && each.at < ends && figureOf(each) !== null,
  );
  const last = own.findLast((each) => each.at < at);
  const next = own.find((each) => each.at > at);
  return {
    before: last ? figureOf(last) : null,
    after: next ? figureOf(next) : null,
    count: own.length,
  };
}

const words = (said: Said, from: number, to: number) =>
  said.tokens
    .slice(from, to)
    .map(({ word }) => word)
    .join(" ");

const DISTANCE_UNIT = /^(mi|km)$/;
/** Where a figure stands for itself: nothing before it in its statement, or what only leads up to a state. */
const LEADS_UP =
  /(?:^|\b(?:at|on|to|now|that's|it's|is|says|showing|shows|reading|and|so|there|here|made it|up|around|top|again|back|just|call it|water tower|house|point|battery|bars?|blinking|flashing|gone|dead|off|red|now we're)) (?:now |about |just |like |only |around |down to )?$/;
const OTHER_MEASURE = namedBefore(
  "speed|average|pulse|heart rate|voltage|volts|amps|watts|temperature|range|level|assist|pressure|weigh|(?<!the )(?:max|top)|cost|price|number",
);
const OTHER_AFTER =
  /^(?:on the|for the) (?:volts?|voltage|amps?|heart|pulse)|^(?:inch|by|or nothing|of (?:them|the|us|you)|people|guys|riders|bikes|seconds?)\b/;

/** A distance that fits between the one before and the one after, by its unit or its decimals. */
function distanceOf(
  { quantity }: Unread,
  said: Said,
  read: readonly Read[],
  unit: "mi" | "km",
): Found | null {
  const { value, high, from, to, exact, clock } = quantity;
  const own = quantity.unit === unit;
  const around = said.around(from, to);
  const precise = exact || /^and (?:change|a (?:bit|half|quarter))\b/.test(around.after);
  if ((quantity.unit !== null && !own) || clock || high !== null || (!own && !precise)) return null;
  const { before, after, count } = courseAt(read, "distance", from);
  const first = before ?? 0;
  if (count < FEWEST || value <= first || value > (after ?? farthest(first))) return null;
  if (isNotRidden(around) || OTHER_MEASURE.test(around.before) || OTHER_AFTER.test(around.after)) return null;
  const volts = courseAt(read, "volts", from);
  const asVolts = [volts.before, volts.after].some(
    (each) => each !== null && Math.abs(value / each - 1) < 0.03,
  );
  if (!own && (asVolts || !(around.clause.trim() === "" || LEADS_UP.test(` ${around.clause}`)))) return null;
  return { kind: "distance", value, unit, because: "it lies between the places before and after it" };
}

/** Charge that fits between the readings before and after it, or is what a difference or the used part leaves. */
function percentOf({ quantity }: Unread, said: Said, read: readonly Read[]): Found | null {
  const { value, high, from, to, exact, clock, began, unit } = quantity;
  if ((unit !== null && unit !== "%") || clock || high !== null || value > 100 || value < 0) return null;
  const course = courseAt(read, "percent_left", from);
  const { before, after, count } = course;
  const beside = (kind: string) =>
    read.filter((each) => each.kind === kind && Math.abs(each.at - from) <= BESIDE_WORDS);
  const used = beside("percent_used").flatMap((each) => figureOf(each) ?? []);
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
  const place = beside("distance").length > 0 || /^at #_?(mi|km)?\b/.test(around.after);
  const states =
    /\b(?:at|on|to|showing|shows|says|reads|reading|now|leaves|leaving) (?:about |just |like |only )?$/;
  return states.test(around.clause) && place && !/\b(?:level|assist|mile|speed|doing)\b/.test(around.clause)
    ? found("it lies between the charges before and after it")
    : null;
}

const COUNTED = /^(?:speed|amps|watts|volts)$/;

/** "11 miles an hour, 10, 9, 8": what is counted on, figure after figure. */
function countedOn({ quantity }: Unread, said: Said, read: readonly Read[]): Found | null {
  const { value, unit, clock, high } = quantity;
  if (unit !== null || clock || high !== null || value < 3) return null;
  const counted = new Map(
    read.filter(({ kind }) => COUNTED.test(kind)).map((each) => [each.at, each] as const),
  );
  let i = said.quantities.indexOf(quantity);
  for (let here = quantity; i > 0; i -= 1) {
    const before = nth(said.quantities, i - 1);
    if (before.to !== here.from || Math.abs(before.value - here.value) > Math.max(3, here.value * 0.2))
      return null;
    const last = counted.get(before.from);
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

/** "7 percent against 9": as much as went between the last two charges. */
function usedOf({ quantity }: Unread, said: Said, read: readonly Read[]): Found | null {
  const { value, unit, from, to, high } = quantity;
  if (unit !== "%" || high !== null || value <= 0) return null;
  const own = read.filter((each) => each.kind === "percent_left" && each.at < from).map(figureOf);
  const [last, first] = [own.at(-1) ?? null, own.at(-2) ?? null];
  if (last === null) return null;
  const went = [100 - last, ...(first === null ? [] : [first - last])];
  return went.some((each) => Math.abs(each - value) < 1e-6) &&
    !/^(?:of|grade|hill)\b/.test(said.around(from, to).after)
    ? { kind: "percent_used", value, unit: "%", because: "as much as went between two charges" }
    : null;
}

const JOINS = /^(?:(?:and|at|with|battery|battery's|we're|it's|on|so|now|in|,)(?: |$)){0,3}$/;
const WEAK: ReadonlySet<Reason> = new Set([REASONS.plan, REASONS.whatIf, REASONS.unlicensed, REASONS.claim]);
const BESIDE_PLACE = /^(?:%|bar|V|h|min|s)$/;

/** A place with a charge, a time or volts right behind it is a report, whatever was said before it. */
function reportOf(
  said: Said,
  unread: readonly Unread[],
  read: readonly Read[],
  unit: "mi" | "km",
): readonly (readonly [from: number, found: Found])[] {
  const out: (readonly [number, Found])[] = [];
  const { quantities } = said;
  const open = new Map(unread.map((each) => [each.quantity.from, each] as const));
  quantities.forEach((place, i) => {
    const next = quantities[i + 1];
    if (!next || place.unit !== unit || next.unit === null || !BESIDE_PLACE.test(next.unit)) return;
    if (place.high !== null || !JOINS.test(words(said, place.to, next.from))) return;
    if (said.tokens.slice(place.to - 1, next.from - 1).some(({ pause }) => pause === "sentence")) return;
    const [a, b] = [open.get(place.from), open.get(next.from)];
    const { before, after, count } = courseAt(read, "distance", place.from);
    const first = before ?? 0;
    const isKilled = [a, b].some((each) => each && each.because !== REASONS.unlicensed);
    if ((isKilled && count < FEWEST) || place.value <= first || place.value > (after ?? farthest(first)))
      return;
    const charge = next.unit === "%" ? courseAt(read, "percent_left", next.from) : null;
    if (charge?.before != null && (next.value > charge.before || next.value < (charge.after ?? 0))) return;
    if ((a && !WEAK.has(a.because)) || (b && !WEAK.has(b.because) && b.because !== REASONS.noTime)) return;
    const because = "a place with what was read there";
    if (a) out.push([place.from, { kind: "distance", value: place.value, unit, because }]);
    if (b && next.unit === "%")
      out.push([next.from, { kind: "percent_left", value: next.value, unit: "%", because }]);
    if (b && next.unit === "V")
      out.push([next.from, { kind: "volts", value: next.value, unit: "V", because }]);
    const scale = { h: 3600, min: 60, s: 1 }[next.unit as "h"];
    if (b && scale && next.value * scale >= 300)
      out.push([
        next.from,
        { kind: "elapsed_time", value: Math.round(next.value * scale), unit: "s", because },
      ]);
  });
  return out;
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
  const out = new Map<number, Found>(reportOf(said, unread, read, unit));
  for (const each of unread) {
    const { quantity, because } = each;
    if (out.has(quantity.from) || because !== REASONS.unlicensed) continue;
    const around = said.around(quantity.from, quantity.to);
    if (killed(around) || isOfAnother(around)) continue;
    const found =
      percentOf(each, said, read) ??
      countedOn(each, said, read) ??
      usedOf(each, said, read) ??
      distanceOf(each, said, read, unit);
    if (found) out.set(quantity.from, found);
  }
  return out;
}
