import { killed, REASONS } from "../kills.ts";
import { namedAfter, namedBefore } from "../named.ts";
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

const CLIMB_AFTER =
  /^(of )?(total |up )?(so far|(?:by|on|according to|says) (?:the |my )?(?:watch|gps|phone|computer|altimeter)\b|climb(ed|ing|s)?|elevation|ascent|gained|gain|vertical|up\b|uphill|of (hills?|up and down|climb(ing)?|gain|elevation|ascent|vertical|up|height|climbs))/;
const CLIMB_BEFORE =
  /\b(climb(ed|ing)?|hills (?:come|came|add up|added up) to|elevation( gain(ed)?)?|ascent|ascended|gained|gain|vertical|height gained|metres up|altitude gain)( so far| is| was| of| at| says| total| about| came to)* ?[,.:]? ?$/;

/** "38 metres a circuit, so 304 metres in all". */
const IN_ALL = /^(?:already|in all|altogether|in total|total|all told|overall)\b/;
const CLIMB_NAMED = namedBefore("climb|climbing|elevation|elevation gain|ascent|vertical|height gain");
const height =
  (unit: "ft" | "m"): Rule =>
  ({ quantity, around, ride }) => {
    const { after, before, clause } = around;
    // "six foot one", and heights of things.
    const inList =
      clause.trim() === "" &&
      lately(ride, quantity.from, /^distance$/, 5) !== null &&
      ride.since.some(({ kind }) => kind === "climb_gain");
    // "67 percent, 1440 feet".
    const withCharge =
      quantity.value >= 50 &&
      lately(ride, quantity.from, /^percent_left$/, 3) !== null &&
      lately(ride, quantity.from, /^distance$/, 8) !== null &&
      /^(?:.*#\S* )?(?:, )?(?:and )?$/.test(around.before);
    // "14.2 average, 540 feet": among the figures of the end.
    const atEnd =
      quantity.value >= 50 &&
      /^(.*#\S* )?(average|mean|moving|and|, )* ?$/.test(clause) &&
      lately(ride, quantity.from, /^(avg_speed|top_speed|elapsed_time)$/, 6) !== null;
    // "8.3 miles and 1,900 feet".
    const withWay =
      /^(.*#_(mi|km) )?(and |, )?$/.test(around.before) &&
      lately(ride, quantity.from, /^distance$/, 4) !== null;
    if (/\b(from here|to go|above|below|wide|long|away|over (the )?sea)\b/.test(after.slice(0, 24)))
      return left(REASONS.size);
    // Before anything was ridden, what the way has.
    if (
      ride.distance === null &&
      !ride.since.some(({ kind }) => /^(?:speed|elapsed_time|bar_lost|stop|percent_used)$/.test(kind)) &&
      /\b(?:it's|it has|it's got|has|that's|with|and)(?: about| around| roughly| over| nearly)* $/.test(
        before,
      )
    )
      return left(REASONS.toGo);
    if (/\b(hill|climb|ramp|slope|bridge|pass|house|tree)('s| is)\b/.test(around.before))
      return left(REASONS.slope);
    if (
      !inList &&
      !atEnd &&
      !withCharge &&
      !(withWay && quantity.value >= 50) &&
      // "That's 34.9 miles in a gale, with 1,240 feet".
      !(/#_(?:mi|km)\b.*\bwith (?:about |around )?$/.test(around.before) && quantity.value >= 50) &&
      !CLIMB_AFTER.test(after) &&
      !CLIMB_BEFORE.test(clause) &&
      !CLIMB_NAMED.test(clause) &&
      !(/\b(?:climb\w*|elevation|ascent)\b/.test(`${around.earlier} ${around.before}`) && IN_ALL.test(after))
    )
      return left(REASONS.size);
    if (
      /\b(a day|each|every|per|a (?:lap|circuit|loop|round)|each way|at once|road climbs|is a|in it|on it)\b/.test(
        after.slice(0, 30),
      )
    )
      return left(REASONS.size);
    const reason = killed(around);
    return reason
      ? left(reason)
      : { kind: "climb_gain", value: valueOf(quantity), unit, because: "metres or feet climbed" };
  };

/** Nobody climbs more on one charge, feet or metres; what is said to be more is a height. */
const HIGHEST_CLIMB = 6000;

/** "metres climbed, 640": the unit before its figure. */
export function bareClimb({ quantity, around, ride }: Asked): Verdict | null {
  const named =
    /\b(metres|meters|feet|foot) (of )?(climbed|climbing|climb|gained|gain|elevation|up|vertical|ascent)( is| was|)? ?[,.:]? ?$/.exec(
      around.clause || around.before,
    );
  const plain =
    CLIMB_BEFORE.test(around.clause) &&
    /\b(elevation|ascent|climb)/.test(around.clause) &&
    quantity.value >= 10 &&
    !/\b(kids?|hill|stairs)\b/.test(around.clause);
  if (!named && !plain) return null;
  // "The elevation is 7200, we started at 6300": how high it is.
  if (!named && /\belevation is $/.test(around.clause) && quantity.value > HIGHEST_CLIMB)
    return left(REASONS.size);
  const reason = killed(around);
  if (reason) return left(reason);
  const unit = named ? (/^f/.test(named[1] ?? "") ? "ft" : "m") : ride.unit === "km" ? "m" : "ft";
  return { kind: "climb_gain", value: valueOf(quantity), unit, because: "metres or feet climbed" };
}

const heartFound = ({ quantity, around }: Asked): Verdict => {
  const reason = killed(around, { allow: ["claim"] });
  if (reason) return left(reason);
  const near = `${around.clause}|${around.after.slice(0, 16)}`;
  const of: Found["of"] = /\b(max|maximum|highest|top|peak|peaked)\b/.test(near)
    ? "highest"
    : /\b(average|averaged|mean|avg)\b/.test(near)
      ? "mean"
      : undefined;
  return {
    kind: "heart_rate",
    value: valueOf(quantity),
    unit: "bpm",
    because: "beats of the heart",
    ...(of && { of }),
  };
};

const HEART_NAMED =
  /\b(heart ?rate|heart|pulse|bpm|ticker)(?:'s)?( |'s|is|was|already|at|now|says|reads|so far|average|averaged|averages|mean|about|around|in|the|up|to|,|on|of|max|maximum|highest|has been|shows|my|still|just|goes|right)*$/;

const HEART_BEFORE = namedBefore("heart ?rate|heart|pulse|bpm|ticker");
const WATCH_SAYS = /\bwatch (?:says|has|shows|reads|is showing|has me at|tells me)(?: i'm at| me at)? $/;
const HEART_AFTER = namedAfter("heart ?rate|pulse|heart|ticker");

/** A pulse without its unit: beside its name, or the second figure of a list about the heart. */
export function bareHeart(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { value } = quantity;
  if (value < 40 || value > 220 || quantity.clock) return null;
  if (
    HEART_NAMED.test(around.clause) ||
    HEART_BEFORE.test(around.before) ||
    (WATCH_SAYS.test(around.clause) && value >= 85 && value <= 200) ||
    HEART_AFTER.test(around.after) ||
    (HEART_NAMED.test(around.before) && !/\bspeed\b/.test(around.clause))
  )
    return heartFound(asked);
  const heart =
    /\b(heart|pulse)\b/.test(`${around.earlier} ${around.before}`) ||
    lately(ride, quantity.from, /^heart_rate$/, 6) !== null;
  if (
    heart &&
    /\b(?<!at the )(average|highest|max|maximum|peak|mean|top|lowest)( so far| was| is| of| at| for the (?:ride|day|loop|lap|whole (?:ride|thing|way)))* ?,? ?$/.test(
      around.clause,
    )
  )
    return heartFound(asked);
  if (
    heart &&
    value >= 90 &&
    /\b(i'm at|it's at|it's|up to|down to|touched|hit|peaked at|peaked|topped out at|reached)( about)? $/.test(
      around.clause,
    )
  )
    return heartFound(asked);
  // "I'm at 148 already", where it is no place on the way; "161.", right after.
  const way = ride.distance;
  const isHigh = value >= 100 && value <= 200 && !quantity.exact && way !== null && value > 3 * way + 30;
  const last = lately(ride, quantity.from, /^heart_rate$/, 24)?.value;
  const goesOn =
    typeof last === "number" &&
    Math.abs(value / last - 1) < 0.2 &&
    around.before.trim() === "" &&
    around.parted &&
    around.after.trim() === "";
  if (
    isHigh &&
    (goesOn ||
      ((ride.percent !== null || ride.since.some(({ kind }) => kind === "heart_rate")) &&
        /\b(?:i'm (?:at|up to|already at)|i've gone up to) (?:about )?$/.test(around.clause)) ||
      /^(?:was|is) the highest\b/.test(around.after))
  )
    return heartFound(asked);
  return quantity.decade &&
    value >= 90 &&
    value < 200 &&
    !/\b(?:brakes?|rotors?|discs?|tyres?|tires?|wheels?|they're)\b/.test(around.before)
    ? heartFound(asked)
    : null;
}

/** Of what is warm besides the air. */
const OBJECT = /\b(motor|controller|hub|rotor|battery|pack|charger|brakes?|disc|hand on)('s| is)?\b/;
const HOT_THING = /\b(motor|controller|hub|rotor|brakes?|disc)\b/;
const TURN = /\b(turn(ed)?|slope|steep|angle|grade|hill|ramp|incline|bend|corner|oven|camera|lens|rotate)\b/;

const degrees =
  (unit: "C" | "F" | null): Rule =>
  ({ quantity, around }) => {
    if (
      TURN.test(around.clause) ||
      /^(turn|slope|steep|angle|incline|of (turn|tilt)|warmer|colder|more|less|below|above|off)/.test(
        around.after,
      )
    )
      return left(REASONS.slope);
    if (
      (OBJECT.test(around.clause) ||
        (HOT_THING.test(around.earlier) &&
          /^(it's|it is|about|maybe|i'd say|now|still|#|, | )*$/.test(around.before))) &&
      !/\b(outside|out there|air|weather|today|sun)\b/.test(around.sentence)
    )
      return left(REASONS.size);
    // Whoever is spoken of, the weather is everybody's.
    const reason = killed(around, { allow: ["negated", "otherBike"] });
    if (reason) return left(reason);
    return { kind: "temperature", value: valueOf(quantity), unit, because: "degrees of the air" };
  };

const WEATHER =
  /\b(temperature|degrees|outside|thermometer|cold|warm|hot|freezing|frost|snow|weather|up here|this morning|full battery|monday|tuesday|wednesday|thursday|friday|saturday|sunday|wind|today)\b/;

const WARMTH = namedBefore("temperature|temperatures|temp|temps|thermometer");
const OUTSIDE =
  /^(out(?! of)|outside|out (here|there|today)|in the (shade|sun)|up here|today|this morning)( |$)/;

/** What is said of the day beside its degrees: "it's 71 and there's no wind". */
const DAY_AFTER =
  /^(and|,|with|but) (it's )?(there's |a |no |not |very |really |nice |bit |lovely |little |hardly |barely |just )*(wind|windy|breeze|breezy|sunny|sun|cloud|cloudy|clear|overcast|calm|humid|dry|raining|rain|warm|hot|cold|gusty|still\b)/;

/** "minus two up here", "plus three": degrees without the word. */
export function bareTemperature({ quantity, around, ride }: Asked, signed: boolean): Verdict | null {
  const { value, exact, high } = quantity;
  const ofDay =
    !exact &&
    high === null &&
    (ride.unit === "mi" ? value >= 10 && value <= 115 : value >= -25 && value <= 45) &&
    /(^|\b)(it's|it is|we have|about|around|nearly|like|today|at) $/.test(around.clause) &&
    (DAY_AFTER.test(around.parted ? `, ${around.after}` : around.after) ||
      /^(?:now )?(?:,|and|) ?it's (?:\w+ )?(?:hot|warm|cold|cool|chilly)\b/.test(around.after) ||
      /^(?:now )?(?:and )?(?:it )?feels like\b/.test(around.after) ||
      /\b(?:sun|sun's|clouds?|rain|weather)\b[^#.]{0,20}it's $/.test(`${around.earlier}${around.before}`));
  const outside =
    !exact &&
    high === null &&
    Math.abs(value) <= 115 &&
    OUTSIDE.test(around.after) &&
    !/\b(battery|charge|gauge|percent|bars?|volts?)\b/.test(`${around.earlier} ${around.sentence}`) &&
    /\b(it's|it is|about|around|only|already|still|hit|like|at|says|currently|maybe|roughly|nearly) $/.test(
      around.clause,
    );
  const changed = /\b(cooled|warmed|heated)( off| down| up)\b/.test(`${around.earlier} ${around.before}`);
  const cooled =
    (changed && /\bit's (about |around )?$/.test(around.clause) && /^(?:now\b|$|[.,])/.test(around.after)) ||
    /\b(cooled|warmed)( off| down| up)?( to)( about| around)? $/.test(around.clause);
  const felt =
    !exact &&
    high === null &&
    Math.abs(value) <= 115 &&
    /\b(?:hot|cold|warm|freezing|chilly|boiling|roasting|hotter|colder|warmer|cooler)\b[^.#]{0,28}\b(?:it's|it is|it was) (?:like |about |around |only )?$/.test(
      around.before,
    );
  const named =
    felt || cooled || (WARMTH.test(around.clause) && !OBJECT.test(around.before)) || outside || ofDay;
  if (
    !named &&
    !(
      signed &&
      Math.abs(quantity.value) <= 40 &&
      (WEATHER.test(around.sentence) ||
        WEATHER.test(around.earlier) ||
        /^(it's|it is|now|about|only)? ?$/.test(around.clause))
    )
  )
    return null;
  // "42.2. Minus 10! We're on 58": what a lap took.
  if (
    signed &&
    ride.percent !== null &&
    lately(ride, quantity.from, /^distance$/, 4) !== null &&
    !WEATHER.test(around.sentence)
  )
    return null;
  const reason = killed(around, { allow: ["negated"] });
  if (reason) return left(reason);
  return { kind: "temperature", value: valueOf(quantity), unit: null, because: "degrees of the air" };
}

export const BODY: Rules = {
  ft: height("ft"),
  m: height("m"),
  bpm: heartFound,
  deg: degrees(null),
  C: degrees("C"),
  F: degrees("F"),
};
