import type { Around } from "./context.ts";

/** Why something that was said is no reading of this ride; in words that are shown. */
export const REASONS = {
  question: "a question",
  otherBike: "another bike, pack or rider",
  otherTime: "another ride",
  claim: "a claim",
  whatIf: "a what-if",
  plan: "a plan",
  negated: "said not to be so",
  toGo: "still to go",
  slope: "a slope",
  limit: "a limit, or what it can do",
  scale: "a scale or a rating",
  difference: "a difference",
  share: "a percentage of something else",
  noTime: "a time of something else",
  recap: "said before",
  order: "out of the order of the ride",
  unlicensed: "nothing says what it is of",
  size: "a size, weight or count of something else",
} as const;
export type Reason = (typeof REASONS)[keyof typeof REASONS];

const ASKS =
  /\b(how|what|which|will|shall|do|does|can|is it|who|why|are you|have you|you've (?:got|lost|used|done)|yours|(?:didn't|isn't|wasn't|doesn't|hasn't|haven't|aren't|don't|won't) (?:i|it|we|you|they|he|she))\b/;
const QUESTION =
  /\b(how (many|far|much|long|fast)|what if|shall we|will (it|we|i) (make|get)|do you think|is it going to|can (it|you|we) (do|make|get))\b/;
const OTHER_BIKE =
  /\b((the )?(other|previous|old|older|earlier|bigger|smaller|sister|cheaper) (bike|one|model|commuter|version|pack|battery|set)|(?<!\b(?:lost|dropped|goes|went|gone|losing|there's|down|that's) )another (bike|one|model|pack)|(bike|one|model) i had|i (?:once |used to )?had an? (?:\w+ )?(?:bike|one) |the (?:green|blue|red|black|white|grey|silver|orange|yellow|big|little|small|cheap|other) one (?:was|did|had|got|went|managed|died|ran|made|does)\b|the one (?:i|we) (?:tested|rode|had|did|reviewed|tried|used)|used to (have|own|ride)|someone|somebody (in|on|at|coming|going|flying)|people (get|say|report)|(another|a|some) (rider|stranger|guy|friend|man|woman|bloke|fella|chap|lady)|on the (slicks|knobblies) it was|(bigger|smaller|old) (bike|pack|battery)|they (?:also )?(?:do|make|sell) (?:an?\b|#)|my old|most (bikes|people|riders)|a (lighter|heavier|stronger) rider|(truck|car|motorbike|scooter)('s)? (is|has|gets|does|would|got|battery|had)|(it|that|that one|which) had an? $)/;
/** Somebody else's, unless the two ride together. */
const OTHER_RIDER =
  /\b(my (old|last|other|previous) |my (old|last|other|previous|buddy|friend|sister|brother|wife|husband|neighbour|neighbor|cousin|mate|dad|son|boy|homie|girlfriend|boyfriend|partner|mum|mom|uncle|pal|colleague|daughter)(?:'s)?\b|(his|her|their) (says|bike|battery|gauge|pack|display)|its says|(his|hers|theirs) (says|is|has|shows|reads|got|does|did|gets|goes|went|made)|(he|she|they)('s|'re) (on|in|using|running|got|doing|going) |(he|she|they) (?:was|were|is|are) (?:doing|going|on|at) |(he|she|they) (weighs?|gets?|got|rides?|had|has|did|made|says|tells))/;
const OTHER_TIME =
  /\b(last (week|weeks|month|year|time|summer|winter|spring|autumn|fall|ride|test|run|sunday|monday|tuesday|wednesday|thursday|friday|saturday|night|video|october|november|december|january|february|march|april|may|june|july|august|september)|yesterday|the other day|(days?|weeks?|months?|years?|hours?|minutes?|half an hour) ago|in (the )?(spring|summer|winter|autumn|january|february|march|april|june|july|august|september|october|november|december)|on (the )?(previous|earlier|last) (ride|test|run|lap|outing)|back then|in my (last|first|earlier|previous|old)|used to|when (it|the pack|the battery) was new|when (?:i|we) (?:first )?(?:switched|turned) (?:it|her|this|the \w+) on|in the old (test|video))\b/;
const CLAIM =
  /\b(claim(s|ed)?|claim was|rated|advertis\w+|brochure|on paper|supposed(ly)? to|supposedly (?:goes|gets|does|good)|website|web site|spec(s| sheet)?|manufacturer|(?:the |its |their )?(makers?|company|shop|factory|seller|dealer|box|sticker|label|internet)(?: themselves| itself)? (says?|said|claims?|promises?|rates?|lists?|quotes?)|they (say|said|claim|promise|reckon|quote|advertise|list|rate|tell you|now advertise)|(told|tells?) (me|us|you)|quotes?\b|it's said|officially good for|good for|stated|which they)\b/;
/** "I'm swapping over to the other one": one's own. */
const OWN_OTHER =
  /\b(?:swap|switch|chang|mov)\w* (?:it )?(?:over )?(?:to|onto|for) the (?:other|second|new|bigger|smaller) (?:one|battery|pack)\b/g;
const isOthers = (text: string, { together }: Pick<Around, "together">) =>
  (OTHER_BIKE.test(text) && OTHER_BIKE.test(text.replace(OWN_OTHER, " "))) ||
  (!together && OTHER_RIDER.test(text));
/** Whether the sentence before was of another bike, and this one goes on about it: "it's only got". */
export const isOfAnother = (around: Pick<Around, "earlier" | "before" | "together">): boolean =>
  isOthers(around.earlier, around) &&
  /^(?:and |but |so )?(it|its|it's|that|that's|he|she|they|they're|he's|she's)\b/.test(around.before);

/** A gauge that "claims" is a gauge that reads. */
const GAUGE_CLAIMS =
  /\b(gauge|display|screen|meter|indicator|readout|dash|battery|app|bike|computer|trip)('s)? claims?\b|\b(display|screen|dash|meter|app|computer|watch|phone)( itself)? tells (me|us|you)\b/;
const WHAT_IF =
  /\b(if|would|wouldn't|could|couldn't|might|unless|once (?:you|it|i|we) (?:get|gets|go|goes|drop|drops|hit|hits|are|is)|imagine|recommend|suppose|supposing|i'd|you'd|we'd|it'd|he'd|they'd|that'd|should|ought|can (do|go|get|reach|run|hit|last)|you (get|use|can(?!'t)|get about)|what if|whether|wish|hopefully|in theory|theoretically)\b/;
const PLAN =
  /\b(will|i'll|we'll|it'll|you'll|that'll|won't|going to|gonna|gotta|plan(ning)?|want to|wanna|hope|hoping|aim(ing)?|target|goal|try(ing)? to|let's see|see (if|whether|how)|expect\w*|until (mile|i|we|it)|till (mile|i|we|it)|when (i|we|it|the) (get|gets|hit|hits|reach|reaches|is|are|drops|goes)|by the time|about to|before (i|we|it)|next time|tomorrow|later|soon|ride on to|supposed|i'd like)\b/;
const NEGATED =
  /\b(not|no|never|nowhere|none|without|neither|nor|hasn't|haven't|isn't|can't|cannot|didn't|doesn't|don't|wasn't|weren't|aren't|won't|wouldn't|ain't|hadn't|couldn't|instead of|rather than)\b(?:(?! , ).){0,22}$/;
/** "not bad", "no sorry", "not even moving and": a no that denies nothing of what follows. */
const NO_DENIAL =
  /\b(no problem|(?:not|never|didn't|doesn't|don't) (?:\w+ ){1,4}at all|not bad|not #\S*(?= )|not \w+ing (?:me|it|us|you|that|this) \w+|no sorry|no wait|no doubt|not surpris\w+|no surprise|not only|no less than|not a lie|no kidding|not sorry|not patient|can't (?:read|see|tell|hear|feel|stop|wait|complain|say)(?: it| that| you| anything)?|don't (know|believe|ask|worry|care)|can't believe|didn't (expect|think)|don't think|no idea|no pedal\w*|no throttle|no motor|without (the )?motor|no wind|no warning|no more (?:help|power|juice|motor|assist\w*|battery)|not sure|why not|no matter|without (even )?(trying|thinking|stopping|looking))\b/g;
/** Turns of speech with words of a what-if or a plan in them that are neither. */
const IDIOMS =
  /\b(if you're new(?: here| to (?:this|the channel|all this))?|if (you('re)? |you are |i'm |i am |that |it )?(wanna know|want to know|ask me|like|wondering|care|interested|believe (the |it|that|them)?\w*|being honest|not mistaken|honest|makes (any )?sense|anything|helps|matters|prefer (that|it)?)|(i|you) (would|might) say|would you believe|wouldn't you know|might as well|as if|could be (better|worse)|(as )?you('ll| can| will) (see|hear|tell|notice)|(i'm )?not (gonna|going to) lie|(i'm )?(gonna|going to) be honest|i'll (tell you|say|admit|be honest|go with)|i will say|let me|(?:i )?(?:just |did |do )?(?:want|wanted|have|need) to (?:say|mention|point out|tell you|show you)|that might be the|can feel( it)?|(you|i|we) could (hear|feel|see|tell))\b/g;
/** "I'd" that says what had been. */
const HAD =
  /\b(i'd|we'd|it'd|he'd) (lost|used|done|ridden|had|gone|got|been|dropped|started|charged|forgotten|rather|say|call|reckon|guess|bet)\b/g;

/** What begins this moment, although it is said as a plan. */
const NOW_GOING = /\bnow (we're|i'm|it's|we are|i am) (going to|gonna) (have|be|get|feel|go)\b/g;

const ANEW =
  /^.*\S+ \S+ (?:and )?(?=(?:indeed|sure enough|it's|that's|there's|we're|i'm|we've|i've|we are|i am|here's) )/;

/** Not now but as a rule. */
const AS_A_RULE = /\b(?:usually|normally|typically|generally|as a rule)\b/;

/** The other time is only compared with: "Tour, like last time", "61 used, against 41 in September". */
const COMPARED = / (?:(?:\w+ )?than|like|just like|same as|versus|vs|against|compared (?:to|with)) .*$/;
/** Why, not when: "at 93 because I didn't charge it yesterday". */
const WHY = / (?:because|since|as|cos|cause) (?:i|we|it|they)\b.*$/;
/** Whether it is of another time; most is of none, and looked at once. */
const isOtherTime = (text: string) =>
  OTHER_TIME.test(text) && OTHER_TIME.test(text.replace(COMPARED, " ").replace(WHY, " "));

export interface Killing {
  /** What is done right now although it is said as a plan: "going to turn round here". */
  readonly allow?: readonly ("plan" | "negated" | "claim" | "whatIf" | "otherBike" | "otherTime")[];
}

/** What was answered before, by what is around and what is allowed: rules and readings ask again and again. */
const answered = new WeakMap<Around, Map<string, Reason | null>>();

/** Whether what is around something says that it is no reading; the reason, or null. */
export function killed(around: Around, killing: Killing = {}): Reason | null {
  const known = answered.get(around) ?? new Map<string, Reason | null>();
  answered.set(around, known);
  const key = killing.allow?.join() ?? "";
  const before = known.get(key);
  if (before !== undefined) return before;
  const reason = reasonOf(around, killing);
  known.set(key, reason);
  return reason;
}

function reasonOf(around: Around, { allow = [] }: Killing): Reason | null {
  const { before, after, clause, isQuestion, parted } = around;
  // What follows a pause is of something else.
  const sentence = parted ? before : `${before} ${after.replace(/ , .*$/, "")}`;
  const may = (what: NonNullable<Killing["allow"]>[number]) => !allow.includes(what);
  // "It's minus three, and what does that cost?": the question comes after a statement.
  const asked = parted ? after : after.replace(/^.*? , /, "");
  const asks = isQuestion && !((parted || after !== asked) && ASKS.test(asked));
  if (asks || QUESTION.test(clause)) return REASONS.question;
  const own = parted ? clause : `${clause} ${after.replace(/ , .*$/, "")}`;
  if (
    may("otherTime") &&
    (isOtherTime(sentence) || /#_(day|h|min) ago\b/.test(own) || AS_A_RULE.test(clause))
  )
    return REASONS.otherTime;
  if (may("otherBike") && isOthers(sentence, around)) return REASONS.otherBike;
  if (
    may("claim") &&
    (CLAIM.test(before) ||
      /\b(?:can|could|you'll|you|to) get (?:anywhere )?(?:up to|between|about) $/.test(before) ||
      /(?<!\b(?:back|came|comes|come|went|goes|gone|it's|rate|pulse|volts|voltage|heart|now|get|got|getting|shot|charged|warmed|cooled|i'm|we're|got it|got her|got him|get it|get her|wound it|going) )\bup to (about |around |as much as )?$/.test(
        before,
      )) &&
    !GAUGE_CLAIMS.test(before)
  )
    return REASONS.claim;
  const mayWhatIf = may("whatIf") && WHAT_IF.test(before);
  const mayPlan = may("plan") && PLAN.test(before);
  if (mayWhatIf || mayPlan) {
    const plain = before
      .replace(HAD, " ")
      .replace(NOW_GOING, " ")
      .replace(IDIOMS, " ")
      .replace(NO_DENIAL, " ");
    if (mayWhatIf && WHAT_IF.test(plain)) return REASONS.whatIf;
    // A new statement begins: what was planned before it is over.
    if (mayPlan && PLAN.test(plain.replace(ANEW, " "))) return REASONS.plan;
  }
  return may("negated") &&
    NEGATED.test(clause) &&
    NEGATED.test(clause.replace(NO_DENIAL, " ").replace(ANEW, " "))
    ? REASONS.negated
    : null;
}
