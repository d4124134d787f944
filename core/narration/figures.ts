import { nth } from "#core/base";
import { hedgeOf } from "./hedges.ts";
import { isOne, isUnsaidHundred, ONE_OF, POINT, TEN_OF } from "./numberWords.ts";
import { wordsOf, type Token } from "./tokens.ts";
import { averageAt, voltsAt } from "./unsaidPoints.ts";

/** A figure as it was said: digits, words, halves, or two that make a span. */
export interface Figure {
  readonly value: number;
  /** The other end of a span, the higher. */
  readonly high: number | null;
  /** Tokens it is made of, the last one excluded. */
  readonly from: number;
  readonly to: number;
  readonly approx: boolean;
  /** Where the truth lies of an approximation said with a side. */
  readonly side: "below" | "above" | null;
  /** "in the 150s". */
  readonly decade: boolean;
  /** Whether it was said with a decimal or a half. */
  readonly exact: boolean;
  /** Written as "1:52". */
  readonly clock: boolean;
}

/** Words before "one" that make it stand for a thing. */
const NO_FIGURE_BEFORE_ONE =
  /^(lost|dropped|this|that|the|my|first|second|third|other|another|which|each|every|any|some|no|long|short|new|old|big|bigger|small|smaller|little|white|blue|red|black|green|grey|same|last|next|good|bad|quick|right|wrong|only|easy|real|early|earlier|previous|hard|is|was|an?|steep|nice|your|his|her)$/;
const UNIT_AFTER_ONE =
  /^(miles?|kilomet(re|er)s?|km|bars?|lights?|segments?|pips?|leds?|percent|%|amps?|hours?|minutes?|point|and|hundred|thousand|lap|metres?|volts?|degrees?|mph|out|of|left|or|to|more)$/;
const LITTLE = /^(little|green|white|blue|red|single)$/;
const NOUN_BEFORE_ONE =
  /^(level|assist|pas|mode|eco|number|setting|mile|down|to|at|on|had|is|still|class|step|gear)$/;

interface Read {
  readonly value: number;
  readonly to: number;
  readonly exact: boolean;
  readonly clock?: boolean;
}

/** A whole number in words from a place on, below a thousand thousands. */
function wordsAt(tokens: readonly Token[], at: number): Read | null {
  let [value, to, any] = [0, at, false];
  const word = () => tokens[to]?.word ?? "";
  const open = () => to === at || nth(tokens, to - 1).pause === "";
  const small = (): number | null => {
    if (!open()) return null;
    const tens = TEN_OF.get(word());
    if (tens !== undefined) {
      to += 1;
      const ones = open() ? ONE_OF.get(word()) : undefined;
      if (ones !== undefined && ones >= 1 && ones <= 9) {
        to += 1;
        return tens + ones;
      }
      return tens;
    }
    const ones = ONE_OF.get(word());
    if (ones === undefined) return null;
    to += 1;
    return ones;
  };
  // "A buck seventy", of a weight.
  const tens = TEN_OF.get(tokens[at + 2]?.word ?? "");
  if (word() === "a" && tokens[at + 1]?.word === "buck" && tens !== undefined)
    return { value: 100 + tens, to: at + 3, exact: false };
  // "Hundred and ten", at the head of a statement.
  const isHundred =
    word() === "hundred" &&
    tokens[at + 1]?.word === "and" &&
    (TEN_OF.has(tokens[at + 2]?.word ?? "") || ONE_OF.has(tokens[at + 2]?.word ?? ""));
  const first = isHundred
    ? 1
    : word() === "a" || word() === "an"
      ? ["hundred", "thousand"].includes(tokens[to + 1]?.word ?? "")
        ? ((to += 1), 1)
        : null
      : small();
  if (first === null) return null;
  value = first;
  any = true;
  // "one twenty", "one thirty one", "one eighteen": a hundred is left out.
  if (to === at + 1 && open() && isUnsaidHundred(tokens, at)) {
    if (word() === "oh") to += 1;
    value = first * 100 + (small() ?? 0);
  }
  /** The rest of a figure that has hundreds: "three hundred and four". */
  const hundreds = (before: number): number => {
    if (!open() || word() !== "hundred") return before;
    to += 1;
    const joined = tokens[to + 1]?.word ?? "";
    if (open() && word() === "and" && (ONE_OF.has(joined) || TEN_OF.has(joined))) to += 1;
    // "Six hundred, six fifty".
    const isAnother = ONE_OF.has(word()) && TEN_OF.has(tokens[to + 1]?.word ?? "");
    return Math.max(1, before) * 100 + (isAnother ? 0 : (small() ?? 0));
  };
  value = hundreds(value);
  if (open() && word() === "thousand") {
    to += 1;
    value = value * 1000 + hundreds(small() ?? 0);
  }
  return any ? { value, to, exact: false } : null;
}

