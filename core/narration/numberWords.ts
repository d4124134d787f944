import { nth } from "#core/base";
import type { Token } from "./tokens.ts";

const ONES =
  "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen".split(
    " ",
  );
const TENS = "twenty thirty forty fifty sixty seventy eighty ninety".split(" ");
/** Numbers below twenty by their word. */
export const ONE_OF = new Map<string, number>([
  ...ONES.map((word, i) => [word, i] as const),
  ["nought", 0],
  ["fourty", 40],
  ["oh", 0],
]);
/** Tens by their word. */
export const TEN_OF = new Map<string, number>(TENS.map((word, i) => [word, 20 + 10 * i] as const));

const STEP = /^(level|levels|assist|pas|mode|eco|number|setting|gear|lap|run|mile)$/;
const WEIGHS = /^(weigh|weighs|weighing|weighed|i'm)$/;

/** Whether a hundred was left out between two words: "one eighteen" of a pulse, "I weigh two twenty". */
export function isUnsaidHundred(tokens: readonly Token[], at: number): boolean {
  const before = tokens[at - 1]?.word ?? "";
  const next = tokens[at + 1]?.word ?? "";
  const teens = ONE_OF.get(next) ?? 0;
  // "Between one fifty and two twenty".
  const joined =
    /^(and|to|or)$/.test(before) &&
    TEN_OF.has(tokens[at - 2]?.word ?? "") &&
    ONE_OF.has(tokens[at - 3]?.word ?? "");
  if (
    TEN_OF.has(next) &&
    joined &&
    (ONE_OF.get(nth(tokens, at).word) ?? 0) >= 1 &&
    (ONE_OF.get(nth(tokens, at).word) ?? 0) <= 9
  )
    return true;
  // "Two forty watts", "the three sixty battery", "one oh seven".
  const unit = tokens[at + (ONE_OF.has(tokens[at + 2]?.word ?? "") ? 3 : 2)]?.word ?? "";
  const ofMany =
    /^(watts?|battery|pack|feet|pounds|bucks)$/.test(unit) && (ONE_OF.get(nth(tokens, at).word) ?? 0) >= 2;
  if (TEN_OF.has(next) && ofMany && !STEP.test(before)) return true;
  if (nth(tokens, at).word === "one" && next === "oh" && ONE_OF.has(tokens[at + 2]?.word ?? ""))
    return !STEP.test(before);
  if (STEP.test(before) || (!TEN_OF.has(next) && teens < 10)) return false;
  const { word } = nth(tokens, at);
  return word === "one" || (word === "two" && WEIGHS.test(before));
}

export const POINT = /^(point|dot)$/;

/** Whether a word is one of the ten digits. */
export const isOne = (token: Token | undefined): boolean => {
  const one = token ? ONE_OF.get(token.word) : undefined;
  return one !== undefined && one < 10;
};
