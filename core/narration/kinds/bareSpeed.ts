import { killed, REASONS } from "../kills.ts";
import { lately, left, valueOf, type Asked, type Verdict } from "../found.ts";
import {
  FASTEST,
  FASTEST_AFTER,
  HIT_THERE,
  isHearts,
  kindOf,
  LIMIT,
  ON_AVERAGE,
  SPEED_BEFORE,
  SPEED_FALLS,
  UP_HERE,
} from "./speed.ts";

const NAMED =
  /\b(speed|averag\w+|(?<!\b(?:i|you|it|that|this|doesn't|didn't) )mean|(?<!at the )top|max|maximum|highest|fastest|mph)( speed)?( so far| now| just now| right now| today| of| was| is| came to| at| has been| about| i had| just on| just| exactly| bang on| roughly| nearly)* ?[,.:]? ?$/;
const TWO_METERS_AFTER = /^(on|by) the (display|bike|screen|dash)/;
/** "I've dropped to 17", far from any charge. */
const I_DROPPED =
  /\b(?:(?:i've|we've|i|we) (?:have )?(?:just )?(?:dropped|come|came) (?:down |back )?to|(?:i'm|i am|i was|we're|we are|we were) (?:now |back )?down to) (?:about |around )?$/;
/** What is less is rather a level. */
const SLOWEST = 5;
/** No charge falls so far at once, %. */
const FAR_FROM_CHARGE = 30;

/** A manner in which a speed is told without its unit. */
interface Manner {
  /** How the clause before it ends. */
  readonly says: RegExp;
  /** What follows it. */
  readonly then?: RegExp;
  /** What else is said in the sentence. */
  readonly beside?: RegExp;
  readonly unless?: RegExp;
  readonly fits?: (asked: Asked) => boolean;
}

const isAfterLevel =
  (within: number) =>
  ({ ride, quantity }: Asked) =>
    lately(ride, quantity.from, /^level$/, within) !== null;

