import { useMemo, useState } from "react";
import { levelOn, type Item, type Narration, type RiddenBike } from "#core/narration";
import type { KeptReview } from "./kept";

/** What a person decided of an item: taken as it is or changed, or dropped. */
export interface Decision {
  readonly kept: boolean;
  /** What stands in the place of what was heard. */
  readonly value?: Item["value"];
}

/** Items of one moment, by their places in the narration. */
export interface Moment {
  readonly number: number;
  readonly atS: number | null;
  readonly items: readonly { readonly index: number; readonly item: Item }[];
}

/** The moments of a narration in the order they were said. */
export function momentsIn(items: readonly Item[]): readonly Moment[] {
  const moments: { number: number; atS: number | null; items: { index: number; item: Item }[] }[] = [];
  items.forEach((item, index) => {
    const last = moments.at(-1);
    if (last && last.number === item.moment) last.items.push({ index, item });
    else moments.push({ number: item.moment ?? 0, atS: item.atS, items: [{ index, item }] });
  });
  return moments;
}

/** Items as they stand once questions were answered: one that was heard of another instrument takes its fellow's place. */
function answeredItems({ items, questions }: Narration, answers: Answers): readonly Item[] {
  const swaps = new Map(
    questions.flatMap(({ effects }, i) => {
      const swap = effects[answers.get(i) ?? -1]?.swap;
      return swap ? [[swap.at, swap.for] as const] : [];
    }),
  );
  return items.map((item, i) => {
    const other = swaps.get(i);
    return other ? { ...other, moment: item.moment } : item;
  });
}

/** Which answer was given to each question that was answered, by their places. */
type Answers = ReadonlyMap<number, number>;

/** As far as a narration was gone through before. */
export type Begun = Pick<KeptReview, "decisions" | "answers" | "moment">;
/** A decision as it was kept; without a value of its own where none was. */
const decisionOf = ({ kept, value }: Begun["decisions"][number][1]): Decision => ({
  kept,
  ...(value !== undefined && { value }),
});

/** Decisions over a narration's items: everything is open until it is accepted or dropped. */
export function useReview(narration: Narration, bike: RiddenBike, begun: Begun | null) {
  const [decisions, setDecisions] = useState<ReadonlyMap<number, Decision>>(
    () => new Map(begun?.decisions.map(([at, decision]) => [at, decisionOf(decision)])),
  );
  const [answers, setAnswers] = useState<Answers>(() => new Map(begun?.answers));
  const [moment, setMoment] = useState(begun?.moment ?? 0);
  const items = useMemo(() => answeredItems(narration, answers), [narration, answers]);
  const moments = useMemo(() => momentsIn(items), [items]);
  const decide = (indices: readonly number[], kept: boolean | null) =>
    setDecisions((before) => {
      const next = new Map(before);
      for (const index of indices)
        if (kept === null) next.delete(index);
        else next.set(index, { ...before.get(index), kept });
      return next;
    });
  const change = (index: number, value: Item["value"]) =>
    setDecisions((before) => new Map(before).set(index, { kept: true, value }));
  /** Answers a question: what its other answers dropped is open again, and what this one drops is dropped. */
  const answer = (question: number, at: number) => {
    const { effects } = narration.questions[question]!;
    decide(
      effects.flatMap(({ drops }) => drops),
      null,
    );
    decide(effects[at]?.drops ?? [], false);
    setAnswers((before) => new Map(before).set(question, at));
  };
  const accepted = items.flatMap((item, index) => {
    const decision = decisions.get(index);
    return decision?.kept ? [{ ...item, value: decision.value ?? item.value }] : [];
  });
  /** A level that the bike has none like is asked for before it is taken. */
  const isOpen = (item: Item) => item.kind === "level" && levelOn(bike, item.value) === null;
  return { decisions, items, moments, answers, answer, moment, setMoment, decide, change, accepted, isOpen };
}

export type Review = ReturnType<typeof useReview>;
