import type { Said } from "../context.ts";
import { killed, REASONS } from "../kills.ts";
import type { Event } from "./events.ts";
import { left, type Asked, type Verdict } from "../found.ts";

const NOUN =
  /\b(level|levels|assist|assistance|pas|p a s|mode|power level|(?:on|in|to) power|(?:in|to|on|at|use|using|with) (?:step|stage|support)|assist level|pedal assist|setting)( is| at| on| number| to| up to| down to| still)? ?[,.:]? ?$/;
const ORDINALS = ["first", "second", "third", "fourth", "fifth"];
/** "In the second level of four". */
const BY_ORDINAL = new RegExp(
  `\\b(${ORDINALS.join("|")}) (?:assist |power )?(?:level|setting|assist|mode)\\b(?! (?:test|run|lap))`,
  "g",
);

/** Levels that are said by their place in the row. */
export function levelsByOrdinal(said: Said): readonly Event[] {
  return [...said.script.matchAll(BY_ORDINAL)].map((match) => {
    const from = said.tokenAt(match.index);
    const to = said.tokenAt(match.index + match[0].length - 1) + 1;
    const around = said.around(from, to);
    // "The second mode, which is called Trail": its name says it.
    const reason = /\b(?:called|named)\b/.test(around.after)
      ? REASONS.recap
      : killed(around, { allow: ["plan", "claim"] });
    const value = 1 + ORDINALS.indexOf(match[1] ?? "");
    return {
      ...{ from, to, reason },
      found: reason ? null : { kind: "level", value, unit: null, because: "the level of assistance" },
    };
  });
}

const PAST = /\b(running|on|in|at|to|into|up|using|with) past $/;
const STEP =
  /\b(up|down|back|back up|back down|back in|go|going|went|drop|dropped|switch|switched|set|put it|bump it|bumped it|kick it)( it| up| down| back)? (to|in|into|on) $/;

