import { nth } from "#core/base";
import type { Figure } from "./figures.ts";
import type { Token } from "./tokens.ts";
import { unitAt, type Unit } from "./units.ts";

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
const words = (tokens: readonly Token[], from: number, to: number) =>
  tokens
    .slice(from, to)
    .map(({ word }) => word)
    .join(" ");
const pauseBefore = (tokens: readonly Token[], at: number) => tokens[at - 1]?.pause ?? "";
const breaks = (tokens: readonly Token[], from: number, to: number) =>
  tokens.slice(from, to).some(({ pause }) => pause === "sentence" || pause === "question");

/** No pack has fewer. */
const FEWEST_VOLTS = 18;

/** "An hour and ten minutes". */
const isTime = (tokens: readonly Token[], at: number) =>
  tokens[at + 1]?.word === "hour" &&
  tokens[at + 2]?.word === "and" &&
  /^(minutes?|mins?)$/.test(tokens[at + 4]?.word ?? tokens[at + 5]?.word ?? "");

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
  const parted = figure.decade ? false : pauseBefore(tokens, figure.to) !== "";
  const found = parted ? null : unitAt(tokens, figure.to + more);
  if (!found) return { ...base, unit: null };
  // "Thirteen miles, an hour and ten minutes", said without a stop.
  const hour =
    found.unit === "mph"
      ? tokens.findIndex(({ word }, i) => i > figure.to && i < found.to && word === "an")
      : -1;
  if (hour > 0 && isTime(tokens, hour))
    return { ...base, unit: unitAt(tokens, figure.to + more + 0)?.unit === "mph" ? "mi" : null, to: hour };
  // "Bars are still four, volts are 50.9".
  if (
    found.unit === "V" &&
    figure.value < FEWEST_VOLTS &&
    /^(are|is|at|now)$/.test(tokens[found.to]?.word ?? "")
  )
    return { ...base, unit: null };
  const { unit, to } = found;
  const singular = SINGULAR.test(tokens[to - 1]?.word ?? "");
  const rest = words(tokens, to, to + 3);
  const next = tokens[to];
  if (next && /^\.\d+$/.test(next.word) && next.glued && !figure.exact)
    return { ...base, unit, singular, value: figure.value + Number(next.word), to: to + 1, exact: true };
  if (rest === "and a half" && !figure.exact)
    return { ...base, unit, singular, value: figure.value + 0.5, to: to + 3, exact: true };
  return { ...base, unit, singular, to };
}

/** Hours with what follows them as one time, s: "one hour 52", "an hour and a half", "9 minutes 49". */
function joinedTimes(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (let i = 0; i < all.length; i += 1) {
    const first = nth(all, i);
    if (first.unit !== "h" && first.unit !== "min") {
      out.push(first);
      continue;
    }
    const scale = first.unit === "h" ? 3600 : 60;
    const second = all[i + 1];
    const between = second ? words(tokens, first.to, second.from) : "x";
    const joins =
      second &&
      (between === "" || between === "and") &&
      pauseBefore(tokens, first.to) === "" &&
      second.value < 60 &&
      !second.exact;
    const finer = first.unit === "h" ? "min" : "s";
    if (joins && (second.unit === finer || second.unit === null)) {
      const third = all[i + 2];
      const more =
        second.unit === "min" && third?.unit === "s" && /^(and)?$/.test(words(tokens, second.to, third.from))
          ? third
          : null;
      const seconds = first.value * scale + second.value * (scale / 60) + (more ? more.value : 0);
      out.push({ ...first, value: seconds, unit: "s", to: (more ?? second).to, exact: true });
      i += more ? 2 : 1;
      continue;
    }
    out.push(first);
  }
  return out;
}

/** A figure, or what stands for one. */
const figured = (token: Token | undefined) =>
  /^(\d.*|one|two|three|four|five|six|seven|per|each|miles?|k|ks|half)$/.test(token?.word ?? "");

