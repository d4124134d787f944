import { firstNotBefore, nth } from "#core/base";
import type { Quantity } from "./quantities.ts";
import { bordersOf } from "./statements.ts";
import type { Token } from "./tokens.ts";

/** Words looked at on each side of something said. */
const BEFORE = 8;
const AFTER = 7;
/** What parts one statement from the next within a sentence. */
const CLAUSES =
  /^(.*)(?: [,.] |\b(?:and|but|so(?! far)|because|then|while|which|okay|(?<!just |right )now)\b )/;

/** What was said around a place in the text; pauses stand as " , " and " . ", other figures as "#" and their unit. */
export interface Around {
  /** Of the same sentence, before and after. */
  readonly before: string;
  readonly after: string;
  /** Of the same clause, before. */
  readonly clause: string;
  /** The whole sentence. */
  readonly sentence: string;
  readonly isQuestion: boolean;
  /** A pause follows: what comes after it is of something else. */
  readonly parted: boolean;
  /** Two ride together and tell of both their bikes. */
  readonly together: boolean;
  /** The sentence before, and the one after. */
  readonly earlier: string;
}

export interface Said {
  readonly tokens: readonly Token[];
  readonly quantities: readonly Quantity[];
  /** Speech that was written down without stops. */
  readonly isRaw: boolean;
  /** All that was said, pauses and figures as in `Around`, and the token at an offset of it. */
  readonly script: string;
  tokenAt(offset: number): number;
  around(from: number, to: number): Around;
}

const isEnd = ({ pause }: Token) => pause === "sentence" || pause === "question";
const SIGNS = { "": "", label: "", clause: " ,", sentence: " .", question: " ." } as const;

const RIDE_TOGETHER =
  /\b(?:my \w+ and (?:i|me)|me and my \w+|(?:him|her|he|she|you|we) and (?:i|me)|(?:both|two) of us|we both|between us|we're both|we've both|side by side|two of the same|what's yours|you've got [.]|are you [.]|nor me|so did i)/;
/** So often whose bike it is must be said. */
const WHOSE_OFTEN = 2;

/** Whether two riders tell of their two bikes. */
const isOfTwo = (script: string) =>
  RIDE_TOGETHER.test(script) &&
  (script.match(
    /\b(?:mine|yours|his|hers)(?:'s)? (?:is|says|has|reads|shows|just|got|at|on|#)|\bwhat's yours\b|\bon (?:mine|yours|his|hers)\b|#(?:_%)? (?:for me )?(?:and|,) \w+ (?:has|is on|is at) #|\bfor me\b|\band you [.]/g,
  )?.length ?? 0) > WHOSE_OFTEN;

export function saidOf(tokens: readonly Token[], quantities: readonly Quantity[]): Said {
  const ends = tokens.filter(isEnd).length;
  const isRaw = ends * 45 < tokens.length;
  const shown = tokens.map(({ word }) => word);
  for (const { from, to, unit } of quantities) {
    for (let i = from; i < to; i += 1) shown[i] = "";
    shown[from] = unit === null ? "#" : `#_${unit}`;
  }
  const starts: number[] = [];
  let script = "";
  tokens.forEach(({ pause }, i) => {
    starts.push(script.length);
    const word = shown[i] ?? "";
    const sign = SIGNS[pause].trim();
    script += `${word}${word ? " " : ""}${sign}${sign ? " " : ""}`;
  });
  const text = (from: number, to: number) => {
    let out = "";
    for (let i = Math.max(0, from); i < Math.min(to, tokens.length); i += 1) {
      const word = shown[i] ?? "";
      if (word) out += ` ${word}`;
      out += SIGNS[nth(tokens, i).pause];
    }
    return `${out.trim()} `.trimStart();
  };
  const together = isOfTwo(script);
  const borders = isRaw ? bordersOf(tokens, quantities) : null;
  const startOf = (at: number) => {
    let from = at;
    while (from > 0 && !isEnd(nth(tokens, from - 1))) {
      if (borders && (at - from > BEFORE || borders.begins(from, at - from))) break;
      from -= 1;
    }
    return from;
  };
  const endOf = (at: number) => {
    let to = at;
    while (to < tokens.length) {
      if (borders && (to - at > AFTER || borders.ends(to, to - at))) break;
      to += 1;
      if (isEnd(nth(tokens, to - 1))) break;
    }
    return to;
  };
  const seen = new Map<number, Around>();
  // Figures of one sentence share it.
  const sentences = new Map<number, string>();
  const whole = (from: number, to: number) => {
    const key = from * tokens.length + to;
    const made = sentences.get(key) ?? text(from, to);
    sentences.set(key, made);
    return made;
  };
  return {
    ...{ tokens, quantities, isRaw, script },
    tokenAt: (offset) => Math.max(0, firstNotBefore(starts.length, (i) => nth(starts, i) <= offset) - 1),
    around(from, to) {
      const key = from * tokens.length + to;
      const known = seen.get(key);
      if (known) return known;
      const start = startOf(from);
      const end = to > 0 && isEnd(nth(tokens, to - 1)) ? to : endOf(to);
      const before = text(Math.max(start, from - 24), from);
      const last = tokens[end - 1];
      const around: Around = {
        before,
        after:
          to > 0 && isEnd(nth(tokens, to - 1)) ? "" : text(to, Math.min(end, to + 24)).replace(/ [.] $/, " "),
        clause: before.replace(CLAUSES, ""),
        // Asked for by few, so made when it is.
        get sentence() {
          return whole(start, end);
        },
        parted: to > 0 && nth(tokens, to - 1).pause !== "",
        ...{ isQuestion: last?.pause === "question", together },
        get earlier() {
          return whole(startOf(Math.max(0, start - (isRaw ? 2 : 1))), start);
        },
      };
      seen.set(key, around);
      return around;
    },
  };
}
