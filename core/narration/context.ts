import { nth } from "#core/base";
import type { Quantity } from "./quantities.ts";
import type { Token } from "./tokens.ts";

/** Words looked at on each side of something said. */
const BEFORE = 8;
const AFTER = 7;
/** In speech without stops these begin anew. */
const RESTARTS = new Set([
  "so",
  "okay",
  "ok",
  "but",
  "now",
  "right",
  "anyway",
  "alright",
  "oh",
  "yeah",
  "yep",
]);
const SUBJECTS = new Set(["it's", "that's", "there's", "we're", "i'm", "we've", "i've", "here's", "they're"]);
/** The same in two words: "we are", "battery is", "we just". */
const SUBJECT_OF_TWO =
  /^(?:(?:we|i|it|that|there|here|battery|voltage|gauge|display|speed|range) (?:are|am|is|have|has|was|just|goes|comes)|(?:quick|another|next|last|first) (?:update|check|report)|back (?:on|in|into|to)|rolling again|round (?:one|two|three|four))$/;
/** What closes a statement: what comes after it is of something else. */
const CLOSES =
  /(?:(?:which|so|well|but|and|yeah|guess) we'll see|we'll see (?:about that|how (?:it|she|he|that) (?:goes|does|holds up|works out))|(?:i )?don't (?:buy|think so|know about that|believe (?:it|that))|are you kidding(?: me)?|you know|or whatever|come on|no way|by the way|that's what .{0,24}(?:will|does|can) do)$/;
/** Words that govern no figure: one right behind them begins anew. "... the top speed for the day | 15 miles". */
const GOVERNS_NONE = new Set(
  "day today then here again way road hill bottom bridge path trail time though too also anyway man guys folks everybody everyone sure good nice great fine bad fast slow easy hard yet already either wow wind breeze weather know whatever thing things stuff honest lie fun cold hot dry wet corner section bit lights light water park house truck van car camp lunch coffee second minute moment everything nothing something someone finally obviously basically literally please thanks hands legs knees loop circuit start".split(
    " ",
  ),
);
const GOVERNS = new Set(
  "if when until till unless whether think hope says said say reckon guess bet sure once where what how before that maybe like because".split(
    " ",
  ),
);
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
    script += `${word}${word ? " " : ""}${SIGNS[pause].trim()}${pause ? " " : ""}`;
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
  const wordsBefore = (at: number) =>
    tokens
      .slice(Math.max(0, at - 8), at)
      .map(({ word }) => word)
      .join(" ");
  const isFigure = new Set(
    quantities.filter(({ unit, exact }) => unit !== null || exact).map(({ from }) => from),
  );
  const closed = tokens.map((_, at) => isRaw && CLOSES.test(wordsBefore(at)));
  const isRestart = (at: number) =>
    RESTARTS.has(nth(tokens, at).word) && !(nth(tokens, at).word === "so" && tokens[at + 1]?.word === "far");
  // A new subject begins a new statement, unless what comes before it governs it: "if it's".
  const isSubject = (at: number) =>
    (SUBJECTS.has(nth(tokens, at).word) ||
      SUBJECT_OF_TWO.test(`${nth(tokens, at).word} ${tokens[at + 1]?.word ?? ""}`)) &&
    !GOVERNS.has(tokens[at - 1]?.word ?? "");
  // "51 percent my wife's bike would": another begins, even right behind a figure.
  const isAnother = (at: number) =>
    /^(my (wife|husband|buddy|friend|brother|sister|dad|mom|mate|neighbou?r|son|daughter|old|other|last)('s)?|somebody in|someone in|people in|a (guy|chap|lady|friend))$/.test(
      `${nth(tokens, at).word} ${tokens[at + 1]?.word ?? ""}`,
    );
  const startOf = (at: number) => {
    let from = at;
    while (from > 0 && !isEnd(nth(tokens, from - 1))) {
      if (isRaw && (at - from > BEFORE || closed[from])) break;
      if (isRaw && isFigure.has(from) && GOVERNS_NONE.has(tokens[from - 1]?.word ?? "")) break;
      if (isRaw && ((isRestart(from) && at - from > 1) || isSubject(from))) break;
      from -= 1;
    }
    return from;
  };
  const endOf = (at: number) => {
    let to = at;
    while (to < tokens.length) {
      const token = nth(tokens, to);
      if (
        isRaw &&
        (to - at > AFTER ||
          isRestart(to) ||
          closed[to] ||
          isAnother(to) ||
          (to > at &&
            (isSubject(to) ||
              (/^(my|i|people)$/.test(token.word) &&
                !/^(is|was|like|on|of)$/.test(tokens[to - 1]?.word ?? "")))))
      )
        break;
      to += 1;
      if (isEnd(token)) break;
    }
    return to;
  };
  return {
    ...{ tokens, quantities, isRaw, script },
    tokenAt(offset) {
      let [low, high] = [0, starts.length - 1];
      while (low < high) {
        const middle = (low + high + 1) >> 1;
        if (nth(starts, middle) <= offset) low = middle;
        else high = middle - 1;
      }
      return low;
    },
    around(from, to) {
      const start = startOf(from);
      const end = to > 0 && isEnd(nth(tokens, to - 1)) ? to : endOf(to);
      const before = text(Math.max(start, from - 24), from);
      const last = tokens[end - 1];
      return {
        before,
        after:
          to > 0 && isEnd(nth(tokens, to - 1)) ? "" : text(to, Math.min(end, to + 24)).replace(/ [.] $/, " "),
        clause: before.replace(CLAUSES, ""),
        sentence: text(start, end),
        parted: to > 0 && nth(tokens, to - 1).pause !== "",
        isQuestion: last?.pause === "question",
        earlier: text(startOf(Math.max(0, start - 2)), start),
      };
    },
  };
}
