import { killed, REASONS } from "../kills.ts";
import { namedBefore } from "../named.ts";
import { lately, left, valueOf, type Asked, type Found, type Rule, type Rules } from "../found.ts";

export const LIMIT =
  /\b(limit(ed)?( (is|here|of|to))?|law|legal(ly)?|allowed|class (?:#\S* )?(?:(?:so|which means|meaning|that's) )?(?:[a-z]+ )?$|tops? out|stops? (at|helping|assisting)|cuts? (out|off) at|assist (stops|ends|until)|capable|governed|restricted|rated|top speed of the (class|law)|zone|it does|it'll do|can do|pedal assist (up )?to)\b/;
const DIFFERENCE_AFTER =
  /^((?:is|was) (?:what|my|the usual|about right|plenty|enough|fast|all (?:you|anyone|anybody|we))|faster|slower|quicker|more|less|difference|limit|zone|headwind|tailwind|winds?|gusts?|bike|class|breeze|(?:this|that|the) (?:wind|breeze)|(?:and )?gusting|from the (?:north|south|east|west))\b/;
const DIFFERENCE_BEFORE =
  /\b(lost|lose|gained|gain|by|wind('s| is| of| at| was)|winds?( are)?( around| about)?|gusts? (of|to)|breeze of|winds? (of|at))\s*(about|around|like)?\s*$/;
/** "A breeze out of the south, maybe five miles an hour": how hard it blows. */
const OF_WIND =
  /\b(?:wind|breeze|gusts?|gusting|\w{2,5}therly|westerly|easterly)\b[^#]{0,40}\b(?:maybe|about|around|i'd (?:say|guess|think)|of|with|probably|say|roughly|i guess|i reckon) (?:about |around )?$|\bwindy\b[^#.]{0,12}, (?:about |maybe )?$/;
const TOP = /^(top|max|maximum|highest|fastest|peak)$/;
const SPEED_NAME =
  /\b(average|averages|averaged|averaging|avg|(?<!\b(?:i|you|it|that|this|doesn't|didn't) )mean|top|max|maximum|highest|fastest|peak)\b/g;
const AVERAGE = /\b(average|averages|averaged|averaging|avg|mean|moving average)\b/;

/** "27.1 on that little downhill, that's the fastest I've seen". */
export const FASTEST_AFTER =
  /^[^#.]{0,44}\b(?:that's|that was|which is|which was|is|was) the (?:fastest|most i|quickest|max|maximum|peak)\b/;

export const ON_AVERAGE = /^(on )?average\b(?! (?:heart|pulse|power|watts|cadence|temperature))/;
/** "The top speed's dropping off, it's down to", "I slow down for this, down to". */
export const SPEED_FALLS =
  /\bspeed(?:'s| is)? (?:dropping|down|falling|going|coming|slowing)[^#.]{0,26}\bdown to (?:about |around )?$|\bslow\w*\b[^#.]{0,30}\bdown to (?:about |around )?$/;
export const HIT_THERE = /^(?:back|down) there\b|^(?:on the way|coming|going) down\b/;
export const SPEED_BEFORE = namedBefore(
  "speed|speedo|top end|(?:moving |ride |trip )?average|averaged|averages|avg",
);
/** Whether the last measure that was named is the heart's. */
export const isHearts = ({ around, ride, quantity }: Asked) =>
  /\b(heart|pulse|beats)\b/.test(around.before) ||
  (lately(ride, quantity.from, /./, 9)?.kind === "heart_rate" && !/\b(speed)\b/.test(around.clause));

export function kindOf({ around }: Asked): Pick<Found, "kind" | "because"> {
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

/** No e-bike is ridden faster. */
export const FASTEST = { mph: 62, "km/h": 99 };
export const UP_HERE = /^(up here|up this|on this|along|here|now|uphill)\b/;

const speed =
  (unit: "mph" | "km/h"): Rule =>
  (asked) => {
    const { quantity, around } = asked;
    const { clause, after, before } = around;
    if (quantity.value > FASTEST[unit]) return left(REASONS.limit);
    const here = /\bit does $/.test(clause) && UP_HERE.test(after);
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

export const SPEED: Rules = { mph: speed("mph"), "km/h": speed("km/h") };
