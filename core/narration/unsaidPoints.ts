import { nth } from "#core/base";
import { isOne, ONE_OF, POINT, TEN_OF } from "./numberWords.ts";
import { wordsOf, type Token } from "./tokens.ts";
import { unitAt } from "./units.ts";

/** A figure that was said without its point. */
interface Pointed {
  readonly value: number;
  readonly to: number;
  readonly exact: true;
}

/** So many words back a voltage may be named. */
const VOLTS_WITHIN = 8;

const AVERAGED = /\b(?:average|averaged|averaging)(?: \w+){0,2}$/;

/** "Average fourteen two", "averaged 14 2": a speed whose point is unsaid. */
export function averageAt(tokens: readonly Token[], at: number): Pointed | null {
  const first = nth(tokens, at);
  const value = ONE_OF.get(first.word) ?? (/^\d\d$/.test(first.word) ? Number(first.word) : 0);
  if (value < 10 || first.pause !== "") return null;
  const tenth = tokens[at + 1]?.word ?? "";
  const tenths = /^\d$/.test(tenth) ? Number(tenth) : ONE_OF.get(tenth);
  if (tenths === undefined || tenths > 9) return null;
  if (POINT.test(tokens[at + 2]?.word ?? "") || unitAt(tokens, at + 2)) return null;
  if (!AVERAGED.test(wordsOf(tokens, Math.max(0, at - 4), at))) return null;
  return { value: value + tenths / 10, to: at + 2, exact: true };
}

/** "It comes back up to fifty-three eight": volts whose point is unsaid. */
export function voltsAt(tokens: readonly Token[], at: number): Pointed | null {
  const [tens, ones, tenth, next] = [0, 1, 2, 3].map((i) => tokens[at + i]);
  const ten = TEN_OF.get(tens?.word ?? "");
  if (!tenth || ten === undefined || !isOne(ones) || !isOne(tenth)) return null;
  if (nth(tokens, at).pause !== "" || nth(tokens, at + 1).pause !== "") return null;
  const isRead =
    tenth.pause !== "" || !next || !(isOne(next) || POINT.test(next.word) || unitAt(tokens, at + 3));
  const before = wordsOf(tokens, Math.max(0, at - VOLTS_WITHIN), at);
  if (
    !isRead ||
    !/\b(?:volts?|voltage|sags?|sagged|dips?|dipped|back up to|resting|recovers?)\b/.test(before)
  )
    return null;
  const digit = (token: Token | undefined) => ONE_OF.get(token?.word ?? "") ?? 0;
  return { value: ten + digit(ones) + digit(tenth) / 10, to: at + 3, exact: true };
}
