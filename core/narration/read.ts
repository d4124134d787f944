import { nth, type Result } from "#core/base";
import { readSpoken, type Spoken, type SpokenFormat } from "#core/io";
import { classify } from "./classify.ts";
import { saidOf, type Said } from "./context.ts";
import type { Unread } from "./course.ts";
import { placesInCourse } from "./places.ts";
import { figuresOf } from "./figures.ts";
import { isSetUp, type Found, type ReadingKind, type SetUpKind } from "./found.ts";
import { barsLost, eventsOf } from "./kinds/events.ts";
import { groundsOf } from "./kinds/ground.ts";
import { fractionsOf } from "./kinds/fractions.ts";
import { METERS_DIFFER } from "./kinds/range.ts";
import { levelName, levelsByOrdinal } from "./kinds/level.ts";
import { REASONS, type Reason } from "./kills.ts";
import { momentsOf } from "./moments.ts";
import { outOfOrder } from "./order.ts";
import { questionsOf, type Question } from "./questions.ts";
import { quantitiesOf, type Quantity } from "./quantities.ts";
import { after, saidBefore, startOf, startsOf } from "./ride.ts";
import { tokensOf } from "./tokens.ts";

/** Where words stand in the text: the piece, and characters in it. */
export interface Place {
  readonly piece: number;
  readonly from: number;
  readonly to: number;
}

/** Something understood, as it is proposed. */
export interface Item {
  /** Place in the film, s; null in a text without stamps. */
  readonly atS: number | null;
  readonly kind: ReadingKind | SetUpKind;
  readonly value: number | readonly [number, number] | string;
  readonly unit: string | null;
  readonly approx: boolean;
  /** Of an approximation: whether the truth lies below or above it. */
  readonly side: "below" | "above" | null;
  /** Items of one moment belong together; of set-up facts null. */
  readonly moment: number | null;
  readonly because: string;
  readonly of: Found["of"] | null;
  /** The figure that was said first and taken back. */
  readonly withdrawn: number | null;
  readonly words: string;
  readonly place: Place;
}

/** Something that was heard and is not proposed, with why. */
export interface LeftOut {
  readonly atS: number | null;
  readonly words: string;
  readonly because: Reason;
  readonly place: Place;
}

/** What a narration holds. */
export interface Narration {
  readonly spoken: readonly Spoken[];
  readonly unit: "mi" | "km";
  readonly items: readonly Item[];
  readonly setUp: readonly Item[];
  readonly left: readonly LeftOut[];
  readonly questions: readonly Question[];
}

/** A candidate in the text: a figure, or words that are an event. */
type Candidate =
  | { readonly from: number; readonly to: number; readonly quantity: Quantity }
  | {
      readonly from: number;
      readonly to: number;
      readonly found: Found | null;
      readonly reason: Reason | null;
      readonly approx?: boolean;
    };

/** The unit of the ride: the one that is said more often. */
function unitOf(quantities: readonly Quantity[]): "mi" | "km" {
  const count = (units: RegExp) => quantities.filter(({ unit }) => unit !== null && units.test(unit)).length;
  return count(/^km/) > count(/^(mi|mph)$/) ? "km" : "mi";
}

function candidatesOf(said: Said): readonly Candidate[] {
  const named = said.tokens.flatMap((_, at): Candidate[] => {
    const verdict = levelName(said, at);
    if (!verdict) return [];
    return "left" in verdict
      ? [{ from: at, to: at + 1, found: null, reason: verdict.left }]
      : [{ from: at, to: at + 1, found: verdict, reason: null }];
  });
  const figures = said.quantities.map((quantity): Candidate => ({
    from: quantity.from,
    to: quantity.to,
    quantity,
  }));
  return [
    ...figures,
    ...eventsOf(said),
    ...groundsOf(said),
    ...barsLost(said),
    ...fractionsOf(said),
    ...levelsByOrdinal(said),
    ...named,
  ].sort((a, b) => a.from - b.from || a.to - b.to);
}

/** The words of some tokens as they were typed, and where they stand. */
function placed(
  said: Said,
  spoken: readonly Spoken[],
  from: number,
  to: number,
): { readonly words: string; readonly place: Place } {
  const first = nth(said.tokens, from);
  const last = nth(said.tokens, to - 1);
  const text = nth(spoken, first.piece).text;
  const end = last.piece === first.piece ? last.to : text.length;
  const rest = last.piece === first.piece ? "" : ` ${nth(spoken, last.piece).text.slice(0, last.to)}`;
  return {
    words: `${text.slice(first.from, end)}${rest}`,
    place: { piece: first.piece, from: first.from, to: end },
  };
}

/** A distance off an instrument that was named, beside one that was just said: another meter's view of one place. */
function isOfOtherMeter(
  before: readonly Pick<Item, "kind" | "value" | "of">[],
  item: Pick<Item, "kind" | "value" | "of">,
) {
  const last = before.findLast(({ kind }) => kind === "distance");
  return (
    item.kind === "distance" &&
    last !== undefined &&
    item.of !== null &&
    item.of !== last.of &&
    Math.abs(Number(last.value) / Number(item.value) - 1) < METERS_DIFFER
  );
}

