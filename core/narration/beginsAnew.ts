import { firstNotBefore, nth } from "#core/base";
import type { Said } from "./context.ts";
import { MOST_CHARGE } from "./continued.ts";
import type { Course, Unread } from "./course.ts";
import type { Found } from "./found.ts";
import { REASONS } from "./kills.ts";
import { isNotRidden } from "./kinds/distance.ts";
import type { Quantity } from "./quantities.ts";
import { wordsOf } from "./tokens.ts";

/** Words that govern the figure behind them: "we'll get to 12", "another five miles". */
const GOVERNED =
  /^(?:to|get|gets|do|does|did|make|makes|made|another|for|of|than|about|need|needs|within|around|maybe|like|next|last|every|each|or|only|at|in|by|least|most|over|under|up|a|the|be|go|goes|it's|than|per|and|see|say|says|claim|would|will|could|can|have|has|had|i'd|extra|further|first|got|gets|getting|managed|rode|went|ran|uses|used|his|hers|theirs)$/;
const SOON_OVER: ReadonlySet<string> = new Set([
  REASONS.plan,
  REASONS.whatIf,
  REASONS.negated,
  REASONS.claim,
  REASONS.question,
  REASONS.otherBike,
  REASONS.otherTime,
]);
/** Places this near on both sides, in the ride's unit or as a part of the way, leave no doubt. */
const [NEAR_PLACES, NEAR_PART] = [12, 0.5];

/** What a bike does at one moment, by unit. */
const LOADS: Readonly<Record<string, "speed" | "watts" | "amps" | "volts">> = {
  mph: "speed",
  "km/h": "speed",
  W: "watts",
  A: "amps",
  V: "volts",
};
const BESIDE_LOAD = /^(?:(?:and|at|with|it's|doing|pulling|drawing|the|display|says|motor)(?: |$)){0,4}$/;

/** "... or I'd fall off | 6 miles per hour 610 watts": two such figures one after the other are what is read. */
function isBesideLoad(quantity: Quantity, { quantities, tokens }: Said): boolean {
  const i = firstNotBefore(quantities.length, (each) => nth(quantities, each).from < quantity.from);
  const isLoad = (other: Quantity | undefined) =>
    other !== undefined && other.unit !== quantity.unit && LOADS[other.unit ?? ""] !== undefined;
  const [before, after] = [quantities[i - 1], quantities[i + 1]];
  // "Count them down, 31 | 12 kilometres an hour": right behind a figure of something else.
  if (before?.to === quantity.from && before.unit === null) return true;
  return (
    (isLoad(after) && after !== undefined && BESIDE_LOAD.test(wordsOf(tokens, quantity.to, after.from))) ||
    (isLoad(before) && before !== undefined && BESIDE_LOAD.test(wordsOf(tokens, before.to, quantity.from)))
  );
}

/** "... before it'd do 18 | one bar, it's gone red": the next after the last. */
const barsAnew = ({ value, from }: Quantity, course: Course): Found | null => {
  const { before, after } = course.at("bars_left", from);
  return before !== null && value === before - 1 && value >= (after ?? 0)
    ? { kind: "bars_left", value, unit: null, because: "the next after the last bars" }
    : null;
};

/**
 * "... we'll see how far we get | ten miles, 35.9 at rest": in speech without stops, a place or a charge that fits the course, and
 * that nothing right before it governs, begins a statement of its own.
 */
export function beginsAnew(
  { quantity, because }: Unread,
  said: Said,
  course: Course,
  unit: "mi" | "km",
): Found | null {
  const { value, high, from, to, clock } = quantity;
  if (!said.isRaw || !SOON_OVER.has(because) || high !== null || clock) return null;
  const last = said.tokens[from - 1];
  if (!last || (GOVERNED.test(last.word) && last.pause === "")) return null;
  const around = said.around(from, to);
  if (quantity.unit === "bar") return barsAnew(quantity, course);
  const load = LOADS[quantity.unit ?? ""];
  if (load)
    return isBesideLoad(quantity, said)
      ? { kind: load, value, unit: quantity.unit, because: "a figure of the motor beside another" }
      : null;
  const kind = quantity.unit === unit ? "distance" : quantity.unit === "%" ? "percent_left" : null;
  if (!kind || isNotRidden(around)) return null;
  const place = course.at(kind, from);
  const { after } = place;
  const before = place.before ?? (kind === "distance" ? 0 : null);
  if (before === null || after === null) return null;
  const fits =
    kind === "distance"
      ? value > before && value < after && after - before <= Math.max(NEAR_PLACES, NEAR_PART * before)
      : value < before && value > after && before - after <= MOST_CHARGE;
  return fits
    ? { kind, value, unit: quantity.unit, because: "it lies between what was read before and after it" }
    : null;
}
