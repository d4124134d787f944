import { killed, REASONS } from "../kills.ts";
import { namedAfter, namedBefore } from "../named.ts";
import { lately, left, valueOf, type Asked, type Found, type Rule, type Verdict } from "../found.ts";
import { FEWEST_VOLTS } from "../units.ts";

import { packOr } from "./pack.ts";
import { RATED, THING_AFTER } from "./rated.ts";

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
export const volts: Rule = (asked) => {
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
