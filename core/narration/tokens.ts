import type { Spoken } from "#core/io";

/** What parts a word from the next: nothing, a pause of the clause, or the end of the sentence. */
export type Pause = "" | "label" | "clause" | "sentence" | "question";

/** A word or a figure as it was said, with its place in the film and in the text. */
export interface Token {
  /** In small letters, without its plural's or owner's apostrophe. */
  readonly word: string;
  readonly atS: number | null;
  /** Piece of the text it stands in, and where there, in characters. */
  readonly piece: number;
  readonly from: number;
  readonly to: number;
  /** Written directly after the one before, as "46km" or "kilos.3". */
  readonly glued: boolean;
  /** What comes after it. */
  pause: Pause;
}

/** Figures with their decimals, words with apostrophes, and signs that mean something. */
const PART =
  /\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?::\d\d)+|\d+[.,]\d+|\d+|\.\d+|½|¼|[a-zäöüßéè]+(?:['’][a-zäöüßéè]+)*|%|°|\$|€|£|[.,;:!?…—–-]+|\//giu;
const FILLERS = new Set(["uh", "um", "er", "erm", "uhm", "hmm", "mm", "ah", "eh"]);

const pauseOf = (signs: string): Pause =>
  signs.includes("?")
    ? "question"
    : /[.!…]/.test(signs) && !/^\.{2,}$|…/.test(signs)
      ? "sentence"
      : signs === ":"
        ? "label"
        : /[,;:—–]|\.{2,}|…|^-+$/.test(signs)
          ? "clause"
          : "";

const STRENGTH: Readonly<Record<Pause, number>> = { "": 0, label: 1, clause: 2, sentence: 3, question: 4 };

/** Words of all pieces one after the other: a border between pieces parts nothing, since captions break where the screen ends. */
export function tokensOf(spoken: readonly Spoken[]): readonly Token[] {
  const tokens: Token[] = [];
  spoken.forEach(({ atS, text }, piece) => {
    for (const found of text.matchAll(PART)) {
      const [part] = found;
      const from = found.index;
      const last = tokens.at(-1);
      const glued = last !== undefined && last.piece === piece && last.to === from;
      if (/^[.,;:!?…—–-]+$/u.test(part)) {
        const before = text[from - 1] ?? " ";
        const after = text[from + part.length] ?? " ";
        // "fifty-two", "pre-ride": one word in two parts; "9-11": a span.
        if (part === "-" && /[\p{L}\d]/u.test(before) && /\p{L}/u.test(after)) continue;
        if (/^[-–]$/.test(part) && /\d/.test(before) && /\d/.test(after)) {
          tokens.push({ word: "to", atS, piece, from, to: from + part.length, glued: true, pause: "" });
          continue;
        }
        if (/^[-–−]$/.test(part) && /\s/.test(before) && /\d/.test(after)) {
          tokens.push({ word: "minus", atS, piece, from, to: from + part.length, glued: false, pause: "" });
          continue;
        }
        const pause = pauseOf(part);
        if (last && STRENGTH[pause] > STRENGTH[last.pause]) last.pause = pause;
        continue;
      }
      const word = part.toLowerCase().replace(/’/g, "'");
      // "20Ah", "203 mm": behind a figure they are units.
      const isUnit =
        /^(?:ah|mm)$/.test(word) && /^[\d.,]+$/.test(last?.word ?? "") && (glued || part !== "ah");
      if (FILLERS.has(word) && !isUnit) continue;
      tokens.push({ word, atS, piece, from, to: from + part.length, glued, pause: "" });
    }
  });
  return tokens;
}

/** The words of some tokens, the last one excluded. */
export const wordsOf = (tokens: readonly Token[], from: number, to: number): string =>
  tokens
    .slice(from, to)
    .map(({ word }) => word)
    .join(" ");

/** What comes between a token and the one before it. */
export const pauseBefore = (tokens: readonly Token[], at: number): Pause => tokens[at - 1]?.pause ?? "";

/** Whether a sentence ends among some tokens. */
export const breaks = (tokens: readonly Token[], from: number, to: number): boolean =>
  tokens.slice(from, to).some(({ pause }) => pause === "sentence" || pause === "question");
