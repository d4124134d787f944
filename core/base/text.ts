import { z } from "zod";

/** Line breaks and tabs are text; every other control character, NUL above all, is a slip of some program. */
const CONTROL = /[^\P{Cc}\t\n\r]/u;

/**
 * Whether a text can be kept and shown anywhere: well-formed Unicode without control characters. The database takes no
 * NUL, and half of a surrogate pair is no character.
 *
 * @example isPlainText("12.4 mi, 3 °C") // true
 * @example isPlainText("a\u0000b") // false
 */
export function isPlainText(text: string): boolean {
  return text.isWellFormed() && !CONTROL.test(text);
}

/** What is said of a text that cannot be kept. */
export const NOT_TEXT =
  "There is a character in this that is no text, as some programs leave behind: type it again without.";

/**
 * The text that enters by any door: forms, entries, files, bundles. Bounds on its length are added where it is used.
 *
 * @param error the sentence for what is no text at all
 */
export const text = (error?: string) =>
  z.string(error === undefined ? undefined : { error }).refine(isPlainText, NOT_TEXT);

/** A pasted or stored text of many lines, made plain: what no program should have put there is left out. */
export function plainText(value: string): string {
  return value.toWellFormed().replace(new RegExp(CONTROL.source, "gu"), "");
}

/**
 * How far off something is in words, by its sds. `farText(7.2) === "far"`, `farText(-2.5) === "clearly"`
 *
 * @example farText(-6) === "far"
 */
export const farText = (standing: number): string => (Math.abs(standing) < 3.5 ? "clearly" : "far");

const WIDER = [
  [1.2, "a little wider"],
  [1.45, "a third wider"],
  [1.7, "half as wide again"],
  [2.05, "nearly doubled"],
  [2.6, "more than doubled"],
] as const;

/**
 * How much wider a span became, in words; beyond words as a number. `widenedText(1.89) === "nearly doubled"`
 *
 * @example widenedText(1.5) === "half as wide again"
 */
export const widenedText = (times: number): string =>
  WIDER.find(([upTo]) => times < upTo)?.[1] ?? `${Math.round(times)} times as wide`;

/**
 * A count with its noun, as it is said.
 *
 * @param many the noun of several, where it is not the one with an s
 * @example countOf(1, "bike") === "one bike"
 * @example countOf(0, "entry", "entries") === "0 entries"
 */
export const countOf = (count: number, one: string, many = `${one}s`): string =>
  count === 1 ? `one ${one}` : `${count} ${many}`;
