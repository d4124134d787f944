import type { Around } from "../context.ts";
import { killed, REASONS } from "../kills.ts";
import { namedBefore } from "../named.ts";
import {
  left,
  lately,
  valueOf,
  type Asked,
  type Found,
  type Rule,
  type Rules,
  type Verdict,
} from "../found.ts";

/** What follows a distance that is not ridden: still to go, long, every so many. */
const NOT_RIDDEN_AFTER =
  /^(to go|to the|to my|to get|back (to|from) (the|my|our|where)|back home|away|off\b|ahead|still (to go|ahead)|from (here|home|there|my|the)|long|straight|one way|each way|every|of (downhill|uphill|climb(?!ing)|descent|flat|gravel|path|road|it\b|this|that|tarmac|asphalt|hum|sand|forest|cycle)|ago|wide|further|farther|apart|a (day|week|year|charge|gallon|month)|per|on a (charge|gallon|tank)|between|till|until|out of (it|this|that)|worth|round|loop|there and back|or nothing|short|course|route|stretch|ride|section|lap|is (nothing|a lot|useless|not))\b/;
const DONE_AFTER = /^(ticked off|done|in the bag|behind (us|me)|under (our|my|the) belt|completed?)\b/;
const LENGTH_OF = /\b(hill|climb|loop|route|course|circuit|lap|trail|commute|pass|way to work)\b/;
const IT_IS =
  /^(and |so )?(it's|it is|which is|that's|that is) (about |around |only |just |roughly |nearly |almost )*$/;
const DONE_BEFORE =
  /\b(i've|we've|i have|we have) (now )?(done|ridden|covered|gone|got)( about| just| only| now| around| exactly)* $/;
const FIRST_DONE = /\b(that's|there's|there are|those are|after|that was) (the|my|our) first $/;
const NOT_RIDDEN_BEFORE =
  /\b((i've|i have|we've|have|had|has) put( on)?|every|each|another|last|next|past few|first|only another|within|for the next|in the last|hasn't moved in|for about|by another|about every|further|extra|it's still|takes|which is|whole|remaining|a good|needs?|costs?)( of)?\s*$/;
