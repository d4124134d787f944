import { nth } from "#core/base";
import type { Quantity } from "./quantities.ts";
import { pauseBefore, wordsOf as words, type Token } from "./tokens.ts";
import { unitAt } from "./units.ts";

/** "An hour and ten minutes". */
export const isTime = (tokens: readonly Token[], at: number) =>
  tokens[at + 1]?.word === "hour" &&
  tokens[at + 2]?.word === "and" &&
  /^(minutes?|mins?)$/.test(tokens[at + 4]?.word ?? tokens[at + 5]?.word ?? "");

/** Hours with what follows them as one time, s: "one hour 52", "an hour and a half", "9 minutes 49". */
export function joinedTimes(tokens: readonly Token[], all: readonly Quantity[]): readonly Quantity[] {
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
  /^(\d.*|one|two|three|four|five|six|seven|per|each|half)$/.test(token?.word ?? "");

/** Parts of a mile that follow it. */
const PARTS = new Map([
  ["and a half", 0.5],
  ["and a quarter", 0.25],
  ["and three quarters", 0.75],
]);

/** Words that such a quantity begins with. */
const BEGINS = new Set("first hour quarter quarters half a an one 1 three".split(" "));
const PIECES: readonly (readonly [said: string, part: number])[] = [
  ["half a", 0.5],
  ["a quarter of a", 0.25],
  ["three quarters of a", 0.75],
];

/** "an hour", "half an hour": times without a figure, as quantities of one hour or a half. */
export function unsaidHours(tokens: readonly Token[]): readonly Quantity[] {
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
    if (!BEGINS.has(word)) return [];
    if (
      word === "first" &&
      tokens[at + 1]?.word === "hour" &&
      /^(?:gone|done|down|over|behind|finished)$/.test(tokens[at + 2]?.word ?? "")
    )
      return [{ ...plain, value: 1, unit: "h" as const, from: at, to: at + 2, exact: false }];
    // "Thirty-one kilometres, hour and a half".
    if (word === "hour" && words(tokens, at + 1, at + 4) === "and a half" && tokens[at - 1]?.word !== "an")
      return figured(tokens[at - 1])
        ? []
        : [{ ...plain, value: 1.5, unit: "h" as const, from: at, to: at + 4, exact: true }];
    // "A quarter of an hour", "three quarters of an hour".
    const quarters = /^(?:quarter|quarters)$/.test(word) && words(tokens, at + 1, at + 4) === "of an hour";
    if (quarters)
      return [
        {
          ...plain,
          value: word === "quarters" ? 45 : 15,
          unit: "min" as const,
          ...{
            from: /^(?:a|three|3)$/.test(tokens[at - 1]?.word ?? "") ? at - 1 : at,
            to: at + 4,
            exact: true,
          },
        },
      ];
    // "Half a mile in", "a quarter of a mile".
    const [piece, fraction] = PIECES.find(
      ([said]) => words(tokens, at, at + said.split(" ").length) === said,
    ) ?? ["", 0];
    const unit = unitAt(tokens, at + piece.split(" ").length)?.unit;
    if (piece && (unit === "mi" || unit === "km"))
      return [
        { ...plain, value: fraction, unit, from: at, to: at + piece.split(" ").length + 1, exact: true },
      ];
    // "A mile and three quarters".
    const miles = /^(?:mile|kilomet(?:re|er))$/.test(tokens[at + 1]?.word ?? "")
      ? words(tokens, at + 2, at + 5)
      : "";
    const part = PARTS.get(miles);
    if (/^(?:a|one|1)$/.test(word) && part !== undefined)
      return [
        {
          ...plain,
          value: 1 + part,
          unit: tokens[at + 1]?.word === "mile" ? ("mi" as const) : ("km" as const),
          ...{ from: at, to: at + 5, exact: true },
        },
      ];
    if (pause !== "" || (word !== "an" && word !== "a")) return [];
    if (words(tokens, at - 2, at).match(/^quarters? of$/)) return [];
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
