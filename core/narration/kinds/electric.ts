import { isOfAnother, killed, REASONS } from "../kills.ts";
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
import { FEWEST_VOLTS } from "../units.ts";

const THING_AFTER =
  /^(battery|pack|system|motor|hub|charger|controller|bike|fuse|max|peak(?! was)|rated|nominal|setup|mid|rear|front|version|batteries|one\b|light|usb|outlet|and (a )?#_(Ah|Wh))\b/;
const RATED =
  /\b(rated|peak|peaks|max|maximum|(?<!\b(?:gone|went|goes|going|jumps|jumped|climbs|shoots|shot|it's|it is|comes|came|back|pushing) )up to(?: about| around| maybe)? $|nominal|controller (is|allows|gives|does)|limited to|charger|charging|charges|boost of|motor (is(?! (?:doing|giving|putting|pulling|at|on|drawing|adding|only|now))|has|of)|capable of|goes (from|to)|scale)\b/;
const SCALE =
  /\b((full|empty|flat|half|cut ?off|cutoff|nominal) (is|at|would be|being)|controllers? (stop|cut)|(is|means|counts as|for) (full|empty|flat))\b/;
const SCALE_AFTER = /^(is |being |means )?(full|empty|flat|half|nominal|fully charged)\b/;

/** At rest, or under load. */
const stateOf = ({ around }: Asked): Pick<Found, "of"> => {
  const clause = `${around.clause}| ${around.parted ? "" : around.after.slice(0, 40)}`;
  if (
    /\b(rest|resting|standing|stand|stood|sits|sitting|still|let go|stop|stopped|off the charger|not pedall?ing|parked|unplugged|recovers?|comes? back|back (up )?to|overnight)\b/.test(
      clause,
    )
  )
    return { of: "rest" };
  if (
    /\b(load|throttle|sags?|sagged|dips?|dipped|under|pulling|drops? to|climbing|uphill|hold it)\b/.test(
      clause,
    )
  )
    return { of: "load" };
  return {};
};

/** How far a pack's volts are from what it is said to have, as a part of that. */
const PACK_NEAR = 0.18;
const volts: Rule = (asked) => {
  const { quantity, around, ride } = asked;
  const { after, before, clause } = around;
  // Beside watt-hours that were used, as the volts read before it.
  const isRead =
    quantity.exact && ride.volts !== null && Math.abs(quantity.value / ride.volts - 1) < PACK_NEAR;
  if (quantity.singular && THING_AFTER.test(after)) return packOr(asked, "pack_v", "V");
  if (
    (/#_(Ah|Wh)/.test(after.slice(0, 24)) && !isRead && !/#_Wh (?:used|so far|gone)/.test(after)) ||
    /#_(?:Ah|Wh) (?:battery |pack |each )?(?:(?:at|and|on) (?:a )?)?$/.test(before) ||
    (THING_AFTER.test(after) && !/^(one)\b/.test(after))
  )
    return packOr(asked, "pack_v", "V");
  if (
    quantity.singular &&
    !quantity.exact &&
    /\b(it's a|is a|a|the|has a|with a|(?:are|both|is)(?: both| all)?)\s*$/.test(clause)
  )
    return packOr(asked, "pack_v", "V");
  if (SCALE.test(`${clause} `) || SCALE_AFTER.test(after) || /\b(full is|is full)\b/.test(clause))
    return left(REASONS.scale);
  if (RATED.test(clause)) return left(REASONS.scale);
  if (
    quantity.value < FEWEST_VOLTS ||
    /^(lower|higher|less|more|difference|apart|of sag|drop)\b/.test(after) ||
    /\b(by|lost|sag of|drop of)( over| about| around| almost)?\s*$/.test(clause)
  )
    return left(REASONS.difference);
  // "7.7 amps at 40 volts is 308 watts".
  if (
    /#_A (?:at|times|by) (?:about )?$/.test(before) &&
    /^(?:,|is|that's|makes|equals) ?(?:that's )?#_W/.test(after)
  )
    return left(REASONS.share);
  const reason = killed(around, { allow: ["whatIf"] });
  return reason
    ? left(reason)
    : { kind: "volts", value: valueOf(quantity), unit: "V", because: "said in volts", ...stateOf(asked) };
};

/** A fact of the pack, unless it is another's. */
function packOr(asked: Asked, kind: "pack_v" | "pack_ah" | "pack_wh", unit: string): Verdict {
  const { around, ride } = asked;
  const here = ride.recent.some(({ kind: each }) => each.startsWith("pack_"));
  if (/^(model|version|one)\b/.test(around.after) && !here) return left(REASONS.otherBike);
  // What is reckoned at the end is no fact of the pack.
  if (/^(of |on paper|used|in all)/.test(around.after) && ride.distance !== null) return left(REASONS.scale);
  const reason = killed(around, { allow: ["claim", "negated", "plan", "whatIf"] });
  if (reason) return left(reason);
  if (isOfAnother(around)) return left(REASONS.otherBike);
  // "It was a 36 volt".
  if (/\b(?:it|that) was an? $/.test(around.clause)) return left(REASONS.otherBike);
  // On the way, what is reckoned of a pack that is known.
  if (
    ride.distance !== null &&
    !/^(?:battery|pack|each)\b/.test(around.after) &&
    !/\b(?:battery|pack) (?:that's|of|is|which is) (?:about )?$/.test(around.clause) &&
    ride.since.some((each) => each.kind === kind || (kind === "pack_wh" && each.kind === "pack_ah"))
  )
    return left(REASONS.scale);
  if (/\bnext (?:time|week|month|video|test|up)\b/.test(around.before)) return left(REASONS.otherTime);
  if (ride.recent.some((each) => each.kind === kind)) return left(REASONS.recap);
  return { kind, value: valueOf(asked.quantity), unit, because: "what the pack is said to be" };
}

const VOLTS_NAMED = /\b(voltage|volts|voltmeter)\b[^.]{0,30}$/;
const VOLTS_BEFORE = namedBefore("voltage|volts|voltmeter|volt meter");
const VOLTS_AFTER = namedAfter("voltage|volts|voltmeter|volt meter");
const PACK_BEFORE = namedBefore("battery|pack|meter");
/** What only volts do: sag, and come back. */
const VOLTS_MOVE =
  /\b(sag(s|ged|ging)?|dip(s|ped|ping)?|recover(s|ed|ing)?|bounc(es|ed|ing)|crept|creep(s|ing)?|settled|settles|became|become|comes?( right)? back( up)?|comes? up|came up|drops?|dropped|falls?|fell|rising|rises|rose|climb(?:s|ing|ed))( down| up| back| right| straight| all the way)* (to|at) (about |around |like )?$/;
/** Volts without the word, beside the word or between volts. */
export function bareVolts(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { before, after, clause } = around;
  const { value } = quantity;
  if (value < 18 || value > 110 || quantity.clock) return null;
  const state = stateOf(asked).of !== undefined;
  const near = ride.volts !== null && Math.abs(value - ride.volts) < ride.volts * 0.2;
  const named =
    VOLTS_NAMED.test(clause) ||
    VOLTS_BEFORE.test(before) ||
    VOLTS_AFTER.test(after) ||
    (VOLTS_NAMED.test(before) && state);
  const metered =
    /\b(on|by) the (volt)?meter\b/.test(after) &&
    quantity.exact &&
    value > 20 &&
    /\b(charged|unplugged|charger)\b/.test(around.sentence);
  const moves =
    near &&
    VOLTS_MOVE.test(before) &&
    (quantity.exact || !/\b(?:drops?|dropped|falls?|fell)\b[^.]{0,20}$/.test(before));
  const pack = ride.since.findLast(({ kind }) => kind === "pack_v")?.value;
  const likePack =
    quantity.exact &&
    typeof pack === "number" &&
    Math.abs(value / pack - 1) < PACK_NEAR &&
    ride.distance === null;
  if (ride.volts !== null && !near) return null;
  const ofPack =
    likePack || (quantity.exact && value > 20 && PACK_BEFORE.test(clause) && ride.distance === null);
  const offCharger =
    quantity.exact &&
    ride.distance === null &&
    ride.percent === null &&
    lately(ride, quantity.from, /^full_charge$/, 12) !== null &&
    /\b(?:reading|reads|showing|shows|says|at|on|it's)(?: about| just| right at)* $/.test(clause);
  const exactly =
    quantity.exact &&
    state &&
    near &&
    !(
      ride.distance !== null &&
      !/^(?:sitting|resting|at rest|standing)\b/.test(after) &&
      value > ride.distance &&
      value < ride.distance * 1.3 + 6
    );
  if (
    !named &&
    !metered &&
    !moves &&
    !exactly &&
    !offCharger &&
    !ofPack &&
    !(state && near && lately(ride, quantity.from, /^volts$/, 20))
  )
    return null;
  if (/^(is |being )?(full|empty|flat)\b/.test(after) || SCALE.test(clause)) return left(REASONS.scale);
  const reason = killed(around, { allow: ["whatIf", "claim"] });
  return reason
    ? left(reason)
    : {
        kind: "volts",
        value: valueOf(quantity),
        unit: "V",
        because: "beside the voltage",
        ...stateOf(asked),
      };
}

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
    PULLS.test(clause) &&
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

const COUNTED = /\b(?:used|counted|taken|burned|put (?:in|back)|gone)\b/;
/** On the way, amp-hours are what a meter counted. */
const ampHours: Rule = (asked) =>
  COUNTED.test(asked.around.clause) || /^(?:used|so far|out|gone)\b/.test(asked.around.after)
    ? left(REASONS.scale)
    : packOr(asked, "pack_ah", "Ah");
const wattHours: Rule = (asked) =>
  /\b(used|use|consumed|took|burned|per|average)\b/.test(asked.around.clause) ||
  /^(used|per|a mile|so far)\b/.test(asked.around.after) ||
  // "It says 31 watt-hours", on the way: a counter.
  (/\b(?:says|reads|shows|showing)(?: about| just| only)? $/.test(asked.around.clause) &&
    asked.ride.volts !== null)
    ? left(REASONS.scale)
    : packOr(asked, "pack_wh", "Wh");

export const ELECTRIC: Rules = {
  V: volts,
  A: current,
  W: power,
  Ah: ampHours,
  Wh: wattHours,
  use: () => left(REASONS.scale),
  Nm: () => left(REASONS.scale),
};