/** A figure that names a level of assistance; null where it does not. */
export function levelFigure(asked: Asked): Verdict | null {
  const { quantity, around, ride } = asked;
  const { before, after, clause } = around;
  const { value } = quantity;
  if (
    quantity.unit !== null ||
    quantity.exact ||
    quantity.clock ||
    value < 0 ||
    value > 15 ||
    quantity.high !== null
  )
    return null;
  const named = NOUN.test(before) || PAST.test(before);
  const bumped =
    ride.level !== null &&
    /^\d+$/.test(ride.level) &&
    value >= 1 &&
    value <= 9 &&
    /\b(?:bump|knock|click|kick|notch|whack|stick|stuck)(?:ed|ped|ing)? (?:it|her|him|the assist|myself|me|things) (?:up |down |back |over )*(?:to|in|into|on) $/.test(
      clause,
    );
  const stepped =
    bumped ||
    (STEP.test(clause) &&
      ride.level !== null &&
      /^\d+$/.test(ride.level) &&
      value <= 9 &&
      /\b(level|hill|so|assist|up to|back|had to|gonna|just to)\b/.test(around.sentence));
  const asked_ =
    value >= 1 &&
    value <= 9 &&
    /\b(i'm|we're|i am|we are|you're|riding|ride|ride mostly|ride mainly|staying|stay|it|be) in $/.test(
      clause,
    ) &&
    (ride.level === null || /^\d+$/.test(ride.level)) &&
    /^($|[,.]|so|okay|ok|too|now|again|today|the whole|for|out of #|and|all|here|right|as (?:always|usual)|maybe)/.test(
      after,
    );
  // "On five it pulls 19 amps", in a ride by numbered levels.
  const pulls =
    value >= 1 &&
    value <= 9 &&
    ride.level !== null &&
    /^\d+$/.test(ride.level) &&
    /(?:^|(?<!\b(?:mile|lap|minute|part|page)) )(?:on|in|with) $/.test(before) &&
    /^(?:it|she|he|the motor)(?:'s)? (?:pulls?|pulling|draws?|drawing|bogs?|does|doing|goes|gets|is|only|just|hits|sits|climbs)\b/.test(
      after,
    );
  // "Let's pedal along in three, I'm putting in ...".
  const chosen =
    value >= 1 &&
    value <= 9 &&
    ride.level !== null &&
    /^\d+$/.test(ride.level) &&
    /\b(?:let's|try|trying|pedal\w*|ride|riding|ridden|run|running|with it|along|hill|back|again|same)(?: \w+){0,2} (?:in|on) $/.test(
      clause,
    ) &&
    /^(?:$|[,.]|i'm|we're|it's|and (?:it|i|we|the motor)|now|this time|again|so)/.test(after) &&
    !/\b(?:mile|minute|lap|page|part|number) (?:in|on) $/.test(clause);
  const isSet = /\bset (it |her |the bike )?(on|to|at|in) $/.test(clause) && /^(of|out of) #/.test(after);
  // "And in nine.", in a ride by numbered levels.
  const isAll =
    value >= 1 &&
    value <= 9 &&
    ride.level !== null &&
    /^\d+$/.test(ride.level) &&
    /^(?:and |then |now |same )*(?:in|on) $/.test(before) &&
    around.parted;
  if (!named && !stepped && !asked_ && !isSet && !pulls && !chosen && !isAll) return null;
  // "Level 2 felt like level 1".
  if (
    /^(?:felt|feels) (?:more )?like\b/.test(after) ||
    /\b(?:felt|feels) (?:more )?like (?:level )?$/.test(before)
  )
    return left(REASONS.difference);
  // "Level one was four, level two six": what each of them took.
  if (
    /^(was |is |were |took |used |cost )?(# |#$)/.test(after) &&
    (around.sentence.match(/\blevel\b/g)?.length ?? 0) > 1
  )
    return left(REASONS.difference);
  if (
    /^(is (for|the|set|gentle|what|where)|it's|you'd|you get|you|would|gives|does|uses \d|feels|means|ground|crossing)\b/.test(
      after,
    )
  )
    return left(REASONS.share);
  const reason = killed(around, { allow: ["plan", "claim"] });
  if (reason) return left(reason);
  if (/\b(nowhere near|what does|whether|until) /.test(before)) return left(REASONS.negated);
  return { kind: "level", value, unit: null, because: "the level of assistance" };
}

/** Names that are words of everyday as well: they stand for a level only where they are said to be one. */
const EVERYDAY = new Set(
  "normal high low medium standard power comfort city auto town tour touring trail sport speed".split(" "),
);
/** Levels by name. Colours are left to the person: a lamp may be the battery's. */
const NAMES = new Set([..."eco boost turbo sport+".split(" "), ...EVERYDAY]);
const INTO =
  /\b((?:first|second|third|next|last)(?: one| up)?(?: is|'s| was)?|(?:first|last|next) one|shift(ed|ing)? to|changing to|now|in|into|to|on|switch(ed)? to|back in|back to|using|with|mode|use|it's in|i'm in|riding|level|that's|stay in|up to|down to|swap to|try|now i try|setting|on to|called|it's|it's called) $/;

/** Whether a word names the level that is ridden. */
export function levelName(said: Said, at: number): Verdict | null {
  const token = said.tokens[at];
  if (!token || !NAMES.has(token.word)) return null;
  const around = said.around(at, at + 1);
  const next = said.tokens[at + 1]?.word ?? "";
  const asMode =
    /^(mode|level|setting|assist)$/.test(next) && !(/^(power|speed)$/.test(token.word) && next !== "mode");
  const before = said.tokens[at - 1]?.word ?? "";
  const asLevel = /^(level|mode)$/.test(before);
  const placed = INTO.test(around.before);
  // "Sport.", and nothing else.
  const isAll = around.before.trim() === "" && /^[ .]*$/.test(around.after) && !said.isRaw;
  // "The middle one, Normal."
  const isApposed =
    /\b(?:one|level|mode|setting|middle|second|third) , $/.test(around.before) &&
    (around.parted || around.after.trim() === "");
  const isChosen = isAll || isApposed || (around.clause.trim() === "" && /^it is\b/.test(around.after));
  if (EVERYDAY.has(token.word) && !isChosen) {
    if (/^(the|a|an|this|that|my|dirt|cycle|bike|foot|forest|high)$/.test(before) && !asMode) return null;
    if (
      !asMode &&
      !asLevel &&
      !(
        placed &&
        /^(auto|tour|trail|sport|high|low|medium|normal|standard|city)$/.test(token.word) &&
        !/^(speed|power|street|path|ground|centre|center|side|hall|school|battery|voltage|of|head|wind|tide|water|road)$/.test(
          next,
        )
      )
    )
      return null;
    if (
      /^(high|low|medium|normal|city|town)$/.test(token.word) &&
      !asMode &&
      !asLevel &&
      !/\b(up to|down to|back to|use|using|try|switch\w* to|shift\w* to|chang\w* to|put it (in|on)|(?:dropp?e?d?|knocked|shifted|clicked)(?: it)? (?:down )?(?:in|into|to)|going up to|in|into) $/.test(
        around.before,
      )
    )
      return null;
  } else if (
    !placed &&
    !asMode &&
    !asLevel &&
    !/^(please|now|again|today|it is|the whole way)/.test(around.after)
  ) {
    if (around.clause.trim() !== "" || !(around.parted || /^($|[.,])/.test(around.after))) return null;
  }
  const after = around.after;
  if (
    /^(cost|costs|used|takes|took|would|it would|it'd|you'd|i'd|that would|gives|is for|setting last)\b/.test(
      after,
    )
  )
    return left(REASONS.difference);
  if (/\b(headlight|lights?|lamp|beam)\b/.test(around.clause)) return null;
  if (/\b(left|range|yards|used|#\S*|# (?:lap|loop|circuit|round)s?) in $/.test(around.before))
    return left(REASONS.difference);
  if (/\b(?:against|versus|compared|instead of|than)\b/.test(around.clause)) return left(REASONS.difference);
  // "Nobody buys one to ride it in eco", "in eco it's 75 percent you".
  if (
    /\b(?:nobody|people|anyone|everyone|everybody|the others)\b/.test(around.sentence) ||
    /^it's (?:the motor|all you|#_% you)\b/.test(after)
  )
    return left(REASONS.whatIf);
  if (/^(plus )?for (the hills?|everything|anything|most)\b/.test(after)) return left(REASONS.otherTime);
  // "Only go up to high for the bank": not yet.
  if (/\bonly (?:go|use|switch|put)\b/.test(around.before)) return left(REASONS.plan);
  if (/^(normally|usually|most days|every day)\b/.test(after) || /\b(normally|usually)\b/.test(around.clause))
    return left(REASONS.otherTime);
  const reason = killed(around, { allow: ["plan", "claim"] });
  if (reason) return left(reason);
  if (/\b(every day|you) /.test(around.sentence) && /\bif\b/.test(around.sentence))
    return left(REASONS.whatIf);
  return { kind: "level", value: token.word, unit: null, because: "the level of assistance" };
}
