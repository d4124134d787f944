import { killed, REASONS } from "../kills.ts";
import { lately, left, valueOf, type Asked, type Rule, type Rules, type Verdict } from "../found.ts";

const PACK_SIZE = /\b(the|a|an|got the|with the) (new |big |bigger |small )?$/;
/** No rider and no bike weighs less. */
const LIGHTEST = { kg: 8, lb: 18, st: 5 };
/** No rider and no bike weighs more, lb. */
const MOST_POUNDS = 450;
const SPECS =
  /\b(step ?through|mid ?drive|rear hub|front hub|folder|hardtail|full suspension|long ?tail|cargo bike|trike)\b/;
const FACT = { allow: ["claim", "negated", "plan", "whatIf", "otherTime"] } as const;
const PART =
  /\b(trailer|bag|crate|battery|pack|wheel|lock|child|kid|parcels?|packages?|camera|luggage|load|payload|limit|rack|carries|carry|cargo|helmet|tyre|tire|max|maximum|lighter|heavier|dog|shopping|parts?|frame alone|box)\b/;
const OF_PART =
  /^(?:and |so )?(?:the|this|my|that) (?:\w+ )?(?:battery|pack|wheel|lock|trailer|bag|crate|motor|charger|child|dog)\b/;
const PART_AFTER =
  /^(lighter|heavier|more|less|limit|of (?!bike|me\b|rider|myself|machine|metal|ebike|e-?bike)\w+|max|capacity|payload|with the (trailer|child)|dog|child|bag|crate|trailer)\b/;
