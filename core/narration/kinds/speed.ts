import { killed, REASONS } from "../kills.ts";
import { namedBefore } from "../named.ts";
import {
  lately,
  left,
  valueOf,
  type Asked,
  type Found,
  type Rule,
  type Rules,
  type Verdict,
} from "../found.ts";

const LIMIT =
  /\b(limit(ed)?( (is|here|of|to))?|law|legal(ly)?|allowed|class (?:#\S* )?(?:(?:so|which means|meaning|that's) )?(?:[a-z]+ )?$|tops? out|stops? (at|helping|assisting)|cuts? (out|off) at|assist (stops|ends|until)|capable|governed|restricted|rated|top speed of the (class|law)|zone|it does|it'll do|can do|pedal assist (up )?to)\b/;
const DIFFERENCE_AFTER =
  /^((?:is|was) (?:what|my|the usual|about right|plenty|enough|fast|all)|faster|slower|quicker|more|less|difference|limit|zone|headwind|tailwind|winds?|gusts?|bike|class|breeze|(?:this|that|the) (?:wind|breeze)|(?:and )?gusting|from the (?:north|south|east|west))\b/;
const DIFFERENCE_BEFORE =
  /\b(lost|lose|gained|gain|by|wind('s| is| of| at| was)|winds?( are)?( around| about)?|gusts? (of|to)|breeze of|winds? (of|at))\s*(about|around|like)?\s*$/;
/** "A breeze out of the south, maybe five miles an hour": how hard it blows. */
const OF_WIND =
  /\b(?:wind|breeze|gusts?|gusting|\w{2,5}therly|westerly|easterly)\b[^#]{0,40}\b(?:maybe|about|around|i'd (?:say|guess|think)|of|probably|say|roughly|i guess|i reckon) (?:about |around )?$/;
const TOP = /^(top|max|maximum|highest|fastest|peak)$/;
const SPEED_NAME =
  /\b(average|averages|averaged|averaging|avg|(?<!\b(?:i|you|it|that|this|doesn't|didn't) )mean|top|max|maximum|highest|fastest|peak)\b/g;
const AVERAGE = /\b(average|averages|averaged|averaging|avg|mean|moving average)\b/;

/** "27.1 on that little downhill, that's the fastest I've seen". */
const FASTEST_AFTER =
  /^[^#.]{0,44}\b(?:that's|that was|which is|which was|is|was) the (?:fastest|most i|quickest|max|maximum|peak)\b/;

const ON_AVERAGE = /^(on )?average\b(?! (?:heart|pulse|power|watts|cadence|temperature))/;
/** Whether the last measure that was named is the heart's. */
const isHearts = ({ around, ride, quantity }: Asked) =>
  /\b(heart|pulse|beats)\b/.test(around.before) ||
  (lately(ride, quantity.from, /./, 9)?.kind === "heart_rate" && !/\b(speed)\b/.test(around.clause));

function kindOf({ around }: Asked): Pick<Found, "kind" | "because"> {
  // "Average, 12.6": its name stands before the pause.
  const clause =
    around.clause.trim() === "" && SPEED_BEFORE.test(around.before) ? around.before : around.clause;
  const near = `${clause}|${around.after.slice(0, 26)}`;
  // Of several names the last one counts: "average 14.5, max 31".
  const name = clause.match(SPEED_NAME)?.at(-1) ?? "";
  if ((AVERAGE.test(name) && !TOP.test(name)) || (!TOP.test(name) && ON_AVERAGE.test(around.after)))
    return { kind: "avg_speed", because: "an average speed" };
  if (
    TOP.test(name) ||
    (/\b(top|max|maximum|highest) speed\b[^#.]*$/.test(around.before) && !SPEED_FALLS.test(around.before)) ||
    /^(was the |top(?! #| of)|max|maximum|peak|tops)/.test(around.after) ||
    FASTEST_AFTER.test(around.after) ||
    (/\b(?:hit|saw) $/.test(clause) && HIT_THERE.test(around.after)) ||
    /\b(topped|maxed|peaked|on the way down i reach|down the (hill|bridge|ramp).*hit)\b/.test(near)
  )
    return { kind: "top_speed", because: "a top speed" };
  return { kind: "speed", because: "said as a speed" };
}

const speed =
  (unit: "mph" | "km/h"): Rule =>
  (asked) => {
    const { quantity, around } = asked;
    const { clause, after, before } = around;
    const here =
      /\bit does $/.test(clause) && /^(up here|up this|on this|along|here|now|uphill)\b/.test(after);
    if (
      (LIMIT.test(clause) && !here && !(quantity.exact && /\btops? out at $/.test(clause))) ||
      // "From 20 miles an hour it stops in".
      /(?:^|[,.] )from (?:about )?$/.test(clause) ||
      /\b(limit|law)\b|\bclass (?:#\S* )?$/.test(before) ||
      /^(limit|zone|bike|class|assist)\b/.test(after)
    )
      return left(REASONS.limit);
    if (
      DIFFERENCE_AFTER.test(after) ||
      DIFFERENCE_BEFORE.test(clause) ||
      (OF_WIND.test(`${around.earlier} ${before}`) && !/\b(?:i'm|we're|doing|going|getting)\b/.test(clause))
    )
      return left(REASONS.difference);
    const reason = killed(around);
    if (reason === REASONS.plan && /\bwon't (go|do) (over|more|above|past|faster)/.test(before))
      return left(REASONS.negated);
    return reason ? left(reason) : { ...kindOf(asked), value: valueOf(quantity), unit };
  };

const NAMED =
  /\b(speed|averag\w+|(?<!\b(?:i|you|it|that|this|doesn't|didn't) )mean|(?<!at the )top|max|maximum|highest|fastest|mph)( speed)?( so far| now| just now| right now| today| of| was| is| came to| at| has been| about| i had| just on| just| exactly| bang on| roughly| nearly)* ?[,.:]? ?$/;
const SPEED_BEFORE = namedBefore(
  "speed|speedo|top end|(?:moving |ride |trip )?average|averaged|averages|avg",
);
/** What only speeds do. */
const SLOWS =
  /\b(slow(s|ed|ing)?( it| me| us| right)?( down| up)?|got (it|her|him|this thing) (going )?up|speeds? up|sped up|down hill|wound (it|her) up|accelerat\w+)( to)( about| around| maybe)? $/;
/** "The top speed's dropping off, it's down to", "I slow down for this, down to". */
const SPEED_FALLS =
  /\bspeed(?:'s| is)? (?:dropping|down|falling|going|coming|slowing)[^#.]{0,26}\bdown to (?:about |around )?$|\bslow\w*\b[^#.]{0,30}\bdown to (?:about |around )?$/;
/** No charge falls so far at once, %. */
const FAR_FROM_CHARGE = 30;
const ON_GROUND =
  /^(?:on|in|up|through) (?:the|this) (?:\w+ )?(?:gravel|grass|sand|mud|hill|climb|dirt|rough|loose|stuff|grade|snow)\b/;
const I_DROPPED =
  /\b(?:(?:i've|we've|i|we) (?:have )?(?:just )?dropped (?:down |back )?to|(?:i'm|i was|we're|we were) (?:now |back )?down to) (?:about |around )?$/;
const BACK_TO =
  /(?<!\b(?:bounces|bounced|comes|came|recovers|recovered|volts|voltage) (?:right |straight )?)\bback (?:up |down )?to (?:about |around )?$/;
const HIT_THERE = /^(?:back|down) there\b|^(?:on the way|coming|going) down\b/;
const FLAT_OUT = /^(?:wide open|flat out|full throttle|on (?:full )?throttle|tops\b|max\b)/;
const TWO_METERS_AFTER = /^(on|by) the (display|bike|screen|dash)/;

/** A speed without its unit: beside its name, or the second of a pair. */
export function bareSpeed(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { clause, after, before } = around;
  const { value } = quantity;
  if (value < 2 || value > (ride.unit === "km" ? 99 : 62) || quantity.clock) return null;
  const unit = ride.unit === "km" ? "km/h" : "mph";
  const heart = isHearts(asked);
  if (TWO_METERS_AFTER.test(after) && lately(ride, quantity.from, /speed$/, 12)) return left(REASONS.recap);
  const named =
    NAMED.test(clause) ||
    SPEED_BEFORE.test(before) ||
    ON_AVERAGE.test(after) ||
    /^(was|is) the top speed\b/.test(after) ||
    SPEED_FALLS.test(before) ||
    FASTEST_AFTER.test(after) ||
    // "I've dropped to 17", far from any charge.
    (I_DROPPED.test(clause) &&
      ride.bars === null &&
      (ride.percent === null || value < ride.percent - FAR_FROM_CHARGE));
  const rolling =
    /\b(\w+ing along|pulling me along|holding|to hold|rolling|cruising|going|doing|riding|crawling)( at| about| around| roughly| along at| maybe| like| a steady| steady)* $/.test(
      clause,
    ) ||
    SLOWS.test(clause) ||
    (/\bdown to (?:about |like |around )*$/.test(clause) && ON_GROUND.test(after)) ||
    (/\b(?:hit|saw) $/.test(clause) && HIT_THERE.test(after)) ||
    (BACK_TO.test(clause) && lately(ride, quantity.from, /^speed$/, 14) !== null && ride.bars === null) ||
    // "I tried level four, it did 19".
    (/\bit (?:did|does|gave me) (?:about |like )?$/.test(clause) &&
      lately(ride, quantity.from, /^level$/, 10) !== null &&
      value > 7) ||
    // "I'm getting 16, 17, and the amps are like six".
    (/\bgetting (?:about |like )?$/.test(clause) && /\b(?:amps|watts)\b|#_[AW]/.test(after)) ||
    /^is (?:about |just about )?all (?:she's|it's|i've|i|it|she|we)\b/.test(after) ||
    /\b(?:topped|maxed) out at (?:about |around )?$/.test(clause) ||
    (/\b(?:i'm|we're|it's) (?:at|doing|up to) (?:about )?$/.test(clause) &&
      /^(?:straight ?away|in no time)\b/.test(after)) ||
    /\b(?:can only|only) (?:do|get|hold|manage)(?: about| around)* $/.test(clause) ||
    /\bflat out (?:at|doing) (?:about |like |only )?$/.test(clause) ||
    // "Again level three, again 22", as it was said to be held before.
    (/^again $/.test(clause.replace(/^.*[,.] /, "")) &&
      ride.since.length > 0 &&
      lately(ride, quantity.from, /^level$/, 4) !== null &&
      value > 9) ||
    /\b(?:it|she) (?:now )?only does (?:like |about |around |maybe )*$/.test(clause) ||
    // "It drops to 2.2 amps at fifteen".
    (/#_(?:A|W) at (?:about |around |like )?$/.test(before) && value < 45) ||
    (/\b(?:sits|settles|levels? off|hovers|holds)(?: right| steady| out)? at $/.test(clause) &&
      /\b(?:gets? up|speed|fast|quick\w*|throttle|flat out|top|cruis\w+)\b|#_(?:mph|km)/.test(
        around.sentence,
      ) &&
      !/\b(?:volt\w*|battery|charge|percent|pulse|heart)\b/.test(around.sentence)) ||
    (/\bhit (?:about |around |like )?$/.test(clause) &&
      /\b(?:(?:coming|going|flying) down|downhill|descent|down (?:the|that) (?:hill|other side))\b/.test(
        `${before} ${after}`,
      )) ||
    (/\b(?:getting|doing|seeing|it does|she does) (?:about |around |like )*$/.test(clause) &&
      /^(?:along|up|down) (?:here|this)\b/.test(after)) ||
    (/\bseeing (?:about |around |maybe |like )*$/.test(clause) &&
      /\b(?:speed|effort|level|faster|slower|flat|hill|uphill|downhill|throttle)\b/.test(around.sentence)) ||
    (/\b(?:it's|i'm at|doing|now|only|at) (?:about |like |maybe |only )*$/.test(clause) &&
      FLAT_OUT.test(after)) ||
    (/\bgetting (?:like |about |around |only |maybe )*$/.test(clause) &&
      /^out of (?:her|it|this|him)\b/.test(after));
  const won = /\b(won't|wouldn't|can't) (go|do|get)\b/.test(before);
  if (won) return null;
  if (!named && !rolling) {
    const last = lately(ride, quantity.from, /^speed$/, 8);
    const counts =
      last &&
      /^(now|then|and now|and then|) ?,? ?$/.test(clause) &&
      typeof last.value === "number" &&
      Math.abs(last.value - value) < 12 &&
      value > 5 &&
      /\bnow\b/.test(before) &&
      /^($|[,.]|now|and)/.test(after);
    if (!counts) return null;
    const why = killed(around);
    return why ? left(why) : { kind: "speed", value, unit, because: "a speed after a speed" };
  }
  if (heart && !/\bspeed\b/.test(clause)) return null;
  const reason = killed(around);
  if (LIMIT.test(clause)) return left(REASONS.limit);
  return reason ? left(reason) : { ...kindOf(asked), value: valueOf(quantity), unit };
}

export const SPEED: Rules = { mph: speed("mph"), "km/h": speed("km/h") };
