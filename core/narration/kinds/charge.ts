import { killed, REASONS } from "../kills.ts";
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

const SLOPE =
  /\b(grade|slope|gradient|hill|ramp|incline|steep|steeper|climb is|uphill|descent|climb starts|sign says)\b/;
const SLOPE_AFTER =
  /^((?:up|down) (?:the|coming|going|all|and|on|most|from)\b|grade|slope|gradient|hill|incline|ramp|climb|over(?= #)|uphill|steep|steepness)\b/;
/** No road is steeper, %. */
const STEEPEST = 25;
/** Batteries of other things. */
const OF_OTHER = /\b(?:camera|drone|torch|speaker|headphones|earbuds|my legs)\b/;
/** As little as two bikes differ by, or a lap takes, %. */
export const FEW = 6;
/** No hill takes as much at once, %. */
const FAR_BELOW = 40;
const HILL = /\b(?:hills?|grade|slope|steep|climb(?:ing|s)?|gradient|ramp)\b/;
const CHARGED = /\b(?:battery|charge|gauge|pack|left|remaining)\b/;
const SHARE_AFTER =
  /^(sure|certain|happy|agree|off\b|discount|of (you|people|the (power|motor|time|rated|work|assist|way|price|label|max)|my|your|its|what|all|riders)|further|better|faster|slower|cheaper|more|less|a (mile|kilomet\w+|k|km|lap|minute)|for (each|every)|too (much|many|little)|bigger|higher|lower|humidity|here or there|per|a day|in one|each (day|time|way)|power|assist|longer|health|every)\b/;
const SHARE_BEFORE =
  /\b(health|capacity|discount|level #? ?(is|at)|set to|set at|assist(ance)? (is|of|at)|motor (gives|does|at)|goes|(?<!\b(?:display|screen|gauge|battery|it|dash|computer) )reads|by|tenth of a|keep it (between|above|below)|store it|charge it to|stop at|between|share|agree|your|power at|tax|humidity)\s*(about|around|some)?\s*$/;
const USED_BEFORE =
  /\b(used( up)?|knocked|using|uses|lost|losing|burnt|burned|burning|cost(?:s|ed)?( me| us| you| it)?|consumed|took|taken|takes|ate|eaten|eats|spent|gone through|drained|needed|used for)\s*(me|up|about|around|just|only|another|almost|nearly|exactly|roughly|over)?\s*$/;
const USED_AFTER =
  /^(used|gone|down\b|by itself|(just )?(that|this) (time|one|lap|climb|hill)|on that|since (?:the last|then|my last|that)|(just )?for (just |about |almost |nearly |under |over |roughly )*(that|the|this|(?=#)|those|one)|spent|burned|burnt|of the battery (for|gone|used)|lost|consumed)/;
const GONE_AFTER =
  /^(?:gone|used|lost|spent|down\b(?! (?:the|a))|burned|burnt|of the battery|(?:just )?for (?:that|the|this|one) (?:climb|hill|ramp|one))/;
const LEFT_AFTER =
  /^(left|remaining|battery|charge|charged|in (the|it|there)|to go|still|on (the|it|my)|by (the|my)|of (the )?(battery|charge)|remains|capacity left|juice|in the)\b/;
const LEFT_BEFORE =
  /\b(battery|charge|gauge|pack|display|indicator|screen|at|down to|to|on|reads?|reading|shows?|showing|says?|said|claims?|it's|its|and|with|still|leaving|left|leaves|have|has|had|got|now|are|is|percentage|app|soc|i'm|dropped to|drops to|fell to|gauge's|about|around|just|under|over|nearly|almost|so|okay|there|only|exactly|even)\s*(at|on|to|still|about|around|just|a|me|down to|now|only|a little|a bit|at about)?\s*$/;

export const STILL = /\bstill(?: at| on| showing| shows| reads| reading| says| got| have| has)* $/;

/** What went between the last two charges, %, right after the last one was said; null elsewhere. */
function went({ quantity, ride }: Asked): number | null {
  if (!lately(ride, quantity.from, /^percent_left$/, 4)) return null;
  const [before, last] = ride.since.filter(({ kind }) => kind === "percent_left").slice(-2);
  return typeof before?.value === "number" && typeof last?.value === "number"
    ? before.value - last.value
    : null;
}

const CHARGING = /\b(?:plug(?:ged|ging)?|charg(?:ed|er|ing|e)|top(?:ped)?[ -]?up|topped)\b/;
const RISES_TO =
  /\b(?:up to|back to|up at|back at|got to|made it to|now at|now on|it's at|it's on|went to|came to|reads|shows|says)(?: about| only)? $/;
/** So much more than the last, %, is no wavering gauge. */
const LEAST_RISE = 3;

/** "I plugged it in at the café, and it went from 64 to 79": what is left after a part charge; null where there was none. */
function chargedTo({ quantity, around, ride }: Asked): Found | null {
  const value = quantity.high ?? quantity.value;
  const rises = quantity.high !== null || RISES_TO.test(around.clause);
  if (ride.percent === null || value <= ride.percent + LEAST_RISE || value > 100 || !rises) return null;
  if (!CHARGING.test(`${around.earlier} ${around.sentence}`) || killed(around)) return null;
  return {
    kind: "percent_left",
    value,
    unit: "%",
    because: "what is left after a part charge",
    of: "charged",
  };
}

const percent: Rule = (asked) => {
  const { quantity, around, ride } = asked;
  const charged = chargedTo(asked);
  if (charged) return charged;
  const { before, after, clause } = around;
  const value = valueOf(quantity);
  if (
    SLOPE_AFTER.test(after) ||
    (/\ban? $/.test(clause) && /\b(up|hill|climb\w*|steep)\b/.test(`${around.earlier} ${before}`)) ||
    (SLOPE.test(clause) &&
      !USED_BEFORE.test(clause) &&
      !/\b(battery|left|gauge|pack)\b/.test(`${clause.slice(-24)}${after}`))
  )
    return left(REASONS.slope);
  // "There's one ramp, it's 90 metres long and about 8 percent".
  if (
    ride.percent === null &&
    quantity.value <= STEEPEST &&
    SLOPE.test(around.sentence) &&
    !CHARGED.test(around.sentence) &&
    !USED_BEFORE.test(clause)
  )
    return left(REASONS.slope);
  // "On anything over 10 percent", "it's about six percent", of the hill that was spoken of.
  if (
    HILL.test(around.earlier) &&
    !CHARGED.test(around.sentence) &&
    (/\b(?:over|anything|up to|steeper than|more than) $/.test(clause) ||
      (ride.percent === null &&
        /^(?:it's|it is|that's|that is|maybe|about|and) (?:about |around |maybe |like |a )*$/.test(before)))
  )
    return left(REASONS.slope);
  if (
    ride.percent !== null &&
    quantity.value <= STEEPEST &&
    quantity.value < ride.percent - FAR_BELOW &&
    HILL.test(`${around.earlier} ${around.sentence}`) &&
    !CHARGED.test(around.clause) &&
    !USED_BEFORE.test(clause) &&
    !GONE_AFTER.test(after)
  )
    return left(REASONS.slope);
  if (
    ride.percent === null &&
    quantity.value <= STEEPEST &&
    /^(?:it's|it is|that's|this is) (?:about |around |like |only )*$/.test(before) &&
    !CHARGED.test(around.sentence) &&
    ride.since.filter(({ kind }) => /^(volts|bars_left)$/.test(kind)).length > 1
  )
    return left(REASONS.slope);
  // "Battery's on 73, so nine percent": what went since the charge before.
  if (/(?:^|\bso )(?:that's |that is |it's )?$/.test(clause) && went(asked) === quantity.value)
    return { kind: "percent_used", value, unit: "%", because: "as much as went between two charges" };
  if (
    (SHARE_AFTER.test(after) && !(/^off\b/.test(after) && USED_BEFORE.test(clause))) ||
    SHARE_BEFORE.test(clause)
  )
    return left(REASONS.share);
  // "There's the first difference. One percent."
  if (
    quantity.value <= FEW &&
    ride.percent !== null &&
    ride.percent > quantity.value + FAR_BELOW &&
    !CHARGED.test(around.sentence) &&
    !USED_BEFORE.test(clause) &&
    !USED_AFTER.test(after)
  )
    return !around.together && went(asked) === quantity.value
      ? { kind: "percent_used", value, unit: "%", because: "as much as went between two charges" }
      : left(REASONS.unlicensed);
  if (quantity.value > 100 || (quantity.high ?? 0) > 100 || OF_OTHER.test(before)) return left(REASONS.share);
  const reason = killed(around);
  if (reason) return left(reason);
  // "It used 4 percent instead of 5".
  if (USED_BEFORE.test(clause) && /^(?:instead of|against|versus)\b/.test(after))
    return { kind: "percent_used", value, unit: "%", because: "charge that was used", ...partOf(asked) };
  // What went in two parts of a test: the course of the charge says which is of this one.
  if (/^(versus|vs|instead of|compared)\b/.test(after)) return left(REASONS.unlicensed);
  if (/\b(versus|vs|against|instead of|compared (to|with)|rather than|than) $/.test(clause))
    return left(REASONS.difference);
  if (quantity.value === 100 && (/\bcharged\b/.test(clause) || /^(fully )?charged\b/.test(after)))
    return { kind: "full_charge", value: "full", unit: null, because: "a full start" };
  if (USED_BEFORE.test(clause))
    return { kind: "percent_used", value, unit: "%", because: "charge that was used", ...partOf(asked) };
  if (quantity.began === null && USED_AFTER.test(after))
    return { kind: "percent_used", value, unit: "%", because: "charge that was used", ...partOf(asked) };
  if (/\bdropped\s*(by|another)?\s*$/.test(clause) && quantity.value < 40)
    return { kind: "percent_used", value, unit: "%", because: "charge that was used", of: "part" };
  if (LEFT_AFTER.test(after) || LEFT_BEFORE.test(clause) || clause.trim() === "" || quantity.began !== null)
    return {
      kind: "percent_left",
      value: quantity.high ?? quantity.value,
      unit: "%",
      because: "charge that is left",
      ...(isHeld(asked) && { anew: true }),
    };
  if (quantity.value === 100 && ride.percent === null && CHARGED.test(before))
    return { kind: "percent_left", value, unit: "%", because: "a full start" };
  if (quantity.value === 100 && (ride.distance === null || ride.distance < 1) && ride.percent === null)
    return { kind: "percent_left", value, unit: "%", because: "a full start" };
  const falls =
    ride.percent !== null && quantity.value <= ride.percent && quantity.value >= ride.percent - 40;
  // So far below the last one, it is rather what was used: the course of the charge says.
  if (!falls && ride.percent !== null && quantity.value < ride.percent) return left(REASONS.unlicensed);
  if (falls || lately(ride, quantity.from, /^(distance|elapsed_time|percent_left|bars_left)$/, 12))
    return {
      kind: "percent_left",
      value: quantity.high ?? quantity.value,
      unit: "%",
      because: "beside a place",
    };
  return before.trim() === ""
    ? { kind: "percent_left", value, unit: "%", because: "charge that is left" }
    : left(REASONS.unlicensed);
};

/** "Still 68 percent", farther on: it was read again. */
function isHeld({ around, ride }: Asked): boolean {
  const last = ride.since.findLastIndex(({ kind }) => kind === "percent_left");
  return STILL.test(around.clause) && ride.since.slice(last + 1).some(({ kind }) => kind === "distance");
}

/** Of a climb or a section, not of the ride. */
const partOf = ({ around }: Asked) =>
  /\b(hill|climb|section|lap|that|just|this bit|stairs)\b/.test(around.sentence)
    ? { of: "part" as const }
    : {};

/** A figure without its sign that can only be charge: beside the battery, or alone after a distance. */
export function barePercent(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { after, clause } = around;
  const { value } = quantity;
  const charged = quantity.exact || quantity.clock ? null : chargedTo(asked);
  if (charged) return charged;
  if (value > 100 || value < 0 || quantity.clock || quantity.high !== null) return null;
  // "With one battery": how many of them.
  if (value < 4 && (/^(batter|pack|charge)/.test(after) || /\bbattery (number )?$/.test(clause))) return null;
  // Charge is said in whole figures; with decimals only what falls from the last one.
  if (quantity.exact && (ride.percent === null || value > ride.percent)) return null;
  if (/^(is |means |being |counts as )?(full|flat|empty)\b/.test(after)) return null;
  if (
    /\bcosts?( me| us| it)? $/.test(clause) &&
    ride.percent !== null &&
    /^($|[,.]|and|for|so|now)/.test(after)
  ) {
    const why = killed(around);
    return why
      ? left(why)
      : {
          kind: "percent_used",
          value,
          unit: "%",
          because: "charge that was used, the percent unsaid",
          of: "part",
        };
  }
  const whole =
    value === 100 &&
    /\b(it's|we're|i'm|back|at|still|showing|shows|says|reads)( at| on| to| back)* $/.test(clause) &&
    (/^(?:again|on (?:mine|yours|his|hers))\b/.test(after) ||
      (ride.percent === 100 && /\b(?:still|shows|says|reads)\b/.test(clause)) ||
      lately(ride, quantity.from, /^full_charge$/, 14) !== null);
  const named =
    whole ||
    /^(battery|charge|percent)\b/.test(after) ||
    /\b(battery|gauge|pack|charge|soc|percentage)('s)?( percentage| is| was| again| back| showing| reads| says| shows| at| on| down| now| still| stands| has| to| has got| gauge)* ?[,.:]? ?$/.test(
      clause,
    );
  const lower = ride.percent === null || value <= ride.percent;
  const beside = lately(ride, quantity.from, /^(distance|elapsed_time)$/, 5);
  const lone =
    clause.trim() === "" &&
    /^($|[.])/.test(after) &&
    !quantity.exact &&
    ride.percent !== null &&
    lower &&
    value > ride.percent - 40;
  const itsAt =
    /\b(it's|it is|we're|i'm|and it's|leaving|leaves|that leaves)( at| on| down to| now at)? $/.test(
      clause,
    ) &&
    ride.percent !== null &&
    lower &&
    value >= ride.percent - 40 &&
    beside !== null;
  const leaving =
    /\b(leaving|leaves|that leaves)( me| us)?( with)? $/.test(clause) &&
    (ride.percent !== null || lately(ride, quantity.from, /^percent_used$/, 8) !== null);
  if (!named && !(lone && beside) && !itsAt && !leaving) return null;
  if (named && /\b(volt|amp|watt|camera|phone)/.test(clause)) return null;
  const reason = killed(around);
  if (reason) return left(reason);
  return {
    kind: "percent_left",
    value,
    unit: "%",
    because: named ? "beside the battery, the percent unsaid" : "beside a place, the percent unsaid",
    ...(isHeld(asked) && { anew: true }),
  };
}

/** A percent of one of two bikes: "mine says 80, yours says 74". */
const percentOf: Rule = (asked) => {
  const verdict = percent(asked);
  const [, owner] = /.*\b(mine|yours|his|hers)\b/.exec(asked.around.clause) ?? [];
  return verdict && "kind" in verdict && owner
    ? { ...verdict, of: owner === "mine" ? "mine" : "yours" }
    : verdict;
};

export const CHARGE: Rules = { "%": percentOf };
