import { firstNotBefore, nth } from "#core/base";
import type { Around, Said } from "./context.ts";
import { farthest, FEWEST, figureOf, type Course, type Unread } from "./course.ts";
import type { Found } from "./found.ts";
import { FEW, STILL } from "./kinds/charge.ts";
import { namedBefore } from "./named.ts";
import type { Quantity } from "./quantities.ts";

/** Charge that goes between two readings, %, at most. */
export const MOST_CHARGE = 30;
/** Bars that go between two readings, at most, and as many as any gauge has. */
const MOST_BARS_GONE = 2;
const MOST_BARS = 12;

/** Measures that a figure right behind their name is of. */
export const OTHER_MEASURE = namedBefore(
  "speed|average|pulse|heart rate|heart|voltage|volts|amps|watts|temperature|range|level|assist|pressure|tyres?|tires?|weigh|(?<!the )(?:max|top)|cost|price|number|gear|cadence",
);
/** A state is told, not of what: "it's on 66", "gone to four", "I've got 46", "still 43". */
const STATES =
  /^$|(?:^|\b(?:at|on|to|onto|showing|shows?|yours|mine|his|hers|saying|says?|said|reads?|reading|now|leaves?|leaving|got|have|has|make it|still|down|left with|stands at|stood at|(?:dropped|fallen|gone|down) to|sits at|sat at|(?:come|comes|came) (?:up|on|back) (?:as|at|on)|there's|it's|is|that's|and))(?: about| just| like| only| now| exactly| around| maybe| a)* $/;
const NO_STATE =
  /\b(?:level|levels|assist|pas|mode|mile|speed|doing|going|lap|hill|number|gear|minutes?|hour|o'clock|class)\b[^,.]{0,12}$/;
const CHARGE_NAMED = /\b(?:battery|batteries|charge|gauge|pack|percent|juice|frame|tank|soc)(?:'s)?\b|#_%/;
const NOT_CHARGE_AFTER =
  /^(?:minutes?|seconds?|of\b|miles?|bars?|more|against\b|versus\b|out of|or nothing|people|guys|times|in (?:a|the) (?:row|morning)|past|to (?:go|pedal|ride|do|push|walk)\b|to(?= #)|by the time|hills?|laps?|when i (?:parked|left|stopped))/;
const BAR_STATES =
  /\b(?:still(?: on| at| got| have)?|(?:gone|went|goes|down|dropped|drops|fell|just gone)(?: down)? to|both got|i've got|we've got|i'm on|we're on|mine's on|yours on|left with|it's on|it's at)(?: about| only| just| the)* $/;

const isWhole = ({ quantity: { exact, clock, high, value } }: Unread) =>
  !exact && !clock && high === null && value >= 0;

const fitsWay = (course: Course, at: number, value: number) => {
  const { before, after } = course.at("distance", at);
  return before !== null && value > before && value <= (after ?? farthest(before));
};

/** "The hill took us from 86 to 81". */
const WENT = /\b(?:took|takes|cost|went|gone|dropped|fell|battery|charge)\b/;
const NO_CHARGE =
  /\b(?:speed|slow\w*|level|gear|mph|volts?|voltage|watts?|amps?|pulse|heart|bars?)\b|#_(?:mph|km\/h|V|W|A)/;

/** "22 % … I'm on 18": charge without its sign, said as a state, that goes on falling from the last one. */
export function chargeContinued(unread: Unread, said: Said, course: Course): Found | null {
  const { value, from, to, unit, began } = unread.quantity;
  const { before, after, count } = course.at("percent_left", from);
  if (unit !== null || !isWhole(unread) || before === null || count < FEWEST) return null;
  const around = said.around(from, to);
  // "Still 43", farther on.
  const isRead =
    value === before && STILL.test(around.clause) && course.between("distance", "percent_left", from);
  if ((value >= before && !isRead) || value < Math.max(after ?? 0, before - MOST_CHARGE)) return null;
  const went =
    began !== null && began <= before && WENT.test(around.sentence) && !NO_CHARGE.test(around.sentence);
  if (began !== null && (Math.abs(began - before) <= 1 || went))
    return found(value, "from one charge to the next");
  if (NOT_CHARGE_AFTER.test(around.after) || NO_STATE.test(around.before)) return null;
  if (OTHER_MEASURE.test(around.before.replace(/\b(?:level|range)\b/g, " "))) return null;
  if (isListed(unread.quantity, said)) return null;
  const bars = course.at("bars_left", from);
  const isNamed = CHARGE_NAMED.test(around.sentence) || /^left\b/.test(around.after);
  // "At 30 kilometres it was on 36": said of the place right before it.
  const ofPlace =
    course.beside("distance", from).some(({ at }) => from - at >= 3 && from - at <= 6) &&
    /(?:^|#_(?:mi|km) )(?:it was|it's|it is|it stood|the \w+ (?:was|said|read)) (?:on|at) $/.test(
      around.clause,
    );
  if (ofPlace) return found(value, "a state that goes on from the last charge");
  const isOpen = fitsWay(course, from, value) || (bars.before !== null && value <= MOST_BARS);
  if (isOpen && !isNamed && !isRead) return null;
  // "Friday 15.2 at the office 84": right after a place, between two charges.
  const placed =
    after !== null && course.beside("distance", from).some(({ at }) => from - at >= -4 && from - at <= 6);
  if (placed) return found(value, "it lies between the charges before and after it");
  return STATES.test(around.clause) && (around.clause.trim() !== "" || standsAlone(around))
    ? { ...found(value, "a state that goes on from the last charge"), ...(isRead && { anew: true }) }
    : null;
}

/** "15, 25, 40 and 60": one of a row, of what the row is of. */
export function isListed(quantity: Quantity, { quantities, tokens }: Said): boolean {
  const i = firstNotBefore(quantities.length, (each) => nth(quantities, each).from < quantity.from);
  const touches = (a: Quantity | undefined, b: Quantity | undefined) =>
    a !== undefined &&
    b !== undefined &&
    a.unit === null &&
    b.unit === null &&
    !a.exact &&
    !b.exact &&
    (a.to === b.from || (a.to + 1 === b.from && nth(tokens, a.to).word === "and")) &&
    nth(tokens, a.to - 1).pause !== "sentence";
  return touches(quantities[i - 1], quantities[i]) || touches(quantities[i], quantities[i + 1]);
}

/** Nothing but the figure is said. */
const standsAlone = ({ clause, after, parted }: Around) =>
  clause.trim() === "" && (parted || after.trim() === "" || /^(?:and|now|left|already)\b/.test(after));

const found = (value: number, because: string): Found => ({
  kind: "percent_left",
  value,
  unit: "%",
  because,
});

/** Bars without the word, said as a state, where the gauge has only bars. */
export function barsContinued(unread: Unread, said: Said, course: Course): Found | null {
  const { value, from, to, unit } = unread.quantity;
  const { before, after, count } = course.at("bars_left", from);
  if (unit !== null || !isWhole(unread) || value > MOST_BARS || before === null) return null;
  if (course.at("percent_left", from).count >= FEWEST) return null;
  const around = said.around(from, to);
  // "It dropped a bar, so I've got four": the first that went.
  const went = value === before - 1 && course.beside("bar_lost", from).length > 0;
  if (went && standsAlone(around)) return bars(value);
  if (count < FEWEST && !went) return null;
  const isHeld = /\bstill(?: on| at| got| have)? $/.test(around.clause);
  const most = Math.max(...course.of("bars_left").flatMap((each) => figureOf(each) ?? []));
  const fits = isHeld
    ? value <= most && Math.abs(value - before) <= MOST_BARS_GONE
    : value < before && value >= Math.max(after ?? 0, before - MOST_BARS_GONE);
  if (!fits || !BAR_STATES.test(around.clause) || NO_STATE.test(around.before)) return null;
  if (NOT_CHARGE_AFTER.test(around.after) || OTHER_MEASURE.test(around.before)) return null;
  return bars(value);
}

const bars = (value: number): Found => ({
  kind: "bars_left",
  value,
  unit: null,
  because: "a state that goes on from the last bars",
});

const NO_CLIMB =
  /\b(?:from here|to go|above|below|wide|long|away|ahead|sea|higher|lower|each|every|per|up to|another|last|next|for the (?:whole|full)|would|out of (?:a|the))\b/;

/** Metres or feet that nothing names, in a ride whose climb was said before: higher than the last. */
export function climbContinued({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, from, to, unit, high } = quantity;
  const last = course.of("climb_gain").at(-1);
  const { before, after, count } = course.at("climb_gain", from);
  if (!last || (unit !== "m" && unit !== "ft") || unit !== last.unit || high !== null) return null;
  if (before === null || value <= before || value > (after ?? Infinity)) return null;
  const around = said.around(from, to);
  if (after === null && value > before * 2 + 300 && around.clause.trim() !== "") return null;
  if (count < FEWEST && !/\b(?:climbs?|ascent|elevation|vertical)\b/.test(around.sentence)) return null;
  if (NO_CLIMB.test(`${around.clause.slice(-24)}|${around.after.slice(0, 24)}`)) return null;
  return { kind: "climb_gain", value, unit, because: "goes on from the last climb" };
}

const USED =
  /\b(?:took|takes|taken|it was|used|lost|cost|costs|(?:gone |went )?down by|dropped|dropped by|i make that|that makes|burned|burnt|ate|that's|that was|another)(?: me| us| up| about| just| only| another)* $/;
const USED_AFTER =
  /^(?:gone|used|lost|(?:this|that) time|again(?: |$)|for (?:that|this|the|one)|on (?:that|this)|percent)\b/;

const SLOPE = /\b(?:hill|climb|ramp|grade|gradient|slope|steep)\b[^.]* (?:is|was|were|it's|about) /;

/** As much as went between two charges: "7 percent against 9", "so it took four". */
export function usedContinued({ quantity }: Unread, said: Said, course: Course): Found | null {
  const { value, unit, from, to, high } = quantity;
  if ((unit !== "%" && unit !== null) || high !== null || value <= 0) return null;
  const around = said.around(from, to);
  if (SLOPE.test(around.sentence) && unit !== null) return null;
  // "Now there is three percent between us", "so it's still one percent".
  if (
    /\b(?:difference|between us|apart)\b/.test(`${around.earlier} ${around.before}`) ||
    /\bstill $/.test(around.clause) ||
    // Of two who ride together, what one has more than the other.
    (around.together && value <= FEW && !USED.test(around.clause) && !USED_AFTER.test(around.after))
  )
    return null;
  const beside = course.of("percent_left").some(({ at }) => from - at > 0 && from - at <= 6);
  const so =
    beside &&
    /^(?:so|that's|so that's|which is|making it|,| )* ?$/.test(around.clause) &&
    /^(?:$|[.,]|and (?:the|now|then|that's|last|next)\b|now\b|okay\b|next\b|right\b)/.test(around.after);
  if (unit === null && !so && !USED.test(around.clause) && !USED_AFTER.test(around.after)) return null;
  const charges = course.of("percent_left").flatMap((each) => {
    const figure = figureOf(each);
    return figure === null ? [] : [{ at: each.at, figure }];
  });
  const next = charges.findIndex(({ at }) => at > from);
  const here = next < 0 ? charges.length : next;
  const figures = charges.slice(Math.max(0, here - 2), here + 1).map(({ figure }) => figure);
  const before = charges[here - 1];
  if (!before) return null;
  const went = [
    ...(here === 1 ? [100 - before.figure] : []),
    ...figures.slice(1).map((each, i) => nth(figures, i) - each),
    // Of the whole ride, where the figure has its sign.
    ...(unit === "%" ||
    /\b(?:i've|we've|i have|we have) (?:now |only |already )?used $/.test(around.clause) ||
    /^(?:for|in|over) #_(?:mi|km)/.test(around.after)
      ? [100 - before.figure, (charges[0]?.figure ?? 100) - before.figure]
      : []),
  ];
  return went.some((each) => Math.abs(each - value) < 1e-6) &&
    !/^(?:of|grade|hill|more|less|better|worse)\b/.test(around.after)
    ? {
        kind: "percent_used",
        value,
        unit: "%",
        because: "as much as went between two charges",
        ...(/^again\b/.test(around.after) && { anew: true }),
      }
    : null;
}
