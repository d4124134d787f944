import { killed, REASONS } from "../kills.ts";
import { namedAfter, namedBefore } from "../named.ts";
import { lately, left, valueOf, type Asked, type Rule, type Rules, type Verdict } from "../found.ts";

import { ampHours, packOr, wattHours } from "./pack.ts";
import { RATED, THING_AFTER } from "./rated.ts";
import { volts } from "./volts.ts";

const WATTS_BEFORE = namedBefore("watts|wattage|power draw|power output|power meter|(?<!motor )power");
const WATTS_AFTER = namedAfter("watts|wattage|power|power meter");
const AMPS_BEFORE = namedBefore("amps|amperage|current draw|amp draw");
const AMPS_AFTER = namedAfter("amps|ammeter|current");

const PULLS =
  /\b(?:pulls?|pulling|pulled|draws?|drawing|settles?(?: in| down)*|sits|peaks?|peaked|hits|hit|touched|tops out)(?: about| around| like| in| at| to)* $/;
/** What the motor does, told in watts before. */
const MOTOR_AT =
  /\b(?:motor(?:'s| is)? (?:now |only |just )?(?:at|on|doing)|(?:motor|it|bike)(?:'s| is)? (?:now |only |just )?(?:adding|giving|putting (?:in|out)|pulling|drawing))(?: about| around| me| like| maybe)* $/;

/** Near the last watts. */
function isLikeWatts({ quantity: { value }, ride }: Asked): boolean {
  const last = ride.since.findLast(({ kind }) => kind === "watts")?.value;
  return typeof last === "number" && value > last / 2.5 && value < last * 2.5;
}

/** Power or current without the word: beside its name. */
export function bareLoad(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { value, clock, exact } = quantity;
  const { before, clause, after } = around;
  if (clock || (RATED.test(clause) && !/\bpeak(?:ed|s)? (?:was|at) $/.test(clause))) return null;
  // "14 amps. 15. And there it peaks at 15.3".
  const amps = lately(ride, quantity.from, /^amps$/, 16)?.value;
  const likeAmps = typeof amps === "number" && value > amps / 2 && value < amps * 2 && PULLS.test(clause);
  const [asWatts, asAmps] = [
    value >= 20 && value < 4000 && !exact && (WATTS_BEFORE.test(before) || WATTS_AFTER.test(after)),
    value > 0 && value < 80 && (likeAmps || AMPS_BEFORE.test(before) || AMPS_AFTER.test(after)),
  ];
  const ofMotor =
    !exact &&
    value >= 50 &&
    value <= 2000 &&
    ride.since.some(({ kind }) => kind === "watts") &&
    (MOTOR_AT.test(clause) ||
      (value >= 300 &&
        isLikeWatts(asked) &&
        /\b(?:it's|now|at|to|pulling|hit|hitting|showing|seeing)(?: about| around| like)* $/.test(clause)) ||
      (/\bpeak(?:ed)?(?: was| at| of)* $/.test(clause) &&
        lately(ride, quantity.from, /^watts$/, 14) !== null));
  // "You can see the watts right here. It pulls 780 off the line."
  const pulled =
    !exact &&
    value >= 100 &&
    value <= 2500 &&
    (PULLS.test(clause) || /^(?:(?:and|so|now) )?(?:now )?it's (?:about |at )?$/.test(clause)) &&
    (/\bwatts\b|#_W/.test(`${around.earlier} ${before}`) ||
      lately(ride, quantity.from, /^watts$/, 14) !== null);
  if (!asWatts && !asAmps && !ofMotor && !pulled) return null;
  const reason = killed(around);
  if (reason) return left(reason);
  return asAmps
    ? { kind: "amps", value: valueOf(quantity), unit: "A", because: "beside the current" }
    : { kind: "watts", value: valueOf(quantity), unit: "W", because: "beside the power" };
}

/** "So my legs are worth about two amps, roughly 80 watts". */
const WORTH = /\bworth\b[^.]{0,26}$/;

const MOST_AMP_HOURS = 80;

const current: Rule = (asked) => {
  const { quantity, around } = asked;
  const { after, clause } = around;
  // "A 48 volt, 21 amp battery": amp-hours.
  if (/^(battery|pack)\b/.test(after) && quantity.singular && quantity.value <= MOST_AMP_HOURS)
    return packOr(asked, "pack_ah", "Ah");
  if (
    THING_AFTER.test(after) ||
    RATED.test(clause) ||
    /\b(?:controller|charger)\b[^.]{0,20}$/.test(around.before)
  )
    return left(REASONS.scale);
  if (/^(more|less|lower|higher|difference)\b/.test(after) || WORTH.test(around.before))
    return left(REASONS.difference);
  const reason = killed(around);
  const most = /\bwon't (go|pull|draw|give|do)( me)? (over|above|past|more than) $/.test(around.before);
  return reason && !(most && reason === REASONS.plan)
    ? left(reason)
    : { kind: "amps", value: valueOf(quantity), unit: "A", because: "said in amps" };
};

/** No lamp takes more, W. */
const LAMP = 30;

const power: Rule = (asked) => {
  const { quantity, around, ride } = asked;
  const { after, clause } = around;
  if (quantity.singular && /^(battery|pack)\b/.test(after)) return packOr(asked, "pack_wh", "Wh");
  if (
    THING_AFTER.test(after) ||
    RATED.test(clause) ||
    (ride.distance === null && ride.level === null && /\b(motor|hub|mid ?drive)\b/.test(around.sentence)) ||
    (quantity.singular && (/^(motor|hub)/.test(after) || /\b(the|a|an) $/.test(clause)))
  )
    return left(REASONS.scale);
  if (
    /^(more|less|lower|higher|difference|peak|of (assist|support))\b/.test(after) ||
    WORTH.test(around.before)
  )
    return left(REASONS.difference);
  // "Six times 38, that's 228 watts".
  if (/(?:\btimes|#_thing|#_A at #_V) (?:#\S* )?[,.]? ?(?:that's|is|equals|makes) $/.test(around.before))
    return left(REASONS.share);
  // "The light's on, that's about 8 watts".
  if (quantity.value < LAMP && /\b(?:light|lights|headlight|lamp|usb)\b/.test(around.before))
    return left(REASONS.size);
  // What the rider gives.
  if (
    /\b(?:i'm|i am|my legs|legs are|myself|me) (?:only )?(?:putting in|putting out|pushing|giving|adding|doing)\b/.test(
      clause,
    )
  )
    return left(REASONS.size);
  const reason = killed(around);
  return reason
    ? left(reason)
    : { kind: "watts", value: valueOf(quantity), unit: "W", because: "said in watts" };
};

export const ELECTRIC: Rules = {
  V: volts,
  A: current,
  W: power,
  Ah: ampHours,
  Wh: wattHours,
  use: () => left(REASONS.scale),
  Nm: () => left(REASONS.scale),
};
