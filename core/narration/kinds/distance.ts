import type { Around } from "../context.ts";
import { killed, REASONS } from "../kills.ts";
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
import { bareRange, MOST_RANGE, NOT_RIDDEN_AFTER, OF_RANGE, rangeOf } from "./range.ts";

const DONE_AFTER = /^(ticked off|done|in the bag|behind (us|me)|under (our|my|the) belt|completed?)\b/;
const LENGTH_OF = /\b(hill|climb|loop|route|course|circuit|lap|trail|commute|pass|way to work)\b/;
const IT_IS =
  /^(and |so )?(it's|it is|which is|that's|that is) (about |around |only |just |roughly |nearly |almost |exactly |an? |bit |little |touch |over |under )*$/;
const DONE_BEFORE =
  /\b(i've|we've|i have|we have) (now )?(done|ridden|covered|gone|got)( about| just| only| now| around| exactly)* $/;
const FIRST_DONE = /\b(that's|there's|there are|those are|after|that was) (the|my|our) first $/;
const NOT_RIDDEN_BEFORE =
  /\b((i've|i have|we've|have|had|has) put( on)?|every|each|another|last|next|past few|first|only another|within|for the next|in the last|hasn't moved in|for about|by another|about every|further|extra|it's still|takes|which is|whole|remaining|a good|needs?|costs?)( of)?\s*$/;