/** "The battery is at 74. 5 km on", "level 3. 5 km": two figures, not one with a decimal. */
const OF_WHOLES =
  /\b(?:battery|charge|gauge|pack|percent|pulse|heart)\b|\b(?:level|assist|pas|mode|step|lap|run|number)$/;
const WHOLES_WITHIN = 5;

function digitsAt(tokens: readonly Token[], at: number): Read | null {
  const { word } = nth(tokens, at);
  if (/^\d+(:\d\d)+$/.test(word)) {
    const seconds = word.split(":").reduce((sum, part) => sum * 60 + Number(part), 0);
    return { value: seconds, to: at + 1, exact: true, clock: true };
  }
  if (!/^\.?\d/.test(word)) return null;
  const plain = /^\d{1,3}(,\d{3})+(\.\d+)?$/.test(word) ? word.replaceAll(",", "") : word.replace(",", ".");
  let [value, to, exact] = [Number(plain), at + 1, plain.includes(".")];
  const next = tokens[to];
  const pause = nth(tokens, at).pause;
  // "46 000": thousands with a blank.
  if (
    /^\d{1,3}$/.test(plain) &&
    pause === "" &&
    next &&
    /^\d{3}$/.test(next.word) &&
    !next.glued &&
    (next.word === "000" || plain.length === 1) &&
    !/^(mph|miles|watts?|amps?|percent|%)$/.test(tokens[to + 1]?.word ?? "")
  ) {
    value = value * 1000 + Number(next.word);
    to += 1;
  } else if (!exact && next && /^\.\d+$/.test(next.word)) {
    // "63 / .4": parted by the end of a caption.
    value += Number(next.word);
    to += 1;
    exact = true;
  } else if (
    !exact &&
    pause === "sentence" &&
    value !== 100 &&
    !OF_WHOLES.test(wordsOf(tokens, Math.max(0, at - WHOLES_WITHIN), at)) &&
    next &&
    /^\d$/.test(next.word) &&
    next.pause === "" &&
    /^(miles?|kilomet|km|percent|%|volts?|amps?)/.test(tokens[to + 1]?.word ?? "") &&
    nth(tokens, at).to + 2 >= next.from
  ) {
    value += Number(next.word) / 10;
    to += 1;
    exact = true;
  }
  return { value, to, exact };
}

const isBareOne = (tokens: readonly Token[], at: number) => {
  const before = tokens[at - 1];
  const after = tokens[at + 1]?.word ?? "";
  const word = before && /^(label)?$/.test(before.pause) ? before.word : "";
  if (nth(tokens, at).pause === "" && UNIT_AFTER_ONE.test(after) && !/^(the|this|that|another)$/.test(word))
    return false;
  if (nth(tokens, at).pause === "" && /^(mile|kilometre|kilometer|bar|hour)$/.test(after)) return false;
  if (LITTLE.test(after) && UNIT_AFTER_ONE.test(tokens[at + 2]?.word ?? "")) return false;
  if (NOUN_BEFORE_ONE.test(word)) return false;
  // "One twenty", of a pulse.
  if (nth(tokens, at).pause === "" && isUnsaidHundred(tokens, at) && !NO_FIGURE_BEFORE_ONE.test(word))
    return false;
  return NO_FIGURE_BEFORE_ONE.test(word) || !word || nth(tokens, at).pause !== "";
};

const STEP_BEFORE = /^(?:level|levels|assist|pas|mode|gear|number|mile)$/;

