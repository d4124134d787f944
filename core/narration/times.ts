import { nth } from "#core/base";
import { UNSAID } from "./parts.ts";
import type { Quantity } from "./quantities.ts";
import { pauseBefore, wordsOf as words, type Token } from "./tokens.ts";

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
      // "1 hour, 15 minutes".
      (pauseBefore(tokens, first.to) === "" ||
        (pauseBefore(tokens, first.to) === "clause" && second.unit === (first.unit === "h" ? "min" : "s"))) &&
      second.value < 60 &&
      !second.exact;
    const finer = first.unit === "h" ? "min" : "s";
    // "Half an hour and nine minutes".
    const ofPart = joins && first.unit === "min" && first.singular && first.exact && second.unit === "min";
    if (ofPart) {
      out.push({ ...first, value: (first.value + second.value) * 60, unit: "s", to: second.to });
      i += 1;
      continue;
    }
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

/** "A bottle an hour". */
const isRate = (tokens: readonly Token[], at: number) =>
  tokens[at + 1]?.word === "hour" &&
  /^(?:a|one|two|three|four)$/.test(tokens[at - 2]?.word ?? "") &&
  /^(?:bottles?|litres?|liters?|gels?|bars?|percent|times?)$/.test(tokens[at - 1]?.word ?? "") &&
  pauseBefore(tokens, at) === "";

/** "an hour", "half an hour": times without a figure, as quantities of one hour or a half. */
export function unsaidHours(tokens: readonly Token[]): readonly Quantity[] {
  return tokens.flatMap(({ word, pause }, at): Quantity[] => {
    if (
      word === "first" &&
      tokens[at + 1]?.word === "hour" &&
      /^(?:gone|done|down|over|behind|finished)$/.test(tokens[at + 2]?.word ?? "")
    )
      return [{ ...UNSAID, value: 1, unit: "h" as const, from: at, to: at + 2, exact: false }];
    // "Thirty-one kilometres, hour and a half".
    if (word === "hour" && words(tokens, at + 1, at + 4) === "and a half" && tokens[at - 1]?.word !== "an")
      return figured(tokens[at - 1])
        ? []
        : [{ ...UNSAID, value: 1.5, unit: "h" as const, from: at, to: at + 4, exact: true }];
    if (pause !== "" || (word !== "an" && word !== "a")) return [];
    if (words(tokens, at - 2, at).match(/^quarters? of$/)) return [];
    if (isRate(tokens, at)) return [];
    const half = tokens[at + 1]?.word === "half" && tokens[at + 2]?.word === "hour";
    if (half) return [{ ...UNSAID, value: 30, unit: "min" as const, from: at, to: at + 3, exact: true }];
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
        ...UNSAID,
        value: andHalf ? 1.5 : 1,
        unit: "h" as const,
        from: at,
        to: andHalf ? at + 5 : at + 2,
        exact: andHalf,
      },
    ];
  });
}
