import { nth } from "#core/base";
import type { Spoken } from "#core/io";
import type { Said } from "./context.ts";
import { REASONS } from "./kills.ts";
import type { Item, LeftOut } from "./read.ts";

/** What only the person who was there can tell. */
export interface Question {
  readonly atS: number | null;
  readonly kind: "two instruments" | "two riders" | "stamps" | "contradiction" | "nothing";
  readonly asks: string;
  /** What may be answered; empty where it is told, not asked. */
  readonly answers: readonly string[];
  /** What each answer does to the items; empty where it is told, not asked. */
  readonly effects: readonly Effect[];
}

/** What an answer does: items it drops, by their places among them, and one that stands in the place of another. */
export interface Effect {
  readonly drops: readonly number[];
  readonly swap: { readonly at: number; readonly for: Item } | null;
}

const NOTHING: Effect = { drops: [], swap: null };

type Placed = Omit<Item, "moment"> & { readonly at: number };

/** Two meters of one place read this close to each other. */
const CLOSE = 0.12;
const NEAR_WORDS = 30;
/** As near, where only one of the two was named. */
const NEAR_NAMELESS = 12;
const TRUSTS_DISPLAY =
  /\b(trust|believe|go by|going by|count|take) (the |my )?(display|bike|screen|odometer|trip)\b/;

const figure = ({ value }: Placed) => (typeof value === "number" ? value : null);
const shown = ({ value, unit }: Placed) =>
  `${typeof value === "string" ? value : Array.isArray(value) ? value.join(" to ") : String(value)}${unit ? ` ${unit}` : ""}`;

/** Two distances of one place by two meters: which is the way ridden. */
function byTwoMeters(items: readonly Placed[], said: Said) {
  const display = TRUSTS_DISPLAY.test(said.script);
  const drop = new Map<number, Placed>();
  const questions: (Omit<Question, "effects"> & { readonly kept: Placed; readonly lost: Placed })[] = [];
  items.forEach((one, i) => {
    if (one.kind !== "distance" || drop.has(i)) return;
    for (let j = i + 1; j < items.length && nth(items, j).at - one.at < NEAR_WORDS; j += 1) {
      const two = nth(items, j);
      const [a, b] = [figure(one), two.kind === "distance" ? figure(two) : null];
      if (a === null || b === null || a === b || Math.abs(a - b) > CLOSE * Math.max(a, b)) continue;
      const named = one.of !== null && two.of !== null;
      if (one.of === two.of || (!named && two.at - one.at > NEAR_NAMELESS)) continue;
      const oneIsDisplay = one.of === "display" || (two.of === "recorder" && one.of === null);
      const lose = oneIsDisplay === display ? j : i;
      const [kept, lost] = lose === i ? [two, one] : [one, two];
      drop.set(lose, lost);
      questions.push({
        ...{ kept, lost },
        atS: one.atS,
        kind: "two instruments",
        asks: "Two instruments: which is the way ridden?",
        answers: [
          `${(lose === i) === oneIsDisplay ? "recorder" : "display"}, ${shown(kept)}`,
          `${(lose === i) === oneIsDisplay ? "display" : "recorder"}, ${shown(lost)}`,
        ],
      });
    }
  });
  return { drop, questions };
}

/** What cannot be told from the words, and what was set aside because of it. */
export function questionsOf(items: readonly Placed[], said: Said, spoken: readonly Spoken[]) {
  const { drop, questions: meters } = byTwoMeters(items, said);
  const questions: Question[] = [];
  if (items.length === 0)
    questions.push({
      atS: null,
      kind: "nothing",
      asks: "Nothing in it is a reading of a ride: is it the right text?",
      answers: [],
      effects: [],
    });
  if (spoken.some(({ atS }, i) => i > 0 && atS !== null && (nth(spoken, i - 1).atS ?? 0) > atS + 1))
    questions.push({
      atS: null,
      kind: "stamps",
      asks: "Its stamps run backward in places: check where each moment stands in the film.",
      answers: [],
      effects: [],
    });
  const kept = items.filter((_, i) => !drop.has(i));
  const placesOf = (whose: "yours" | "mine") =>
    kept.flatMap(({ of }, i): readonly number[] => (of === whose ? [i] : []));
  const yours = kept.filter(({ of }) => of === "yours");
  if (yours.length)
    questions.push({
      atS: nth(yours, 0).atS,
      kind: "two riders",
      asks: `Two riders speak, and ${yours.length === 1 ? "one reading is" : `${yours.length} readings are`} of the other's bike: whose log is this?`,
      answers: ["the one who says “mine”, or speaks first", "the one who is told “yours”, or answers"],
      effects: [
        { drops: placesOf("yours"), swap: null },
        { drops: placesOf("mine"), swap: null },
      ],
    });
  const lost = items.flatMap((used, i) => {
    const left = items[i - 1];
    return used.kind === "percent_used" &&
      left?.kind === "percent_left" &&
      used.at - left.at < 14 &&
      figure(used) !== null &&
      /\bto\b/.test(left.words)
      ? [{ used, left }]
      : [];
  });
  for (const { used, left } of lost) {
    const began = Number(/\d+(?:\.\d+)?/.exec(left.words)?.[0] ?? NaN);
    const difference = began - (figure(left) ?? NaN);
    if (Number.isFinite(difference) && Math.abs(difference - (figure(used) ?? 0)) > 2)
      questions.push({
        atS: used.atS,
        kind: "contradiction",
        asks: `From ${began} to ${shown(left)} is ${Number(difference.toFixed(1))}, and ${shown(used)} was said: the readings count.`,
        answers: [],
        effects: [],
      });
  }
  const dropped: LeftOut[] = [...drop.values()].map(({ atS, words, place }) => ({
    atS,
    words,
    place,
    because: REASONS.recap,
  }));
  const asked = meters.map(({ kept: its, lost: other, ...question }): Question => {
    const at = kept.indexOf(its);
    const { at: _at, ...item } = other;
    return { ...question, effects: [NOTHING, { drops: [], swap: { at, for: { ...item, moment: null } } }] };
  });
  return { kept, questions: [...questions, ...asked], dropped };
}