const LOOP =
  /(?<!\b(?:first|second|third|fourth|fifth|sixth|last|final|next|end of the|end of) )\b(loop|route|course|lap|way to work|commute|each way|one way|way is|round trip|circuit)('s)?( which| that)? (is|of|are|was|takes)?\s*(about|around|some|roughly|nearly)?\s*$/;

const DISPLAY =
  /\b(display|screen|dash|bike|computer|app|gauge|it|indicator|guess-?o-?meter|range meter|odometer)\b/;
const RANGE_VERB =
  /\b(says?|said|shows?|showing|estimat\w+|promis\w+|reckons?|thinks?|predicts?|claims|tells me|reading|gives? me|left|range)\b/;
const SURE_RANGE_VERB = /\b(estimat\w+|promis(?:es|ing)|reckons?|thinks|predicts?)\b[^#]{0,18}$/;
/** "It says I can go another". */
const ALLOWS =
  /\b(says|reckons|thinks|shows|promises) (that )?(i|we|you|it|i've|we've|there's|there is)( can| could| should|'ll| will| got| have| still| be)*( go| do| get| make| ride| last)?( another| about| still| around)* $/;
const OF_RANGE =
  /^(left|remaining|of range|range|to go on|to go(?= |$)|more|still(?! (#|showing|on|got|have|at|says|reads|with|and|in|all|going))|to empty)\b/;
const GUESS =
  /\b(i'd say|i say|i figure|figure (that's|it's)|i'd guess|i reckon|i'm guessing|i guess|my (bet|guess|prediction|money)|i bet|i'd bet|bet (is|on)|i think (i'm|we're|we|i|it|it's|i'll)|(we'll|i'll|it'll|will) (end up|get|make|manage|do|see|reach)|(gonna|going to) (get|make|do|see|end|be|manage|reach)|end up (somewhere|at|with|around)|i (expect|predict|hope for))\b/;

const MILESTONE =
  /\b(hit|hits|hitting|crossed|crossing|reached|reaching|passed|passing|past|broke|broken|breaking|clocked|clocks|clocking|rolled (past|by|over|through)|rolling (past|over)|just (over|did|ticked|rolled|about)|ticked over|officially|there's (the|our|my)|there goes|that's the|at the)\b[^,.]{0,16}$/;
const STATE =
  /\b(i'm (at|on)|we're (at|on|now at)|we are (at|on|now at)|at|it's|it is|that's|that is|this is|that makes|makes|reads?|reading|shows?|showing|says?|said|has|have|had|with|meter|odometer|trip|recorder|phone|gps|tracker|now|distance|total|we've (done|got|ridden|gone|covered)|i've (done|got|ridden|gone|covered)|done|did|rode|ridden|covered|gone|came to|comes to|went|managed|by|after|that was|mark|update|report|check|there|so far|are|exactly|just|about|around|was|got|lasted|made|made it|travelled|traveled|to do|do|into|us|bike|be|then|home|again)\s*(just|about|around|roughly|almost|nearly|exactly|like|a|the|now|only|already|over|to|bit|little|touch|under|at|past|officially|me)?\s*(bit|little|touch)?\s*(over|under|past|beyond)?\s*:?\s*$/;
const PROGRESS =
  /^(in\b|into|down\b|done|gone|now|so far|already|on (the|it|my|our)|ridden|behind|at the|and\b|covered|mark|on this|here|up here|when|,|\.|by now|since|with|$|for the day|one hour|two|three|four|five|six|seven|eight|nine|ten|first|or so|exactly|even|sharp|flat|officially|already|almost (on|exactly)|on the (dot|nose|money|button)|bang on|today|total|distance|battery|#|that's|we|it|there|again|later|i'm|and|still|uh|travel)/;

const DISTANCES = { mi: "mi", km: "km" } as const;

/** "range now says 51". */
const RANGE_BEFORE = namedBefore("range|remaining range|range left");

/** No pack goes farther, in miles or kilometres. */
const MOST_RANGE = 400;

/** What a display or a rider thinks is left; null where it is neither. */
function rangeOf({ quantity, around }: Asked, unit: "mi" | "km"): Verdict | null {
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
    !/\b(next )?bar\b/.test(clause);
  if (guess && !/\bago\b/.test(around.sentence) && !around.isQuestion)
    return { kind: "range_guess", value, unit, of: "rider", because: "the rider's guess" };
  if (
    /^left in (?:it|her|him|this|the)\b/.test(after) &&
    /\b(?:maybe|probably|about|there's|there are|i've)\b/.test(before)
  )
    return { kind: "range_guess", value, unit, of: "rider", because: "the rider's guess" };
  const range = /\b(range|remaining|left)\b[^.]{0,14}$/.test(clause) && !/^(left|right) /.test(clause);
  if (RANGE_BEFORE.test(before) && !/\b(my|rated|claimed|of a)\b/.test(clause))
    return { kind: "range_guess", value, unit, of: "display", because: "said as a range" };
  if (ALLOWS.test(before))
    return { kind: "range_guess", value, unit, of: "display", because: "what the display thinks is left" };
  if (
    (DISPLAY.test(before) && RANGE_VERB.test(before) && (ofRange || range)) ||
    (SURE_RANGE_VERB.test(clause) && !/\bi (reckon|think)/.test(clause))
  )
    return { kind: "range_guess", value, unit, of: "display", because: "what the display thinks is left" };
  if (/^(of range|range left|of range left|range)\b/.test(after))
    return { kind: "range_guess", value, unit, of: "display", because: "said as a range" };
  return null;
}

/** Whether a distance is said to be still to go, long, or one of every so many. */
export const isNotRidden = ({ before, after, clause }: Around): boolean =>
  NOT_RIDDEN_AFTER.test(after) || NOT_RIDDEN_BEFORE.test(clause) || OF_RANGE.test(after) || LOOP.test(before);

/** What happens at a place that is said right behind it. */
const HAPPENED = /^(cut_off|battery_blinking|low_power|bar_lost|turn_round)$/;

/** Distances with their unit. */
const inUnit =
  (unit: "mi" | "km"): Rule =>
  (asked) => {
    const { quantity, around, ride } = asked;
    const { before, after, clause } = around;
    // An odometer, or what a pack lasts in its life.
    if (quantity.value > MOST_RANGE) return left(REASONS.size);
    const claim = killed(around, { allow: ["negated"] });
    if (claim === REASONS.claim)
      return { kind: "claim_range", value: valueOf(quantity), unit, because: "what is claimed" };
    if (claim === REASONS.otherTime || claim === REASONS.otherBike) return left(claim);
    const range = /\bif\b/.test(before) ? null : rangeOf(asked, unit);
    if (range) return range;
    if (
      /\b(the|my|our) first $/.test(clause) &&
      /^(?:took|are|were|is|was)\b/.test(after) &&
      killed(around) === null
    )
      return placeRead(asked, unit, "progress");
    // "I've done 3.9 miles in all", "after the first two kilometres".
    if (
      (DONE_BEFORE.test(clause) || FIRST_DONE.test(clause)) &&
      !/^(to go|away|left|ago|from|of)\b/.test(after) &&
      killed(around) === null
    )
      return placeRead(asked, unit, "progress");
    // "The hill is called … It's 3.1 kilometres": how long it is.
    if (ride.distance === null && LENGTH_OF.test(around.earlier) && IT_IS.test(before))
      return left(REASONS.toGo);
    if (DONE_AFTER.test(after) && killed(around) === null) return placeRead(asked, unit, "progress");
    if (NOT_RIDDEN_AFTER.test(after) && !/^(off|round) (the|and) /.test(after)) return left(REASONS.toGo);
    if (
      /\bwhich is (about |around |another )*$/.test(before) ||
      OF_RANGE.test(after) ||
      NOT_RIDDEN_BEFORE.test(clause) ||
      LOOP.test(before)
    )
      return left(REASONS.toGo);
    const reason = killed(around);
    if (reason) return left(reason);
    const alone =
      clause.trim() === "" ||
      /^(okay|ok|right|yep|yeah|yes|so|well|and|at|alright|a|monday|home|again|all|end of the|first|second|third|lap|the|top|nearly|almost|about|just over|just|over|now|around|another|touch|beyond|bit|little|shy|of|bang on|exactly|only|roughly|one|[ ,:])*$/.test(
        clause,
      );
    if (MILESTONE.test(clause)) return placeRead(asked, unit, "a milestone");
    if (STATE.test(clause)) return placeRead(asked, unit, "said as it stands");
    if (
      (PROGRESS.test(after) && after !== "") ||
      /^(the |my |and (the )?)?(battery|gauge|pack|display) /.test(after)
    )
      return placeRead(asked, unit, "progress");
    if (/^#/.test(after)) return placeRead(asked, unit, "in a list of figures");
    if (alone && (after === "" || /^[,.]/.test(after))) return placeRead(asked, unit, "in a list of figures");
    if (alone) return placeRead(asked, unit, "in a list of figures");
    if (lately(ride, quantity.from, HAPPENED, 5)) return placeRead(asked, unit, "where it happened");
    return left(REASONS.unlicensed);
  };

/** "The phone says", "the bike has": the meter that a figure is read off. */
const METER =
  /\b(phone|gps|recorder|tracker|display|bike|screen|odometer|dash|speedo)(?:'s)?(?: itself)?(?: says| reads| has| shows| pretends| claims| gives| is at| counts| thinks)?(?: it's| we're at)? ?,?:? ?(?:about |only |just )?(?:mile |mile marker )?$/;

const METER_AFTER =
  /^(?:by|on) (?:the |my |our )?(phone|gps|recorder|tracker|display|screen|odometer|dash|speedo|head unit|watch)\b/;

/** A place on the way, with the meter it was read off where that is said. */
export const placeRead = (
  { quantity, around }: Pick<Asked, "quantity" | "around">,
  unit: "mi" | "km",
  because: string,
): Found => {
  // "67, 69 miles": the later one betters the first.
  const value = quantity.high ?? quantity.value;
  const by = METER.exec(around.clause)?.[1] ?? METER_AFTER.exec(around.after)?.[1];
  const of =
    by === undefined
      ? undefined
      : /^(phone|gps|recorder|tracker|satellite|head unit|watch)/.test(by)
        ? ("recorder" as const)
        : /^(display|bike|screen|odometer|dash|speedo)/.test(by)
          ? ("display" as const)
          : undefined;
  return { kind: "distance", value, unit: DISTANCES[unit], because, ...(of && { of }) };
};

/** How much two meters of one way differ at most, as a part of it. */
export const METERS_DIFFER = 0.12;
const CLAIMED =
  /\b(they (say|claim|promise|quote|advertise|reckon)|rated (at|for)|(makers?|manufacturers?|company|website|box|brochure) (says?|said|claims?|claimed|promises?)|advertised (at|as))( it's| it does| it'll do| you get| you can get)?( up to| about| around)* $/;
const LABEL = /\b(mile|kilometre|kilometer|km) (marker |number )?$/;
const BARE_PLACE =
  /\b(at|mark|i'm at|we're at|clocks?|passed|hit|crossed|reached|distance|trip|went at|gone at|odometer|mileage)( is| was| of| reads| says| like| about| now| only)? ?[,.:]? ?$/;

/** A figure without unit that can only be a place on the way. */
export function bareDistance(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { before, clause } = around;
  const labelled = LABEL.test(before);
  const unit = /kilomet|km $/.test(before) && labelled ? "km" : ride.unit;
  if (labelled) {
    const reason = killed(around);
    return reason ? left(reason) : placeRead(asked, unit, "named as the mile");
  }
  const { value } = quantity;
  if (value <= 0) return null;
  const guessed =
    !/\bwas (?:about |like )?$/.test(clause) &&
    GUESS.test(before.replace(/^.*#\S*/, " ")) &&
    !/\b(bar|ago)\b/.test(before) &&
    (/\bmy (bet|guess)\b/.test(before) ||
      /\b(how far|range|battery|miles|kilomet\w*|left|make|get|pack|(?:it'd|would) have|thing goes?)\b|#_(mi|km)\b/.test(
        `${around.earlier} ${around.sentence}`,
      ));
  if (guessed && value > 5 && value <= MOST_RANGE && !quantity.clock)
    return { kind: "range_guess", value: valueOf(quantity), unit, of: "rider", because: "the rider's guess" };
  if (RANGE_BEFORE.test(before) && !/\b(my|rated|claimed|of a)\b/.test(clause) && value > 1) {
    const reason = killed(around);
    return reason
      ? left(reason)
      : {
          kind: "range_guess",
          value: valueOf(quantity),
          unit,
          of: "display",
          because: "what the display thinks is left",
        };
  }
  if (/^((is|'s|would be|being) )?(my|the) (guess|bet|money|prediction)\b/.test(around.after) && value > 5)
    return { kind: "range_guess", value: valueOf(quantity), unit, of: "rider", because: "the rider's guess" };
  // "21.2 on the phone, the dash reckons 23": another meter of one way.
  if (
    /\b(?:dash|display|bike|screen|computer|odometer)('s)? (?:reckons|thinks|makes it|says) $/.test(clause) &&
    ride.distance !== null &&
    lately(ride, quantity.from, /^distance$/, 10) !== null &&
    Math.abs(value / ride.distance - 1) < METERS_DIFFER
  )
    return left(REASONS.recap);
  if (killed(around) === REASONS.otherBike) return left(REASONS.otherBike);
  if (ALLOWS.test(before) && value > 5 && !NOT_RIDDEN_AFTER.test(around.after))
    return {
      kind: "range_guess",
      value: valueOf(quantity),
      unit,
      of: "display",
      because: "what the display thinks is left",
    };
  if (
    SURE_RANGE_VERB.test(clause) &&
    DISPLAY.test(clause) &&
    value > 5 &&
    !/^to the\b/.test(around.after) &&
    !/\b(?:bloke|guy|man|lady|woman|someone|somebody|he|she|they)\b/.test(clause)
  )
    return {
      kind: "range_guess",
      value: valueOf(quantity),
      unit,
      of: "display",
      because: "what the display thinks is left",
    };
  if (
    /^left\b/.test(around.after) &&
    /\b(display|screen|app|computer) (reckons|says|thinks|shows|promises)\b/.test(clause)
  )
    return {
      kind: "range_guess",
      value: valueOf(quantity),
      unit,
      of: "display",
      because: "what the display thinks is left",
    };
  if (
    /^(to empty|to flat|before it's (empty|flat|dead))\b/.test(around.after) &&
    value > 5 &&
    !quantity.clock
  )
    return { kind: "range_guess", value: valueOf(quantity), unit, of: "rider", because: "the rider's guess" };
  if (CLAIMED.test(clause) && value >= 15 && value <= 200 && !quantity.exact)
    return { kind: "claim_range", value: valueOf(quantity), unit, because: "what is claimed" };
  const from = ride.distance ?? 0;
  const byMeter =
    (METER.test(clause) || METER_AFTER.test(around.after)) && ride.distance !== null && value >= from * 0.93;
  const first =
    ride.distance === null &&
    value < 250 &&
    (quantity.exact || /\b(distance|trip|odometer|mileage|mark|clocks?)\b/.test(clause));
  const plausible =
    first || ((value >= from || byMeter) && value <= from + Math.max(12, from * 0.6) && value > 0.5);
  if (!plausible || quantity.clock) return null;
  const bars = lately(ride, quantity.from, /^(bar_lost|bars_left)$/, 4);
  if (
    byMeter ||
    (!/\b(?:red|yellow|orange|amber|reserve|limp\w*|cut ?off) (?:at|below|under) $/.test(clause) &&
      BARE_PLACE.test(clause) &&
      (ride.distance !== null || quantity.exact) &&
      !/\b(green|morning|o'clock|up at|left at|breakfast)\b/.test(clause)) ||
    (bars && quantity.exact && !lately(ride, quantity.from, /^distance$/, 6))
  ) {
    const reason = killed(around);
    return reason ? left(reason) : placeRead(asked, unit, "a place, in the ride's unit");
  }
  // A sentence that is nothing but the figure, beside a charge.
  const lone = clause.trim() === "" && /^($|[.,])/.test(around.after);
  if (lone && quantity.exact && ride.distance !== null && value > ride.distance)
    return placeRead(asked, unit, "a place, in the ride's unit");
  return null;
}

export const DISTANCE: Rules = { mi: inUnit("mi"), km: inUnit("km") };
