import { killed, REASONS } from "../kills.ts";
import { lately, left, type Asked, type Found, type Rule, type Rules, type Verdict } from "../found.ts";

const CHARGING = /\b((re)?charg(e|es|er|ing)|plug(ged)? in|from flat|from empty|on the wall)\b/;
const OTHER =
  /\b(old|ago|coffee|break|lunch|wait(ed|ing)?|stop(ped)? for|daylight|sunset|dark|sunrise|film|video|talk|later|until|till|every|per|asking|warranty|for a full|folds|button|hold (it|the)|camera|battery life|another|next|(back|be back|off|again) in|in about|closes|opens|train|race|sleep|rest|rain|late)\b/;
const RIDDEN_AFTER = /^(on the (bike|road|go)|in the saddle|of riding|in motion|of moving|moving|riding)\b/;
const OFF_CHARGER = /\boff the charger\b/;
const OTHER_AFTER =
  /^(old|ago|break|coffee|lunch|later|of (daylight|charging|film|video|battery|coffee|waiting|light)|and a (coffee|sandwich)|until|till|before|after (the|that)|to (go|charge|home|the)|from (here|home|flat|empty|now)|away|drive|warranty|a day|each|per|of work|on the charger|or so until|at the|late|early|for the|with the|more|(?:but )?(?:that's |that is )?(?:with|including|counting) (?:all )?(?:the |my )?(?:stops|breaks)|but i (?:paused|stopped))\b/;
const LICENCE =
  /\b(been|riding|ridden|moving|motion|elapsed|time|took|takes us|going|out|after|did|for|in|so far|that's|that was|it was|makes|it's|clock|saddle|sum up|all told|on the bike|under way|road|done|at)\b/;
const STRONG =
  /\b((moving|ride|riding|total|elapsed|trip) time('s)?|the time('s| is)|it(?:'s)?(?: already| only)? (?:took|taken)( me| us)?|took (me|us)|it's been|been (out|riding|going|on it|at it)|moving time|riding time|time in motion|elapsed)( so far| is| was| for| now| about|,|:|been)* $/;
const LICENCE_AFTER =
  /^(and change|in motion|of riding|riding|moving|so far|on the (clock|bike|road|go|move|dot|nose|button)|bang on|flat|exactly|dead|to the (second|minute)|in the saddle|ridden|elapsed|in\b|if you|without the|now|gone|done|and #|and $|and (?:we're|i'm|it's|i've|we've|the)\b|with|$|[,.#]|for (#|that)|for the (loop|lap|whole)|total|on throttle|of moving|under way|since)/;

const seconds = ({ quantity }: Asked) => {
  const scale = quantity.unit === "h" ? 3600 : quantity.unit === "min" ? 60 : 1;
  return Math.round(quantity.value * scale);
};

const time: Rule = (asked) => {
  const { quantity, around, ride } = asked;
  const { clause, after, before, sentence } = around;
  if (quantity.unit === "s" && quantity.value < 90 && !quantity.clock) return left(REASONS.noTime);
  if (/#_% in (?:about |only |just )?$/.test(before) && CHARGING.test(`${around.earlier} ${sentence}`))
    return left(REASONS.noTime);
  if (
    CHARGING.test(sentence) &&
    !OFF_CHARGER.test(sentence) &&
    !/\bwithout (?:re)?charging\b/.test(sentence) &&
    (quantity.unit !== "min" || /\b(re)?charg/.test(sentence)) &&
    !/\b(on (one|a|this) charge|of the charge|full charge and)\b/.test(sentence)
  ) {
    const other = killed(around, { allow: ["claim", "plan", "whatIf"] });
    if (other || /\b(again|green at|ago)\b/.test(sentence)) return left(other ?? REASONS.noTime);
    return { kind: "charge_time", value: seconds(asked), unit: "s", because: "how long it charges" };
  }
  if (STRONG.test(clause) && !OTHER_AFTER.test(after) && !CHARGING.test(before)) {
    const why = killed(around);
    return why
      ? left(why)
      : { kind: "elapsed_time", value: seconds(asked), unit: "s", because: "time ridden" };
  }
  if (OTHER_AFTER.test(after) && !/^(at the|with the|for the (loop|lap|whole))/.test(after))
    return left(REASONS.noTime);
  if (/#_V (?:standing |resting )?after (?:about |a |just )*$/.test(before)) return left(REASONS.noTime);
  if (/\b(?:battery|bike|it)(?:'s| has| have) been (?:out|sitting|in|off|on the)\b/.test(before))
    return left(REASONS.noTime);
  if (OTHER.test(clause) || /\b(stop|stopping|break|coffee|lunch|flask|pie|sandwich|beer)\b/.test(before))
    return left(REASONS.noTime);
  const reason = killed(around);
  if (reason) return left(reason);
  // "Turbo was 4 minutes and 29 seconds, heart rate 119".
  if (
    quantity.unit === "s" &&
    quantity.exact &&
    seconds(asked) >= 60 &&
    (/^(?:heart|pulse|battery|average|top|and (?:the |my |a )?(?:battery|heart|pulse|top|average|max))\b/.test(
      after,
    ) ||
      /\b(?:was|took) $/.test(clause))
  )
    return { kind: "elapsed_time", value: seconds(asked), unit: "s", because: "in a list of figures" };
  // "Twenty-six minutes.": nothing else is said.
  const alone =
    /^(?:to the top|on the dot|flat|exactly)\b/.test(after) ||
    (clause.trim() === "" && (around.parted || after === "" || /^up\b/.test(after)));
  if (
    alone &&
    seconds(asked) >= 180 &&
    !/\?|\b(wait|charge|charging|break|lunch|stop)\b/.test(around.earlier)
  )
    return { kind: "elapsed_time", value: seconds(asked), unit: "s", because: "in a list of figures" };
  if ((quantity.unit === "s" || seconds(asked) >= 300) && RIDDEN_AFTER.test(after))
    return { kind: "elapsed_time", value: seconds(asked), unit: "s", because: "time ridden" };
  const whole = quantity.unit === "s" || (quantity.unit === "h" && quantity.value >= 0.9);
  const beside = lately(ride, quantity.from, /^(distance|percent_left|bars_left|bar_lost)$/, 10);
  const listed =
    /^((#\S*|and|,|in) )*$/.test(clause) ||
    /\b(time|moving)\b/.test(clause) ||
    /#_(V|%|mi|km|bar) $/.test(clause);
  const because: Found["because"] = listed ? "in a list of figures" : "time ridden";
  if (
    (LICENCE.test(clause) && LICENCE_AFTER.test(after)) ||
    (whole && (listed || LICENCE.test(clause) || beside)) ||
    (beside && LICENCE_AFTER.test(after) && quantity.unit !== "s" && quantity.value >= 5) ||
    (beside && (listed || /\b(in|after) (just )?(about )?$/.test(clause)))
  )
    return { kind: "elapsed_time", value: seconds(asked), unit: "s", because };
  return left(REASONS.noTime);
};

/** "moving time 1:52:10". */
export function clockTime(asked: Asked): Verdict | null {
  const { quantity, around } = asked;
  if (
    !quantity.clock ||
    (!/^(on the (clock|display|timer|watch)|of (riding|moving)|moving|riding|ridden)\b/.test(around.after) &&
      !/\b(time|moving|elapsed|riding|ridden|duration|clock says|after)\b/.test(around.clause))
  )
    return null;
  const reason = killed(around);
  if (reason) return left(reason);
  // Two parts are hours and minutes, unless that were days in the saddle.
  const inHours = quantity.value < 12 * 60 ? quantity.value * 60 : quantity.value;
  return { kind: "elapsed_time", value: inHours, unit: "s", because: "time ridden" };
}

export const TIME: Rules = { h: time, min: time, s: time, day: () => left(REASONS.noTime) };