/** Distances that go back and charge that comes back, where most of the ride keeps its order. */
function strays<Each extends Pick<Item, "kind" | "value" | "of">>(items: readonly Each[]): ReadonlySet<Each> {
  const out = new Set<Each>();
  const figure = ({ value }: Each) => (typeof value === "number" ? value : null);
  const ridesOf = (parts: boolean) => {
    const begun = new Set(startsOf(items, { parts }));
    return items.reduce<Each[][]>(
      (all, item) => {
        if (begun.has(item)) all.push([]);
        if (item.kind !== "full_charge") all.at(-1)?.push(item);
        return all;
      },
      [[]],
    );
  };
  for (const [kind, sign, slack, parts] of [
    ["distance", 1, 0.3, false],
    ["percent_left", -1, 2, true],
  ] as const)
    for (const charge of ridesOf(parts)) {
      const all = charge.filter(
        (item, i) => item.kind === kind && figure(item) !== null && !isOfOtherMeter(charge.slice(0, i), item),
      );
      // Each of two bikes keeps its own order.
      for (const own of [all.filter(({ of }) => of !== "yours"), all.filter(({ of }) => of === "yours")])
        for (const i of outOfOrder(
          own.map((item) => sign * (figure(item) ?? 0)),
          slack,
        ))
          out.add(nth(own, i));
    }
  return out;
}

type Placed = Omit<Item, "moment"> & { readonly at: number };

const MOST_PASSES = 3;

/** One reading of all that was said, in its order; `course` tells figures that an earlier reading found their place for. */
function passOver(
  said: Said,
  candidates: readonly Candidate[],
  spoken: readonly Spoken[],
  inUnit: "mi" | "km",
  course: ReadonlyMap<number, Found>,
) {
  let told = startOf(inUnit);
  const items: Placed[] = [];
  const unread: Unread[] = [];
  const left: LeftOut[] = [];
  let taken = 0;
  for (const candidate of candidates) {
    const { from, to } = candidate;
    // Words that are part of something understood already.
    if (from < taken && !("quantity" in candidate)) continue;
    const verdict =
      "quantity" in candidate
        ? (course.get(from) ?? classify(said, candidate.quantity, told))
        : (candidate.found ?? { left: candidate.reason ?? REASONS.unlicensed });
    const quantity = "quantity" in candidate ? candidate.quantity : null;
    const { words, place } = placed(said, spoken, from, to);
    const atS = nth(said.tokens, from).atS;
    if (!verdict || "left" in verdict) {
      const because = verdict?.left ?? REASONS.unlicensed;
      left.push({ atS, words, place, because });
      if (quantity) unread.push({ quantity, because });
      continue;
    }
    // "From 48 to 71": of a charge that is read at both its ends.
    const isRough = "approx" in candidate ? candidate.approx === true : quantity?.approx === true;
    const approx = isRough && verdict.of !== "charged";
    const before = saidBefore(told, verdict, from, approx);
    if (before) {
      left.push({ atS, words, place, because: before });
      continue;
    }
    told = after(told, verdict, from, approx);
    if (quantity) taken = to;
    items.push({
      atS,
      kind: verdict.kind,
      value: verdict.value,
      unit: verdict.unit,
      approx,
      side: quantity?.side ?? null,
      because: verdict.because,
      of: verdict.of ?? null,
      withdrawn: quantity?.withdrawn ?? null,
      words,
      place,
      at: from,
    });
  }
  return { items, left, unread };
}

/**
 * Reads what was said over a ride: readings, events and facts, each with the reason it was taken for one, and what was left out
 * with the reason why. Nothing is guessed at: what cannot be told stands among the questions.
 *
 * @param spoken pieces with their places in the film, as `readSpoken` gives them
 * @param unit of the ride, where it is known: bare figures are in it
 */
export function narrationOf(spoken: readonly Spoken[], unit?: "mi" | "km"): Narration {
  const tokens = tokensOf(spoken);
  const quantities = quantitiesOf(tokens, figuresOf(tokens));
  const said = saidOf(tokens, quantities);
  const inUnit = unit ?? unitOf(quantities);
  const candidates = candidatesOf(said);
  let pass = passOver(said, candidates, spoken, inUnit, new Map());
  const course = new Map<number, Found>();
  // What found its place may find another's.
  for (let again = 0; again < MOST_PASSES; again += 1) {
    const astray = strays(pass.items);
    const inOrder = pass.items.filter((item) => !astray.has(item));
    const more = placesInCourse(said, pass.unread, inOrder, inUnit);
    if (more.size === 0) break;
    for (const [from, found] of more) course.set(from, found);
    pass = passOver(said, candidates, spoken, inUnit, course);
  }
  const { items, left } = pass;
  const late = strays(items);
  for (const { atS, words, place } of late) left.push({ atS, words, place, because: REASONS.order });
  const readings = items.filter((item) => !isSetUp(item) && !late.has(item));
  const { kept, questions, dropped } = questionsOf(readings, said, spoken);
  return {
    ...{ spoken, unit: inUnit },
    items: momentsOf(kept),
    setUp: items.filter(isSetUp).map(({ at: _, ...item }) => ({ ...item, moment: null })),
    left: [...left, ...dropped].sort((a, b) => a.place.piece - b.place.piece || a.place.from - b.place.from),
    questions,
  };
}

/** Reads a narration from a file's text. */
export function readNarration(
  text: string,
  { format, unit }: { readonly format?: SpokenFormat; readonly unit?: "mi" | "km" } = {},
): Result<Narration> {
  const spoken = readSpoken(text, format);
  return spoken.ok ? { ok: true, value: narrationOf(spoken.value, unit) } : spoken;
}
