import { firstNotBefore, nth } from "#core/base";
import type { Said } from "./context.ts";
import { figureOf, type Course, type Unread } from "./course.ts";
import type { Found } from "./found.ts";
import type { Quantity } from "./quantities.ts";
import { wordsOf } from "./tokens.ts";

const COUNTED = ["speed", "amps", "watts", "volts"] as const;

/** "Thirty-one. Thirty-three. Thirty-four miles an hour": the measure comes with the last of them. */
function aheadOf(quantity: Quantity, said: Said, course: Course): Found | null {
  let i = firstNotBefore(said.quantities.length, (each) => nth(said.quantities, each).from < quantity.from);
  if (nth(said.tokens, quantity.to - 1).pause === "") return null;
  for (let here = quantity; i + 1 < said.quantities.length; i += 1) {
    const next = nth(said.quantities, i + 1);
    if (next.from !== here.to || Math.abs(next.value - here.value) > here.value * 0.2) return null;
    const read = COUNTED.flatMap((kind) => course.of(kind)).find(({ at }) => at === next.from);
    if (read)
      return {
        kind: read.kind as Found["kind"],
        value: quantity.value,
        unit: read.unit,
        because: "figure after figure of one measure",
      };
    if (next.unit !== null) return null;
    here = next;
  }
  return null;
}

const COUNTS_ON = /^(?:there we go|there it is|now|and now|then|hang on|whoa|here we go|look at that)?$/;

/** So many words after a speed, and so near to it. */
const [AGAIN_WITHIN, AGAIN_NEAR] = [16, 3];

/** "17 miles an hour, and I'm hardly turning the pedals. 18." */
function speedAgain({ value, from, to }: Quantity, said: Said, course: Course): Found | null {
  const around = said.around(from, to);
  if (said.isRaw || around.before.trim() !== "" || around.after.trim() !== "") return null;
  const last = course.of("speed").findLast(({ at }) => at < from && from - at <= AGAIN_WITHIN);
  const figure = last ? figureOf(last) : null;
  return last && figure !== null && Math.abs(figure - value) <= Math.max(AGAIN_NEAR, 0.2 * figure)
    ? { kind: "speed", value, unit: last.unit, because: "a speed after a speed" }
    : null;
}

/** "11 miles an hour, 10, 9, 8": what is counted on, figure after figure. */
export function countedOn({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, clock, high } = quantity;
  if (unit !== null || clock || high !== null || value < 3) return null;
  const ahead = aheadOf(quantity, said, course) ?? speedAgain(quantity, said, course);
  if (ahead) return ahead;
  let i = firstNotBefore(said.quantities.length, (each) => nth(said.quantities, each).from < quantity.from);
  for (let here = quantity; i > 0; i -= 1) {
    const before = nth(said.quantities, i - 1);
    const between = wordsOf(said.tokens, before.to, here.from);
    if (!COUNTS_ON.test(between) || Math.abs(before.value - here.value) > Math.max(3, here.value * 0.2))
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
