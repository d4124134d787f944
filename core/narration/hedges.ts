import { nth } from "#core/base";
import type { Figure } from "./figures.ts";
import type { Token } from "./tokens.ts";

const ABOUT =
  /^(about|around|roughly|approximately|circa|like|maybe|say|probably|some|somewhere|near|close|call|nearish)$/;
const BELOW = /^(almost|nearly|approaching|under|below|barely)$/;
const ABOVE = /^(over|past|beyond|above|plus)$/;
const A_BIT = /^(just|little|bit|touch|slightly|tad|hair|a|well|shy)$/;

/** How a figure was hedged: by the words before it and after it. */
export function hedgeOf(tokens: readonly Token[], from: number, to: number): Pick<Figure, "approx" | "side"> {
  const word = (i: number) =>
    i >= 0 && (i >= from || nth(tokens, i).pause === "") ? (tokens[i]?.word ?? "") : "";
  const [one, two] = [word(from - 1), word(from - 2)];
  if (BELOW.test(one)) return { approx: true, side: "below" };
  if (ABOVE.test(one) && A_BIT.test(two))
    return {
      approx: one !== "past" || two !== "just",
      side: one === "past" && two === "just" ? null : "above",
    };
  const after = [0, 1, 2].map((i) =>
    i === 0 || (tokens[to + i - 1]?.pause ?? "") === "" ? (tokens[to + i]?.word ?? "") : "",
  );
  const soft =
    ABOUT.test(one) ||
    (one === "of" && /^(shy|short|kind|sort)$/.test(two)) ||
    (one === "the" && ABOUT.test(two)) ||
    /^ish$/.test(after[0] ?? "") ||
    after.join(" ").startsWith("or so") ||
    /^(or thereabouts|roughly|give or)/.test(after.join(" "));
  return { approx: soft, side: null };
}
