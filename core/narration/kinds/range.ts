import { killed, REASONS } from "../kills.ts";
import { namedBefore } from "../named.ts";
import { lately, left, valueOf, type Asked, type Found, type Verdict } from "../found.ts";

/** What follows a distance that is not ridden: still to go, long, every so many. */
export const NOT_RIDDEN_AFTER =
  /^(to go|(?:will|would) be\b|there ,|back ,|to the|to my|to get|back (to|from) (the|my|our|where)|back home|away|off\b|ahead|still (to go|ahead)|from (here|home|there|my|the|(?:one|#) (?:end|side)|top)|long|straight|one way|each way|every|of (downhill|uphill|climb(?!ing)|descent|flat|gravel|path|road|it\b|this|that|tarmac|asphalt|hum|sand|forest|cycle)|ago|wide|further|farther|apart|a (day|week|year|charge|gallon|month)|per|on a (charge|gallon|tank)|between|till|until|out of (it|this|that)|worth|round|loop|there and back|or nothing|short|course|route|stretch|ride|section|lap|is (nothing|a lot|useless|not))\b/;
const DISPLAY =
  /\b(display|screen|dash|bike|computer|app|gauge|it|indicator|guess-?o-?meter|range meter|odometer)\b/;
const RANGE_VERB =
  /\b(says?|said|shows?|showing|estimat\w+|promis\w+|reckons?|thinks?|predicts?|claims|tells me|telling me|reading|gives? me|left|range)\b/;
const SURE_RANGE_VERB = /\b(estimat\w+|promis(?:es|ing)|reckons?|thinks|predicts?)\b[^#]{0,18}$/;
/** "It says I can go another". */
const ALLOWS =
  /\b(says|reckons|thinks|shows|promises) (that )?(i|we|you|it|i've|we've|there's|there is)( can| could| should|'ll| will| got| have| still| be)*( go| do| get| make| ride| last)?( another| about| still| around)* $/;
export const OF_RANGE =
  /^(left|remaining|of range|range|to go on|to go(?= |$)|more|still(?! (#|showing|on|got|have|at|says|reads|with|and|in|all|going))|to empty)\b/;
const GUESS =
  /\b(i'd say|i say|i figure|figure (that's|it's)|i'd guess|i reckon|i'm guessing|i guess|my (bet|guess|prediction|money)|i bet|i'd bet|bet (is|on)|(?:a|my) bet (?:with \w+ )?that\b|i (?:should|ought to) (?:see|get|make|do|reach|hit)|i think (i'm|we're|we|i|it|it's|i'll)|(we'll|i'll|it'll|will) (end up|get|make|manage|do|see|reach)|(gonna|going to) (get|make|do|see|end|be|manage|reach)|end up (somewhere|at|with|around)|i (expect|predict|hope for)|at this rate (?:i'd|i'll|we'll|it'll|you'd|we'd) (?:get|do|make|see))\b/;

/** How much two meters of one way differ at most, as a part of it. */
export const METERS_DIFFER = 0.12;

/** "range now says 51". */
const RANGE_BEFORE = namedBefore("range|remaining range|range left");

/** No pack goes farther, in miles or kilometres. */
export const MOST_RANGE = 400;

/** What a display or a rider thinks is left; null where it is neither. */
export function rangeOf({ quantity, around }: Asked, unit: "mi" | "km"): Verdict | null {
  const { before, after, clause } = around;
  const value = valueOf(quantity);
  if (quantity.singular && /^(loop|lap|route|ride|course|circuit|commute|stretch|run|trip)\b/.test(after))
    return null;
  if (quantity.value > MOST_RANGE) return null;
  const ofRange =
    OF_RANGE.test(after) || /\bmore\b/.test(around.sentence.slice(before.length, before.length + 12));
  const guess =
    !/\b(do|get|make) (that|it|this) $/.test(before) &&
    GUESS.test(before.replace(/^.*#\S*/, " ")) &&
    !/\b(next )?bar\b/.test(clause) &&
    // "You're gonna do better than me | 36 miles".
    !/\b(?:better|worse|further|more) than (?:me|you|us|him|her|that|this|mine|most)\b/.test(before);
  if (guess && !/\bago\b/.test(around.sentence) && !around.isQuestion)
    return { kind: "range_guess", value, unit, of: "rider", because: "the rider's guess" };
  if (
    /^left in (?:it|her|him|this|the)\b/.test(after) &&
    /\b(?:maybe|probably|about|there's|there are|i've)\b/.test(before)
  )
    return { kind: "range_guess", value, unit, of: "rider", because: "the rider's guess" };
  const range =
    /\b(range|remaining|(?<!\b(?:the|my) )left)\b[^.]{0,14}$/.test(clause) && !/^(left|right) /.test(clause);
  if (RANGE_BEFORE.test(before) && !/\b(my|rated|claimed|of a)\b/.test(clause))
    return { kind: "range_guess", value, unit, of: "display", because: "said as a range" };
  if (ALLOWS.test(before))
    return { kind: "range_guess", value, unit, of: "display", because: "what the display thinks is left" };
  if (
    (DISPLAY.test(before) && RANGE_VERB.test(before) && (ofRange || range)) ||
    (SURE_RANGE_VERB.test(clause) &&
      !/^to (?:the|my|a)\b/.test(after) &&
      !/\b(?:i|he|she|they|bloke|guy|man|lady|woman|chap) (?:reckons?|thinks?)/.test(clause))
  )
    return { kind: "range_guess", value, unit, of: "display", because: "what the display thinks is left" };
  if (/^(of range|range left|of range left|range)\b/.test(after))
    return { kind: "range_guess", value, unit, of: "display", because: "said as a range" };
  return null;
}

/** A range without its unit; null where it is none. */
export function bareRange(asked: Asked, unit: "mi" | "km"): Verdict | null {
  const { quantity, around, ride } = asked;
  const { before, clause } = around;
  const { value } = quantity;
  const found = (of: "rider" | "display", because: string): Found => ({
    ...{ kind: "range_guess", value: valueOf(quantity), unit, of, because },
  });
  const byRider = found("rider", "the rider's guess");
  const byDisplay = found("display", "what the display thinks is left");
  const guessed =
    !/\bwas (?:about |like )?$/.test(clause) &&
    !/\bi'd have (?:bet|said|guessed)\b/.test(before) &&
    GUESS.test(before.replace(/^.*#\S*/, " ")) &&
    !/\b(bar|ago)\b/.test(before) &&
    (/\bmy (bet|guess)\b/.test(before) ||
      /\b(how far|range|battery|miles|kilomet\w*|left|make|see|makes it to|get|pack|at this rate|(?:going to|gonna) be something like|should (?:see|get|make|do|reach|hit)|(?:it'd|would) have|thing goes?)\b|#_(mi|km)\b/.test(
        `${around.earlier} ${around.sentence}`,
      ));
  if (guessed && value > 5 && value <= MOST_RANGE && !quantity.clock) return byRider;
  if (RANGE_BEFORE.test(before) && !/\b(my|rated|claimed|of a)\b/.test(clause) && value > 1) {
    const reason = killed(around);
    return reason ? left(reason) : byDisplay;
  }
  if (/^((is|'s|would be|being) )?(my|the) (guess|bet|money|prediction)\b/.test(around.after) && value > 5)
    return byRider;
  // "21.2 on the phone, the dash reckons 23": another meter of one way.
  if (
    /\b(?:dash|display|bike|screen|computer|odometer)('s)? (?:reckons|thinks|makes it|says) $/.test(clause) &&
    ride.distance !== null &&
    lately(ride, quantity.from, /^distance$/, 10) !== null &&
    Math.abs(value / ride.distance - 1) < METERS_DIFFER
  )
    return left(REASONS.recap);
  if (ALLOWS.test(before) && value > 5 && !NOT_RIDDEN_AFTER.test(around.after))
    return killed(around) === REASONS.otherBike ? left(REASONS.otherBike) : byDisplay;
  if (
    SURE_RANGE_VERB.test(clause) &&
    DISPLAY.test(clause) &&
    value > 5 &&
    !/^to the\b/.test(around.after) &&
    !/\b(?:bloke|guy|man|lady|woman|someone|somebody|he|she|they)\b/.test(clause)
  )
    return byDisplay;
  if (
    /^left\b/.test(around.after) &&
    /\b(display|screen|app|computer) (reckons|says|thinks|shows|promises)\b/.test(clause)
  )
    return byDisplay;
  if (
    /^(to empty|to flat|before it's (empty|flat|dead))\b/.test(around.after) &&
    value > 5 &&
    !quantity.clock
  )
    return byRider;
  return null;
}