/** "an hour", "half an hour": times without a figure, as quantities of one hour or a half. */
function unsaidHours(tokens: readonly Token[]): readonly Quantity[] {
  const plain = {
    high: null,
    approx: false,
    side: null,
    decade: false,
    clock: false,
    singular: true,
    withdrawn: null,
    began: null,
  } as const;
  return tokens.flatMap(({ word, pause }, at): Quantity[] => {
    // "Thirty-one kilometres, hour and a half".
    if (word === "hour" && words(tokens, at + 1, at + 4) === "and a half" && tokens[at - 1]?.word !== "an")
      return figured(tokens[at - 1])
        ? []
        : [{ ...plain, value: 1.5, unit: "h" as const, from: at, to: at + 4, exact: true }];
    if (pause !== "" || (word !== "an" && word !== "a")) return [];
    const half = tokens[at + 1]?.word === "half" && tokens[at + 2]?.word === "hour";
    if (half) return [{ ...plain, value: 30, unit: "min" as const, from: at, to: at + 3, exact: true }];
    if (tokens[at + 1]?.word !== "hour") return [];
    if (
      tokens[at - 1]?.word === "half" ||
      tokens[at - 1]?.word === "quarter" ||
      (/^(miles?|kilomet(re|er)s?|km|mile)$/.test(tokens[at - 1]?.word ?? "") &&
        tokens[at - 1]?.pause === "" &&
        !isTime(tokens, at))
    )
      return [];
    const andHalf = words(tokens, at + 2, at + 5) === "and a half";
    return [
      {
        ...plain,
        value: andHalf ? 1.5 : 1,
        unit: "h" as const,
        from: at,
        to: andHalf ? at + 5 : at + 2,
        exact: andHalf,
      },
    ];
  });
}

const isNear = (low: number, high: number) => high > low && high <= low * 1.35 + 3;

/** Two figures that are one: a span, or from where it began to where it is. */
function joinedSpans(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
  const out: Quantity[] = [];
  for (const second of all) {
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
      (second.unit !== null ||
        (second.value - first.value <= 2 &&
          !first.exact &&
          first.value > 3 &&
          tokens[first.to - 1]?.pause === "" &&
          /\b(wise|doing|going|about|like|around|at|pulling|drawing|hitting)$/.test(before))) &&
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
      first.value - second.value <= Math.max(2, 0.08 * first.value);
    // "13 miles an hour, fourteen": one that flickers, its unit said first.
    const wavers =
      said === "" &&
      /^(mph|km\/h|A|W)$/.test(first.unit ?? "") &&
      first.high === null &&
      pauseBefore(tokens, first.to) === "" &&
      second.high === null &&
      second.value > first.value &&
      second.value - first.value <= Math.max(1, 0.17 * first.value);
    if (wavers)
      out.splice(-1, 1, { ...second, unit: first.unit, value: low, high, from: first.from, approx: true });
    else if (joins && high > low && !named)
      out.splice(-1, 1, { ...second, value: low, high, from: first.from, approx: true });
    else if (said === "to" && high < low) out.splice(-1, 1, { ...second, from: first.from, began: low });
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
function corrected(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
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
    if (fits && !breaks(tokens, first.to - 1, second.from) && (takesBack || again))
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

/** Every quantity of a text in the order it was said. */
export function quantitiesOf(tokens: readonly Token[], figures: readonly Figure[]): readonly Quantity[] {
  const hours = unsaidHours(tokens);
  const taken = (at: number) => hours.some(({ from, to }) => at >= from && at < to);
  const all = [
    ...figures.filter(({ from }) => !taken(from)).map((figure) => united(tokens, figure)),
    ...hours,
  ]
    .sort((a, b) => a.from - b.from)
    // "87 kilos.3": the decimal is its own figure's already.
    .filter(({ from }, i, sorted) => i === 0 || from >= nth(sorted, i - 1).to);
  return corrected(tokens, joinedSpans(tokens, joinedTimes(tokens, all)));
}