const MANNERS: readonly Manner[] = [
  {
    says: /\b(\w+ing along|pulling me along|holding|to hold|rolling|cruising|going|doing|riding|crawling)( at| about| around| roughly| along at| maybe| like| a steady| steady)* $/,
  },
  {
    says: /\b(slow(s|ed|ing)?( it| me| us| right)?( down| up)?|got (it|her|him|this thing) (going )?up|speeds? up|sped up|down hill|wound (it|her) up|accelerat\w+)( to)( about| around| maybe)? $/,
  },
  {
    says: /\bdown to (?:about |like |around )*$/,
    then: /^(?:on|in|up|through) (?:the|this) (?:\w+ )?(?:gravel|grass|sand|mud|hill|climb|dirt|rough|loose|stuff|grade|snow)\b/,
  },
  { says: /\b(?:hit|saw) $/, then: HIT_THERE },
  {
    says: /(?<!\b(?:bounces|bounced|comes|came|recovers|recovered|volts|voltage) (?:right |straight )?)\bback (?:up |down )?to (?:about |around )?$/,
    fits: ({ ride, quantity }) => ride.bars === null && lately(ride, quantity.from, /^speed$/, 14) !== null,
  },
  // "I tried level four, it did 19".
  {
    says: /\bit (?:did|does|gave me) (?:about |like )?$/,
    fits: (asked) => asked.quantity.value > 7 && isAfterLevel(10)(asked),
  },
  // "I'm getting 16, 17, and the amps are like six".
  { says: /\bgetting (?:about |like )?$/, then: /\b(?:amps|watts)\b|#_[AW]/ },
  { says: /\b(?:topp(?:ed|ing)|tops?|maxed|maxes) out (?:at|around|about)(?: about| around)? $/ },
  { says: /\b(?:i'm|we're|it's) (?:at|doing|up to) (?:about )?$/, then: /^(?:straight ?away|in no time)\b/ },
  { says: /\b(?:can only|only) (?:do|get|hold|manage)(?: about| around)* $/ },
  { says: /\bflat out (?:at|doing) (?:about |like |only )?$/ },
  // "Again level three, again 22", as it was said to be held before.
  { says: /(?:^|[,.] )again $/, fits: (asked) => asked.quantity.value > 9 && isAfterLevel(4)(asked) },
  { says: /\b(?:it|she) (?:now )?only does (?:like |about |around |maybe )*$/ },
  {
    says: /\b(?:sits|settles|levels? off|hovers|holds)(?: right| steady| out)? at $/,
    beside: /\b(?:gets? up|speed|fast|quick\w*|throttle|flat out|top|cruis\w+)\b|#_(?:mph|km)/,
    unless: /\b(?:volt\w*|battery|charge|percent|pulse|heart)\b/,
  },
  {
    says: /\bhit (?:about |around |like )?$/,
    beside: /\b(?:(?:coming|going|flying) down|downhill|descent|down (?:the|that) (?:hill|other side))\b/,
  },
  {
    says: /\b(?:getting|doing|seeing|it does|she does) (?:about |around |like )*$/,
    then: /^(?:along|up|down) (?:here|this)\b/,
  },
  {
    says: /\bseeing (?:about |around |maybe |like )*$/,
    beside: /\b(?:speed|effort|level|faster|slower|flat|hill|uphill|downhill|throttle)\b/,
  },
  {
    says: /\b(?:it's|i'm at|doing|now|only|at) (?:about |like |maybe |only )*$/,
    then: /^(?:wide open|flat out|full throttle|on (?:full )?throttle|tops\b|max\b)/,
  },
  { says: /\bgetting (?:like |about |around |only |maybe )*$/, then: /^out of (?:her|it|this|him)\b/ },
];
/** "It drops to 2.2 amps at fifteen". */
const AT_LOAD = /#_(?:A|W) at (?:about |around |like )?$/;
const MOST_AT_LOAD = 45;
/** "17 is about all she's got". */
const ALL_IT_DOES = /^is (?:about |just about )?all (?:she's|it's|i've|i|it|she|we)\b/;
/** Of the end of a clause, as much as any manner needs. */
const END = 60;

function isTold(asked: Asked): boolean {
  const { around, quantity } = asked;
  const end = around.clause.slice(-END);
  return (
    MANNERS.some(
      ({ says, then, beside, unless, fits }) =>
        says.test(end) &&
        (!then || then.test(around.after)) &&
        (!beside || beside.test(around.sentence)) &&
        (!unless || !unless.test(around.sentence)) &&
        (!fits || fits(asked)),
    ) ||
    ALL_IT_DOES.test(around.after) ||
    (quantity.value < MOST_AT_LOAD && AT_LOAD.test(around.before))
  );
}

/** Whether its measure is named, or only a speed is said so. */
function isNamed({ around, quantity, ride }: Asked): boolean {
  const { clause, after, before } = around;
  return (
    NAMED.test(clause) ||
    SPEED_BEFORE.test(before) ||
    ON_AVERAGE.test(after) ||
    /^(was|is) the top speed\b/.test(after) ||
    SPEED_FALLS.test(before) ||
    FASTEST_AFTER.test(after) ||
    (I_DROPPED.test(clause) &&
      ride.bars === null &&
      quantity.value >= SLOWEST &&
      (ride.percent === null || quantity.value < ride.percent - FAR_FROM_CHARGE))
  );
}

/** "17 miles an hour, and now 19". */
function isCounted({ around, quantity, ride }: Asked): boolean {
  const last = lately(ride, quantity.from, /^speed$/, 8)?.value;
  return (
    typeof last === "number" &&
    /^(now|then|and now|and then|) ?,? ?$/.test(around.clause) &&
    Math.abs(last - quantity.value) < 12 &&
    quantity.value > 5 &&
    /\bnow\b/.test(around.before) &&
    /^($|[,.]|now|and)/.test(around.after)
  );
}

/** "It tops out at 19.6", "it does 15 up here": not what it may do but what it does. */
const isMeasured = ({ around: { clause, after }, quantity, ride }: Asked): boolean =>
  (/\btops? out (?:at|around|about)\b/.test(clause) && (quantity.exact || ride.distance !== null)) ||
  (/\bit does $/.test(clause) && UP_HERE.test(after));

/** A speed without its unit: beside its name, in a manner only speeds are told in, or the second of a pair. */
export function bareSpeed(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { clause, after, before } = around;
  const { value } = quantity;
  const unit = ride.unit === "km" ? "km/h" : "mph";
  if (value < 2 || value > FASTEST[unit] || quantity.clock) return null;
  if (TWO_METERS_AFTER.test(after) && lately(ride, quantity.from, /speed$/, 12)) return left(REASONS.recap);
  const isSpeed = isNamed(asked) || isTold(asked);
  if ((!isSpeed && !isCounted(asked)) || /\b(won't|wouldn't|can't) (go|do|get)\b/.test(before)) return null;
  if (!isSpeed) {
    const why = killed(around);
    return why ? left(why) : { kind: "speed", value, unit, because: "a speed after a speed" };
  }
  if (isHearts(asked) && !/\bspeed\b/.test(clause)) return null;
  if (LIMIT.test(clause) && !isMeasured(asked)) return left(REASONS.limit);
  const reason = killed(around);
  return reason ? left(reason) : { ...kindOf(asked), value: valueOf(quantity), unit };
}