/** Adds what stands behind a whole: "point four", "and a half". */
function withFraction(tokens: readonly Token[], read: Read): Read {
  const at = (i: number) =>
    i > 0 && tokens[i - 1]?.pause !== "" && tokens[i - 1]?.pause !== "clause" ? "" : (tokens[i]?.word ?? "");
  if (read.exact) return read;
  if (POINT.test(at(read.to))) {
    let digits = "";
    let to = read.to + 1;
    while (digits.length < 3) {
      const word = tokens[to]?.word ?? "";
      const one = ONE_OF.get(word);
      const ten = TEN_OF.get(word);
      // "21 point 8 two hours": a figure in digits is not gone on with in words.
      // "Eighty-one point five, thirty-nine percent".
      if (digits && ten !== undefined) break;
      // "Eleven point seven, three point one"; "twenty-one point three, twelve": the next figure begins.
      if (digits && (POINT.test(tokens[to + 1]?.word ?? "") || (one ?? 0) > 9)) break;
      if (digits && /^\d+$/.test(tokens[to - 1]?.word ?? "") && !/^\d+$/.test(word)) break;
      if (/^\d+$/.test(word)) digits += word;
      else if (ten !== undefined) {
        const ones = ONE_OF.get(tokens[to + 1]?.word ?? "") ?? 0;
        digits += String(ten + ones);
        if (ones) to += 1;
      } else if (one !== undefined) digits += String(one);
      else break;
      to += 1;
      if (nth(tokens, to - 1).pause !== "") break;
    }
    if (digits) return { value: read.value + Number(`0.${digits}`), to, exact: true };
  }
  if (at(read.to) === "and" && /^an?$/.test(at(read.to + 1)) && /^(half|quarter)$/.test(at(read.to + 2)))
    return { value: read.value + (at(read.to + 2) === "half" ? 0.5 : 0.25), to: read.to + 3, exact: true };
  if (at(read.to) === "½") return { value: read.value + 0.5, to: read.to + 1, exact: true };
  return read;
}

/** "One two three point six": a figure said digit by digit. */
function spelledAt(tokens: readonly Token[], at: number): Read | null {
  let to = at;
  while (isOne(tokens[to]) && (to === at || nth(tokens, to - 1).pause === "")) to += 1;
  if (to - at < 3 || !POINT.test(tokens[to]?.word ?? "") || STEP_BEFORE.test(tokens[at - 1]?.word ?? ""))
    return null;
  const digits = tokens.slice(at, to).map(({ word }) => ONE_OF.get(word) ?? 0);
  return withFraction(tokens, { value: Number(digits.join("")), to, exact: false });
}

function readAt(tokens: readonly Token[], at: number): Read | null {
  const { word } = nth(tokens, at);
  if (word === "½") return { value: 0.5, to: at + 1, exact: true };
  if (word === "point" && /^\d$/.test(tokens[at + 1]?.word ?? ""))
    return { value: Number(`0.${nth(tokens, at + 1).word}`), to: at + 2, exact: true };
  const couple = word === "a" ? at + 1 : at;
  if (tokens[couple]?.word === "couple" && tokens[couple + 1]?.word === "of")
    return { value: 2, to: couple + 2, exact: false };
  if (word === "minus" || word === "negative") {
    const inner = at + 1 < tokens.length ? readAt(tokens, at + 1) : null;
    return inner && nth(tokens, at + 1).word !== "minus" ? { ...inner, value: -inner.value } : null;
  }
  const spelled = spelledAt(tokens, at) ?? voltsAt(tokens, at) ?? averageAt(tokens, at);
  if (spelled) return spelled;
  if (word === "one" && isBareOne(tokens, at)) return null;
  if (word === "oh") return null;
  const whole = digitsAt(tokens, at) ?? wordsAt(tokens, at);
  return whole && withFraction(tokens, whole);
}

/** Every figure of a text, each with how sure it was said; figures that make a span stay two until their units are known. */
export function figuresOf(tokens: readonly Token[]): readonly Figure[] {
  const found: Figure[] = [];
  for (let at = 0; at < tokens.length;) {
    const read = readAt(tokens, at);
    if (!read) {
      at += 1;
      continue;
    }
    const decade = tokens[read.to]?.word === "s" && nth(tokens, read.to).glued;
    const to = decade ? read.to + 1 : read.to;
    found.push({
      ...{
        value: read.value,
        high: null,
        from: at,
        to,
        exact: read.exact,
        clock: read.clock ?? false,
        decade,
      },
      ...hedgeOf(tokens, at, to),
      ...(decade && { approx: true }),
    });
    at = to;
  }
  return found;
}