const RIDER =
  /\b(i weigh|i weighed|weighed myself|myself weighed|i'm|i am|my weight|me\b|rider( weighs| is| weight)?|i come in at|on my scale|weighing in at|my body)\b/;
const HAVE = /^(?:and |so )?i have (?:about )?$/;
const BIKE = /\b(bike('s| is| weighs| comes)?|it weighs|weighs|it's|frame)\b/;

const weight =
  (unit: "kg" | "lb" | "st"): Rule =>
  (asked) => {
    const { quantity, around } = asked;
    const { clause, after, before } = around;
    const reason = killed(around, FACT);
    if (reason) return left(reason);
    if (/^of (me|rider|myself)\b/.test(after))
      return {
        kind: "weight_rider",
        value: valueOf(quantity),
        unit,
        because: "the rider's weight",
      };
    // "2600 pounds", of money.
    if (
      unit === "lb" &&
      quantity.value >= MOST_POUNDS &&
      /\b(cost|costs|paid|pay|price|worth|bought|sells|spend|spent)\b/.test(
        `${around.earlier} ${around.sentence}`,
      )
    )
      return { kind: "price", value: valueOf(quantity), unit: null, because: "what it costs" };
    if (/^of (air|pressure)\b|^in (?:the|both|each|my|all) (?:tyres?|tires?)\b/.test(after))
      return { kind: "pressure", value: valueOf(quantity), unit: "psi", because: "how hard the tyres are" };
    if (/^for the (?:bike|trike|whole thing)\b/.test(after))
      return { kind: "weight_bike", value: valueOf(quantity), unit, because: "the bike's weight" };
    if (PART_AFTER.test(after) || PART.test(clause)) return left(REASONS.size);
    // "It weighs eleven pounds", of the battery that was spoken of.
    if (
      quantity.value < LIGHTEST[unit] ||
      /\b(?:you're|you are|you weigh|he's|she's|they're)(?: about| around| only)* $/.test(clause) ||
      (/^it weighs/.test(before) && OF_PART.test(around.earlier))
    )
      return left(REASONS.size);
    const value = valueOf(quantity);
    const mine =
      /\brider ?, ?$/.test(before) ||
      /^(is )?(what )?(i weigh|my weight)\b/.test(after) ||
      RIDER.test(clause) ||
      (HAVE.test(clause) && /^(?:with|in|and|today|$|[,.])/.test(after)) ||
      (/\b(i weigh|i weighed|weighed myself|myself weighed|my weight|i'm|i am)\b/.test(before) &&
        !BIKE.test(clause));
    if (mine && !/\bbike\b/.test(clause) && !(quantity.singular && /\b(this|that|a|an) $/.test(clause)))
      return { kind: "weight_rider", value, unit, because: "the rider's weight" };
    // "It's a mid-drive, step-through, 28 kilos", "this 80 pound beast".
    if (
      (SPECS.test(around.sentence) && asked.ride.distance === null) ||
      (quantity.singular && /^(bike|pig|beast|monster|tank|thing|brute|machine)\b/.test(after))
    )
      return { kind: "weight_bike", value, unit, because: "the bike's weight" };
    if (BIKE.test(clause) || /\bweigh/.test(before))
      return { kind: "weight_bike", value, unit, because: "the bike's weight" };
    return left(REASONS.size);
  };

/** "me i'm 212", "i'm 180 by the way": what nothing but a weight in pounds can be. */
const isHeft = ({ quantity: { value, exact, high, from }, around, ride }: Asked): boolean =>
  !(
    exact &&
    (value % 0.5 !== 0 || (ride.unit === "mi" && !/#_kg/.test(`${around.earlier} ${around.before}`)))
  ) &&
  high === null &&
  ((ride.unit === "mi" && value >= 110 && value <= 350) ||
    (value >= 45 &&
      value <= 150 &&
      (/#_kg|\bweigh/.test(`${around.earlier} ${around.before}`) ||
        lately(ride, from, /^weight_bike$/, 16) !== null))) &&
  value > 1.5 * (ride.distance ?? 0) &&
  !/\b(?:and|with|plus) the bike\b|\bbike and\b/.test(around.before) &&
  ((/^all (?:in|up|told)\b/.test(around.after) &&
    /#_lb|#_kg|\bweigh|\bclothes\b|\bgear\b|\bkit\b/.test(`${around.earlier} ${around.before}`)) ||
    (/\b(i'm|i am|i go|i come in at|i tip the scales at)( about| around| like| roughly| maybe| only| probably| just| right at)* $/.test(
      around.clause,
    ) &&
      // "The bike's 38 kilos and i'm 70 okay let's go".
      ((ride.distance === null && lately(ride, from, /^weight_bike$/, 16) !== null) ||
        /^($|[,.]|so\b|and\b|even\b|flat\b|this morning|today|right now|by the way|but\b|with\b|in (my|full|all)|dressed|these days|soaking|give or|or so|which\b|the bike|on a\b|myself)/.test(
          around.after,
        ))));

/** "i weigh 210 with the boots", "the bike is 24", "tyres at 46". */
export function bareFact(asked: Asked): Verdict | null {
  const { quantity, around } = asked;
  const { clause, before, sentence } = around;
  const { value } = quantity;
  if (quantity.clock) return null;
  const inTurn =
    /^(?:in|on) the (front|rear|back)\b|^(?:up front|out back|front|rear|at the (?:front|back|rear))\b/.test(
      around.after,
    ) && lately(asked.ride, quantity.from, /^pressure$/, 8) !== null;
  // "10 psi less in the tires. They're at 50 now."
  const theyHave =
    /\bthey're (?:at|on) (?:about )?$/.test(clause) &&
    /\b(?:tyres?|tires?)\b/.test(around.earlier) &&
    value >= 5 &&
    value <= 120;
  if (
    inTurn ||
    theyHave ||
    (/\b(tyres?|tires?|pressures?)\b[^.]{0,24}\b(at|are|to|is|of|have|has|with)\b ?(about |around )?$|\b(tyre|tire) pressures? ?[,:]? ?$/.test(
      clause.trim() === "" ? before : clause,
    ) &&
      value >= 5 &&
      value <= 120)
  ) {
    const reason = killed(around, FACT);
    return reason
      ? left(reason)
      : { kind: "pressure", value: valueOf(quantity), unit: null, because: "how hard the tyres are" };
  }
  // "Two batteries, 500 each".
  if (
    /\b(?:batteries|packs)(?: of| at| are|,)* $/.test(before) &&
    /^(?:watts? )?each\b/.test(around.after) &&
    value >= 200 &&
    value <= 2500
  )
    return { kind: "pack_wh", value: valueOf(quantity), unit: "Wh", because: "what the pack is said to be" };
  // "The 545 battery".
  if (
    PACK_SIZE.test(clause) &&
    /^(battery|pack)\b/.test(around.after) &&
    value >= 200 &&
    value <= 2500 &&
    asked.ride.distance === null
  ) {
    const reason = killed(around, FACT);
    return reason
      ? left(reason)
      : { kind: "pack_wh", value: valueOf(quantity), unit: "Wh", because: "what the pack is said to be" };
  }
  const near = `${around.earlier} ${sentence}`;
  const unit = /#_lb/.test(near) ? "lb" : /#_kg/.test(near) ? "kg" : null;
  if (
    /\b(i weigh|my weight is|i'm weighing|i weigh in at)( in| about| around| roughly| at)* $/.test(clause) ||
    isHeft(asked) ||
    (unit !== null &&
      /(^|[,.:] |\b(with|so|at|plus|and) |#_(kg|lb) |^)(me|rider)(?: at| at about)? ,? ?$/.test(before) &&
      value >= 35)
  ) {
    const reason = killed(around, FACT);
    return reason
      ? left(reason)
      : { kind: "weight_rider", value: valueOf(quantity), unit, because: "the rider's weight" };
  }
  if (
    (unit !== null &&
      /(^|[,.:] |#\S* )(the )?bike(?:'s| is)? (?:like |about |around )?$/.test(before) &&
      value > 8) ||
    (/\b(the bike is|bike itself is|the bike is i think|the bike's|bike weighs|it weighs|bike comes (?:in )?(?:on|at|to|in at))( about| around)?( an?( hefty| whopping| mere| solid| chunky| light)?)? $/.test(
      clause,
    ) &&
      (/\bweigh/.test(sentence) || /#_(kg|lb)/.test(`${around.earlier} ${sentence} ${before}`)) &&
      value > 8)
  ) {
    const reason = killed(around, FACT);
    return reason
      ? left(reason)
      : { kind: "weight_bike", value: valueOf(quantity), unit, because: "the bike's weight" };
  }
  if (
    /\b(i paid|costs?|paid|price( is| of)?|sells for|retails (at|for)|asking)( me| about| around| just)* $/.test(
      clause,
    ) &&
    value >= 200 &&
    !quantity.decade
  )
    return priceOr(asked);
  if (
    /\b(costs?|price|expensive|pay|paid)\b/.test(`${around.earlier} ${before}`) &&
    !/\b(peak\w*|motor|watts?|battery|limit|amps?)\b/.test(clause) &&
    /\b(it's|it is|that's|it was|they're) (about |around |just |like |only )?$/.test(clause) &&
    value >= 300 &&
    value < 20_000 &&
    !quantity.exact
  )
    return priceOr(asked);
  return null;
}

function priceOr({ quantity, around }: Asked): Verdict {
  const reason = killed(around, FACT);
  return reason
    ? left(reason)
    : { kind: "price", value: valueOf(quantity), unit: null, because: "what it costs" };
}

const pressure: Rule = ({ quantity, around }) => {
  if (/^(?:less|more|lower|higher)\b/.test(around.after)) return left(REASONS.difference);
  const reason = killed(around, FACT);
  return reason
    ? left(reason)
    : { kind: "pressure", value: valueOf(quantity), unit: "psi", because: "how hard the tyres are" };
};

const price: Rule = ({ quantity, around }) => {
  const reason = killed(around, FACT);
  if (reason) return left(reason);
  if (/\b(battery|charger|tyres?|tires?|seat|helmet|motor|controller)\b/.test(around.before))
    return left(REASONS.size);
  return quantity.value >= 200 &&
    /\b(cost|costs|paid|price|sells|retail\w*|msrp|bought|for|it's|it was|worth|set (?:you|me) back|comes in at|lists at|listed at|run you)\b/.test(
      around.clause,
    ) &&
    !/\b(?:another|extra|further|more|spend) $/.test(around.clause)
    ? { kind: "price", value: valueOf(quantity), unit: null, because: "what it costs" }
    : left(REASONS.size);
};

export const SET_UP: Rules = {
  kg: weight("kg"),
  lb: weight("lb"),
  st: weight("st"),
  psi: pressure,
  money: price,
  mm: () => left(REASONS.size),
  thing: () => left(REASONS.size),
};
