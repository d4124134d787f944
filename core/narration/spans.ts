import type { Quantity } from "./quantities.ts";
import { breaks, pauseBefore, wordsOf as words, type Token } from "./tokens.ts";

const isNear = (low: number, high: number) => high > low && high <= low * 1.35 + 3;

/** Another figure follows, of the same measure: "850 watts, 900, 950", "520 watts, 540, there we go, 610". */
const goesOn = (tokens: readonly Token[], last: Quantity, next: Quantity | undefined) =>
  next?.unit === null && GOES_ON.test(words(tokens, last.to, next.from));
const GOES_ON = /^(?:(?:there we go|there it is|now|and|then|and now)(?: |$)){0,2}$/;

/** Two figures that are one: a span, or from where it began to where it is. */
export function joinedSpans(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (const [i, second] of all.entries()) {
    const first = out.at(-1);
    const said = first ? words(tokens, first.to, second.from) : "";
    if (
      first &&
      said === "to" &&
      first.unit !== null &&
      second.unit === null &&
      !second.exact &&
      second.value < first.value &&
      !breaks(tokens, first.to - 1, second.from)
    ) {
      out.splice(-1, 1, { ...second, unit: first.unit, from: first.from, began: first.value });
      continue;
    }
    const sameUnit =
      first &&
      (first.unit === null || first.unit === second.unit || (second.unit === null && said === "")) &&
      !(first.unit === null && second.unit === null && !/^(to|or|and|or maybe)?$/.test(said));
    if (!first || !sameUnit || first.clock || breaks(tokens, first.to - 1, second.from)) {
      out.push(second);
      continue;
    }
    const before = words(tokens, Math.max(0, first.from - 2), first.from);
    const named = /(level|assist|pas|mode|mile|number|past)$/.test(before);
    const between = /between/.test(before);
    const joins = /^(to|or|or maybe|maybe|or so to|up to|through)$/.test(said) || (said === "and" && between);
    const bare =
      said === "" &&
      second.unit !== "bar" &&
      !(second.unit === "V" && second.value - first.value > 1) &&
      (second.unit !== null ||
        (second.value - first.value <= 2 &&
          !first.exact &&
          first.value > 3 &&
          (tokens[first.to - 1]?.pause === "" || /\b(steady|doing|getting|seeing)$/.test(before)) &&
          /\b(steady|getting|seeing|wise|doing|going|about|like|around|at|pulling|drawing|hitting)$/.test(
            before,
          )) ||
        // "Pulling 340 350".
        (first.value >= 100 &&
          second.value - first.value <= 0.1 * first.value &&
          tokens[first.to - 1]?.pause === "" &&
          /\b(pulling|drawing|using)$/.test(before))) &&
      first.unit === null &&
      !named &&
      (first.exact === second.exact || second.value - first.value <= 0.6) &&
      isNear(first.value, second.value);
    const low = first.value;
    const high = second.high ?? second.value;
    // "21, 20 miles an hour": a figure that flickers, not one that is bettered.
    const flickers =
      said === "" &&
      first.unit === null &&
      /^(mph|km\/h|A|W)$/.test(second.unit ?? "") &&
      second.high === null &&
      !named &&
      first.value > second.value &&
      first.value - second.value <=
        (first.exact && second.exact ? 0.08 * first.value : Math.max(2, 0.08 * first.value));
    // "13 miles an hour, fourteen": one that flickers, its unit said first.
    const wavers =
      said === "" &&
      /^(mph|km\/h|A|W)$/.test(first.unit ?? "") &&
      first.high === null &&
      // "850 watts, 900, 950": they count on.
      !goesOn(tokens, second, all[i + 1]) &&
      pauseBefore(tokens, first.to) === "" &&
      second.high === null &&
      second.value > first.value &&
      second.value - first.value <= Math.max(1, 0.17 * first.value);
    if (wavers)
      out.splice(-1, 1, { ...second, unit: first.unit, value: low, high, from: first.from, approx: true });
    else if (joins && high > low && !named)
      out.splice(-1, 1, { ...second, value: low, high, from: first.from, approx: true });
    else if (said === "to" && high < low)
      out.splice(-1, 1, {
        ...second,
        unit: second.unit ?? (/\bbars\b/.test(words(tokens, first.from - 4, first.from)) ? "bar" : null),
        from: first.from,
        began: low,
      });
    else if (flickers)
      out.splice(-1, 1, {
        ...second,
        value: second.value,
        high: first.value,
        from: first.from,
        approx: true,
      });
    else if (bare) out.splice(-1, 1, { ...second, value: low, high, from: first.from, approx: true });
    else out.push(second);
  }
  return out;
}

const TAKES_BACK =
  /^(no|actually|sorry|wait|well|i mean|make that|or rather|rather|correction|let's call it|call it|let's say|no sorry|no wait|no it's|no that's|no actually|sorry no|no i mean|well more like|or no|oops)$/;

/** A figure that was taken back makes way for the one that stands. */
export function corrected(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (const second of all) {
    const first = out.at(-1);
    const said = first ? words(tokens, first.to, second.from) : "x";
    const fits = first && (first.unit === null || second.unit === null || first.unit === second.unit);
    const after = words(tokens, second.to, second.to + 3);
    const precise = /^to be (exact|precise)/.test(after) || /^(precisely|exactly)/.test(after);
    const takesBack =
      TAKES_BACK.test(said) || (said === "say" && pauseBefore(tokens, second.from - 1) === "clause");
    const again = said === "" && first && first.value === second.value && first.unit === null;
    // "Fifteen hundred, call it eleven": of something else.
    const isLike = first && (!/call it/.test(said) || second.value > 0.5 * first.value);
    if (fits && isLike && !breaks(tokens, first.to - 1, second.from) && (takesBack || again))
      out.splice(-1, 1, {
        ...second,
        unit: second.unit ?? first.unit,
        withdrawn: again ? first.withdrawn : first.value,
        from: again ? second.from : first.from,
      });
    else if (
      first &&
      fits &&
      precise &&
      second.from - first.to < 6 &&
      Math.abs(second.value - first.value) < 0.15 * Math.max(first.value, second.value)
    )
      out.splice(-1, 1, {
        ...second,
        unit: second.unit ?? first.unit,
        withdrawn: first.value,
        approx: false,
        side: null,
        from: first.from,
      });
    else out.push(second);
  }
  return out;
}
