import { killed, REASONS } from "../kills.ts";
import { lately, left, valueOf, type Asked, type Rule, type Rules, type Verdict } from "../found.ts";

const ONE_OF_BARS = /\b(first|second|third|fourth|fifth|last|one) of (the |my |its )?$/;
const BAR_SCALE =
  /\b((?:first|second|third|fourth|last|one|two|three) of|has|have|comes with|shows up to|display of|scale of|out of|in total|of them|both)\s*$/;
const LOST_BEFORE =
  /\b(lost|dropped|used( up)?|burned|burnt|down|gone through|minus|losing|lose)\s*(about|just|only|another|a|the)?\s*$/;
const LOST_AFTER =
  /^(gone|down|lost|has (?:just )?(?:gone|disappeared|vanished)|is (?:gone|out)|disappeared|just went|went|dropped)\b/;

/** So many come back when a pack rests. */
const BACK_AT_MOST = 1;

const OF_TYRES = /\b(?:tyres?|tires?|pressures?|pump\w*|psi)\b/;
const IN_TYRES = /^(?:of (?:air|pressure)|in (?:the|my|both|each|all) (?:\w+ )?(?:tyres?|tires?))\b/;
/** "I've hit nine red lights". */
const OF_TRAFFIC =
  /\b(?:red|traffic|stop) ?lights?\b|\b(?:hit|counted|counting|caught|ran) (?:about |# |#\S* )*$/;

const bars: Rule = (asked) => {
  const { quantity, around, ride } = asked;
  const { after, clause, before } = around;
  // "The knobbly one at 3 bar", of a gauge they would be bars.
  const isOneUnit =
    quantity.singular &&
    quantity.value > 1 &&
    !/^(?:display|gauge|battery|scale|meter|screen)\b/.test(after) &&
    ride.since.some(({ kind }) => kind === "pressure");
  if (quantity.exact || isOneUnit || OF_TYRES.test(before) || IN_TYRES.test(after))
    return { kind: "pressure", value: valueOf(quantity), unit: "bar", because: "how hard the tyres are" };
  if (
    /^each\b/.test(after) &&
    (/\b(full|still|both|all|have|got|on|left) $/.test(clause) ||
      (ride.bars === null && before.trim() === ""))
  )
    return { kind: "bars_left", value: quantity.value, unit: null, because: "bars that are left" };
  if (/^(each|better|worse|more than|on the (other|display it has)|wide|end)\b/.test(after))
    return left(REASONS.difference);
  // "A ten bar display", "five bars for the battery".
  if (/^(?:for the (?:battery|charge)|display|gauge|scale|meter|screen)\b/.test(after))
    return left(REASONS.scale);
  if (OF_TRAFFIC.test(before) || /\b(?:red|traffic|stop) ?lights\b/.test(after)) return left(REASONS.size);
  const reason = killed(around);
  if (reason) return left(reason);
  // Bars do not come back by themselves.
  if (
    ride.bars !== null &&
    quantity.value > ride.bars + BACK_AT_MOST &&
    !/\b(?:back|recover\w*|charg\w*|full|again|up to|plug\w*|came|comes|battery|new)\b/.test(
      `${around.earlier} ${around.sentence}`,
    )
  )
    return left(REASONS.order);
  // "The first of the four bars went out": one of them.
  if (ONE_OF_BARS.test(clause))
    return LOST_AFTER.test(after) ||
      /\b(?:lost|dropped|losing|used up|gone through)(?: my| the| our)? \w+ of (?:the |my |its )?$/.test(
        clause,
      )
      ? { kind: "bar_lost", value: 1, unit: null, because: "a bar that went" }
      : left(REASONS.scale);
  if (LOST_BEFORE.test(clause) && !/down to/.test(clause))
    return { kind: "bar_lost", value: quantity.value, unit: null, because: "a bar that went" };
  if (LOST_AFTER.test(after) && !/^(gone|down) to/.test(after))
    return { kind: "bar_lost", value: quantity.value, unit: null, because: "a bar that went" };
  if (
    BAR_SCALE.test(clause) &&
    ride.distance === null &&
    !/\b(still|left|all|i've|i have|we have)\b/.test(before)
  )
    return left(REASONS.scale);
  return {
    kind: "bars_left",
    value: quantity.high ?? quantity.value,
    unit: null,
    because: "bars that are left",
    ...whose(around.sentence),
  };
};

/** Of which of two riders. */
const whose = (sentence: string) =>
  /\b(yours|your|you've|you're|you still|his|hers)\b/.test(sentence)
    ? { of: "yours" as const }
    : /\b(mine)\b/.test(sentence)
      ? { of: "mine" as const }
      : {};

const GAUGE = /\b(battery|gauge|icon|bars?|lights?|segments?|charge|display|indicator|pips?|leds?|green)\b/;

/** Bars said without the word: "still on nine", "three left", "down to two". */
export function bareBars(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { after, clause } = around;
  if (quantity.exact || quantity.value > 12 || quantity.value < 0 || quantity.clock) return null;
  const stillHas = /\bstill (got|have|on|at) $/.test(clause);
  const outOf =
    /^(left )?out of #/.test(after) &&
    (ride.bars !== null || GAUGE.test(`${around.earlier} ${around.sentence}`));
  // "I've lost a light already. So that's three left."
  const lostOne =
    /^(?:left|remaining)\b/.test(after) && lately(ride, quantity.from, /^bar_lost$/, 12) !== null;
  if (ride.bars === null && !stillHas && !outOf && !lostOne) return null;
  if (/\b(?:trip|odo\w*|counter|clock)\b/.test(clause)) return null;
  if (quantity.value === 1 && ride.bars === 2 && /^light\b(?! (?:on|up|at))/.test(after))
    return { kind: "bars_left", value: 1, unit: null, because: "bars that are left" };
  // "It gets an 8 out of 10": a mark.
  if (/\ban? $/.test(clause) || /\b(?:gave|give|gets?|rate|rated|score|scores|mark)\b/.test(clause))
    return null;
  const isDown = ride.bars !== null && quantity.value === ride.bars - 1 && /\bdown to $/.test(clause);
  const inTurn = ride.bars !== null && quantity.value === ride.bars - 1 && /^at (like |about )?#/.test(after);
  const left_ =
    /^((are |is |bars )?left|remain|remaining|to go|left out of|bars?)\b|^(left )?(out )?of #/.test(after);
  const held =
    /\b(still got|still on|still have|still at|i'm on|down to|we're on|left with|on|got|has|there's|that's|makes)\s*$/.test(
      clause,
    );
  const near =
    lately(ride, quantity.from, /^(bar_lost|bars_left)$/, 22) !== null ||
    stillHas ||
    /\bbars\b/.test(around.before);
  // "Keep an eye on the bars, there's five."
  const namedHere =
    /\bbars\b[^#.]{0,20}\b(?:there's|there are|i've got|it's|still|showing)(?: still| all)? $/.test(
      around.before,
    ) && ride.bars !== null;
  if (!(
    namedHere ||
    inTurn ||
    isDown ||
    (left_ && (near || /out of/.test(after))) ||
    (held &&
      near &&
      lately(ride, quantity.from, /^(bar_lost|bars_left|distance)$/, 12) &&
      /\b(still|down to|left|has|on)\b/.test(clause))
  ))
    return null;
  if (quantity.value > (ride.bars ?? 12) + (/\bhas $/.test(clause) ? 3 : 0) && !/out of/.test(after))
    return null;
  const reason = killed(around);
  return reason
    ? left(reason)
    : {
        kind: "bars_left",
        value: quantity.value,
        unit: null,
        because: "bars, the word unsaid",
        ...whose(around.sentence),
      };
}

export const BARS: Rules = { bar: bars };
