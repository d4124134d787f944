import type { Said } from "./context.ts";
import { farthest, FEWEST, type Course, type Unread } from "./course.ts";
import type { Found } from "./found.ts";
import { REASONS, type Reason } from "./kills.ts";

const words = (said: Said, from: number, to: number) =>
  said.tokens
    .slice(from, to)
    .map(({ word }) => word)
    .join(" ");

const JOINS = /^(?:(?:and|at|with|battery|battery's|we're|it's|on|so|now|in|,)(?: |$)){0,3}$/;
const WEAK: ReadonlySet<Reason> = new Set([
  REASONS.negated,
  REASONS.plan,
  REASONS.whatIf,
  REASONS.unlicensed,
  REASONS.claim,
]);
const BESIDE_PLACE = /^(?:%|bar|V|h|min|s)$/;

/** A place with a charge, a time or volts right behind it is a report, whatever was said before it. */
export function reportsOf(
  said: Said,
  unread: readonly Unread[],
  course: Course,
  unit: "mi" | "km",
): readonly (readonly [from: number, found: Found])[] {
  const out: (readonly [number, Found])[] = [];
  const { quantities } = said;
  const open = new Map(unread.map((each) => [each.quantity.from, each] as const));
  quantities.forEach((place, i) => {
    const next = quantities[i + 1];
    if (
      !next ||
      !(place.unit === unit || (place.unit === null && (place.exact || place.to === next.from))) ||
      next.unit === null ||
      !BESIDE_PLACE.test(next.unit)
    )
      return;
    if (place.clock || place.high !== null || !JOINS.test(words(said, place.to, next.from))) return;
    if (said.tokens.slice(place.to - 1, next.from - 1).some(({ pause }) => pause === "sentence")) return;
    const [a, b] = [open.get(place.from), open.get(next.from)];
    const { before, after, count } = course.at("distance", place.from);
    const first = before ?? 0;
    // A whole figure right before its charge: only between two places.
    if (place.unit === null && !place.exact && (next.unit !== "%" || before === null || after === null))
      return;
    const isKilled = [a, b].some((each) => each && each.because !== REASONS.unlicensed);
    if ((isKilled && count < FEWEST) || place.value <= first || place.value > (after ?? farthest(first)))
      return;
    const charge = next.unit === "%" ? course.at("percent_left", next.from) : null;
    if (charge && charge.before !== null && (next.value > charge.before || next.value < (charge.after ?? 0)))
      return;
    if ((a && !WEAK.has(a.because)) || (b && !WEAK.has(b.because) && b.because !== REASONS.noTime)) return;
    const because = "a place with what was read there";
    if (a) out.push([place.from, { kind: "distance", value: place.value, unit, because }]);
    if (b && next.unit === "%")
      out.push([next.from, { kind: "percent_left", value: next.value, unit: "%", because }]);
    if (b && next.unit === "V")
      out.push([next.from, { kind: "volts", value: next.value, unit: "V", because }]);
    const scale = { h: 3600, min: 60, s: 1 }[next.unit as "h"];
    // "38 miles. Half an hour ago I would have bet".
    const isRidden = !/^(?:ago|later|earlier|break|before)$/.test(said.tokens[next.to]?.word ?? "");
    if (b && scale && isRidden && next.value * scale >= 300)
      out.push([
        next.from,
        { kind: "elapsed_time", value: Math.round(next.value * scale), unit: "s", because },
      ]);
  });
  return out;
}
