import { isOfAnother, killed, REASONS } from "../kills.ts";
import { left, valueOf, type Asked, type Rule, type Verdict } from "../found.ts";

/** A fact of the pack, unless it is another's. */
export function packOr(asked: Asked, kind: "pack_v" | "pack_ah" | "pack_wh", unit: string): Verdict {
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
  // "71 percent of 504 is 358 watt hours".
  if (/#_% of #\S* ?[,.]? ?(?:is|that's|makes) $/.test(around.before)) return left(REASONS.scale);
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

const COUNTED = /\b(?:used|counted|taken|burned|put (?:in|back)|gone)\b/;
/** On the way, amp-hours are what a meter counted. */
export const ampHours: Rule = (asked) =>
  COUNTED.test(asked.around.clause) || /^(?:used|so far|out|gone)\b/.test(asked.around.after)
    ? left(REASONS.scale)
    : packOr(asked, "pack_ah", "Ah");
export const wattHours: Rule = (asked) =>
  /\b(used|use|consumed|took|burned|per|average)\b/.test(asked.around.clause) ||
  /^(used|per|a mile|so far)\b/.test(asked.around.after) ||
  // "It says 31 watt-hours", on the way: a counter.
  (/\b(?:says|reads|shows|showing)(?: about| just| only)? $/.test(asked.around.clause) &&
    asked.ride.volts !== null)
    ? left(REASONS.scale)
    : packOr(asked, "pack_wh", "Wh");