const LOOP =
  /(?<!\b(?:first|second|third|fourth|fifth|sixth|last|final|next|end of the|end of) )\b(loop|route|course|lap|our round|my round|way to work|commute|each way|one way|way is|round trip|circuit)('s)?( which| that)? (is|of|are|was|takes)?\s*(about|around|some|roughly|nearly|exactly|only|just)?\s*(over|under)?\s*$/;

const MILESTONE =
  /\b(hit|hits|hitting|crossed|crossing|reached|reaching|passed|passing|past|broke|broken|breaking|clocked|clocks|clocking|rolled (past|by|over|through)|rolling (past|over)|just (over|did|ticked|rolled|about)|ticked over|officially|there's (the|our|my)|there goes|that's the|at the)\b[^,.]{0,16}$/;
const STATE =
  /\b(i'm (at|on)|we're (at|on|now at)|we are (at|on|now at)|at|it's|it is|that's|that is|this is|that makes|makes|reads?|reading|shows?|showing|says?|said|has|have|had|with|meter|odometer|trip|recorder|phone|gps|tracker|now|distance|total|we've (done|got|ridden|gone|covered)|i've (done|got|ridden|gone|covered)|done|did|rode|ridden|covered|gone|came to|comes to|went|managed|by|after|that was|mark|update|report|check|there|so far|are|exactly|just|about|around|was|got|lasted|made|made it|travelled|traveled|to do|do|into|us|bike|be|then|home|again)\s*(just|about|around|roughly|almost|nearly|exactly|like|a|the|now|only|already|over|to|bit|little|touch|under|at|past|officially|me)?\s*(bit|little|touch)?\s*(over|under|past|beyond)?\s*:?\s*$/;
const PROGRESS =
  /^(in\b|into|down\b|done|gone|now|so far|already|on (the|it|my|our)|ridden|behind|at the|and\b|covered|mark|on this|here|up here|when|,|\.|by now|since|with|$|for the day|one hour|two|three|four|five|six|seven|eight|nine|ten|first|or so|exactly|even|sharp|flat|officially|already|almost (on|exactly)|on the (dot|nose|money|button)|bang on|today|total|distance|battery|#|that's|we|it|there|again|later|i'm|and|still|uh|travel)/;

const DISTANCES = { mi: "mi", km: "km" } as const;

/** Whether a distance is said to be still to go, long, or one of every so many. */
export const isNotRidden = ({ before, after, clause }: Around): boolean =>
  NOT_RIDDEN_AFTER.test(after) || NOT_RIDDEN_BEFORE.test(clause) || OF_RANGE.test(after) || LOOP.test(before);

/** What happens at a place that is said right behind it. */
const HAPPENED = /^(cut_off|battery_blinking|low_power|bar_lost|turn_round)$/;

/** So many words on, a claim is said again. */
const CLAIM_AGAIN = 30;
const IF = /\bif\b/;
/** "If it keeps going like this I'd guess". */
const GUESSED = /\b(?:i'd|i) (?:guess|reckon|say|think|bet)\b|\bmy guess\b/;
const IF_IT_KEEPS =
  /\bif (?:it|this|that|we|i|things|she|the \w+) (?:keeps?|goes on|go on|carr(?:y|ies)|stays?|continues?|holds?)\b/;
const PUT_ON = /\bput (?:just |over |about |nearly |almost |around |well |like )*$/;

/** Distances with their unit. */
const inUnit =
  (unit: "mi" | "km"): Rule =>
  (asked) => {
    const { quantity, around, ride } = asked;
    const { before, after, clause } = around;
    // An odometer, or what a pack lasts in its life.
    if (quantity.value > MOST_RANGE || quantity.value === 0) return left(REASONS.size);
    // "The lighthouse and back, that's 34 miles".
    if (/\band back ?,? (?:that's|it's|which is) (?:about |just |over |under )*$/.test(before))
      return left(REASONS.toGo);
    const claim = killed(around, { allow: ["negated"] });
    if (claim === REASONS.claim)
      return { kind: "claim_range", value: valueOf(quantity), unit, because: "what is claimed" };
    if (claim === REASONS.otherTime || claim === REASONS.otherBike) return left(claim);
    // "They say 70 miles. I mean, 70 miles".
    if (lately(ride, quantity.from, /^claim_range$/, CLAIM_AGAIN)?.value === quantity.value)
      return left(REASONS.recap);
    // "I've put just over 400 miles on it": what an odometer has.
    if (PUT_ON.test(clause) && /^on\b/.test(after)) return left(REASONS.size);
    const isIf = IF.test(GUESSED.test(before) ? before.replace(IF_IT_KEEPS, " ") : before);
    const range = isIf ? null : rangeOf(asked, unit);
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
    if (
      ride.distance === null &&
      ((LENGTH_OF.test(around.earlier) && IT_IS.test(before)) ||
        (LENGTH_OF.test(before) && IT_IS.test(clause)))
    )
      return left(REASONS.toGo);
    if (DONE_AFTER.test(after) && killed(around) === null) return placeRead(asked, unit, "progress");
    // "5.1 kilometres to the crane, 94 percent".
    if (
      /^to the \w+ ,? ?(?:and )?(?:the )?(?:battery(?:'s)? )?(?:at |on )?#_%/.test(after) &&
      killed(around) === null
    )
      return placeRead(asked, unit, "a place with what was read there");
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
  /\b(phone|gps|recorder|tracker|display|bike|screen|odometer|dash|speedo)(?:'s)?(?: itself)?(?: says| saying| reading| showing| has me at| got me at| reads| has| shows| pretends| claims| gives| is at| counts| thinks)?(?: it's| we're at)? ?,?:? ?(?:about |only |just )?(?:mile |mile marker )?$/;

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

const CLAIMED =
  /\b((?:said|says|told me|reckoned|promised me) (?:that )?(?:i'd|you'd|it'd|it would|i would|you would|it will|you'll) (?:get|do|go|see|make)|they (say|claim|promise|quote|advertise|reckon)|rated (at|for)|(makers?|manufacturers?|company|website|box|brochure) (says?|said|claims?|claimed|promises?)|advertised (at|as))( it's| it does| it'll do| you get| you can get)?( up to| about| around)* $/;
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
  const range = bareRange(asked, unit);
  if (range) return range;
  // "They advertise up to 45 miles on throttle and 65 on pedal assist".
  const another =
    /^(?:on|in|with) (?:the |just )?(?:pedal|assist|eco|throttle|pas|turbo|lowest|highest|full)\b/.test(
      around.after,
    ) && lately(ride, quantity.from, /^claim_range$/, 8) !== null;
  // "They say 44", of pounds; "rated for 15", of a controller.
  const ofElse =
    /\b(?:controller|amps?|motor|watts?|volts?|brakes?|sidewall|tyres?|tires?|weigh\w*|pounds|kilos|pressure)\b|#_(?:lb|kg|A|W|psi)/.test(
      `${around.earlier} ${around.sentence}`,
    );
  const atShop =
    /\b(?:he|she|they) said $/.test(clause) &&
    /^(?:on|in|with) (?:the |just )?(?:throttle|pedal|assist|eco)\b/.test(around.after);
  if (
    (another || atShop || (CLAIMED.test(clause) && !ofElse)) &&
    value >= 15 &&
    value <= 200 &&
    !quantity.exact
  )
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
    (bars && quantity.exact && !lately(ride, quantity.from, /^distance$/, 9))
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
