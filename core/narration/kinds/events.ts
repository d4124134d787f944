import type { Said } from "../context.ts";
import { FULL } from "../ride.ts";
import { breaks } from "../tokens.ts";
import { killed, REASONS, type Killing, type Reason } from "../kills.ts";
import type { Found, ReadingKind } from "../found.ts";

interface EventRule {
  readonly kind: ReadingKind;
  readonly value: string | number;
  readonly says: RegExp;
  /** What makes the same words mean something else, in the sentence. */
  readonly unless?: RegExp;
  readonly allow?: Killing["allow"];
  readonly because: string;
}

/** "Until it quits": what is waited for. */
const NOT_YET = /\b(till|until|before|unless) (it |she |he |the \w+ |one of \w+ )*$/;

const MACHINE =
  /\b(camera|phone|light|lamp|laptop|law|limit|brakes?|truck|car|engine|headlight|film|video)\b/;

const NO_END =
  /^(quiet|flat|calm|straight|level|easy|slow|even|still|simple|cheap|last|on time|centre|center|blinking|flashing|beeping)\b/;

/** Machines that end of themselves, and a motor that is switched off. */
const UNMEANT_END = new RegExp(
  `${MACHINE.source}|\\b(?:of course|anyway)\\b|\\b(turn|switch|shut)(ed|ing|ting)? (it|the (motor|assist\\w*|power)) off|\\bcomes? (?:back )?(?:in|on) again\\b|\\bcuts? (?:back )?in\\b`,
);

const EVENTS: readonly EventRule[] = [
  {
    kind: "full_charge",
    value: "full",
    because: "a full start",
    says: /\b(fully charged|charged (?:it |her )?back up\b(?! to)|charged? (?:the |my )?(?:battery|pack|it) (?:again |back |up )*(?:until|till) (?:(?:it is|it's) full|the (?:lamp|light|charger|led) (?:was|went|is|turned|goes) green)|battery (?:thing|gauge|indicator|icon|symbol|meter) is full|(?:they are|they're|both are) full|swap(?:ping|ped)? (?:it|them|her|the batter\w+|batter\w+)(?: over| out| round)?\b(?! to)|(?:just|freshly) unplugged (?:it|her|him|the battery)|(?:completely|totally|absolutely) full(?! of)|both (?:on|at) full|(it's|it is|it was|battery|battery's|pack|pack is|both|charged|charge|starting from|start from a|from a|got a|starts? (on|with) a) full( (battery|charge|pack|tank))?\b|full (battery|pack|again)\b|been off the charger|on the charger (?:till|until) i left|all charged(?: up)?|charged? (it )?(up )?to (a hundred|100|full|the top|#_%)|charged (it |her |them )?(up )?(all (last )?night|over ?night|last night)|(put|popped|swapped|stuck) (a |in a |the )?(fresh|full|new|other|second|charged) (battery|pack|one)( in)?|(fresh|full|brand new|new) charge(?! (takes?|took|will|would|costs?|needs?|is|of))|(came|come|just came|taken|took it|pulled it|fresh) (straight |right )?off the charger|charger (an? |#_\S+ )ago|topped her off|(charger|chargers|light)[^.]{0,30}(is |went |was |'s )?green|topped (it )?(up|off)|fresh off the charger|straight off the charger|charge is full)/g,
    unless:
      /#_(?:mi|km) (?:from|on|off|out of|per) (?:a|one) full|fully charged (?:is|would|at) #|\b(full (battery|charge|pack) (that|you|it|i)('d)? ?(would|ought|should|could|might)|full (throttle|power|speed|suspension|size|review|stop|charge takes|table|range)|for a full|takes|needs|gauge still says|still says full|is a lie|#_V (is|counts as) full|full is(?= #)|full (?:in|on) (?:the|my|our) (?:face|nose|teeth)|half|nearly full|almost full|not (quite )?full|when it's full|(?<!ago )hours?(?! ago)|#_h(?! ago)|full (power|assist) (mode|until))\b/,
    allow: ["otherTime"],
  },
  {
    kind: "bars_left",
    value: 1,
    because: "bars that are left",
    says: /\b(?:(?:on|onto|down to|into|at) (?:the|my|its) (?:very )?last (?:bar|one|light|segment)\b(?! (?:is|blink|flash|began|starts?|now|we|i\b|ran|of))|(?:on|onto|down to) (?:the|my|its) last(?= [,.]| so | and |$)|(?<=(?:^|[.] |so |okay |and that's |that's |now ))(?:the |my )?(?:very )?last bar (?=, #|# |at #|and #))/g,
  },
  {
    kind: "battery_blinking",
    value: "blinking",
    because: "the gauge blinks",
    says: /\b((?:flash|blink)ing (?:flashing |blinking )?(?:now )?at #|(bar|battery|symbol|gauge|light|icon|indicator|it's|it is|one|lamp|display)(?:['’]s)?( is| has| was| just)?( now| now just)?( started| began| begun| starting)?( to| ,)?( and)?( it's| is)? ?(?:a )?(blink\w*|flash\w*)|(blink\w*|flash\w*) (at me|red|now|battery|bar|icon|symbol|light|gauge)|(mine|yours|she|that|his|hers|he)['’]?s? (is |has |just |now )*(blink|flash)\w*|(started|starting|begun|began|starts) (to )?(blink\w*|flash\w*)|(turned|turns|gone|went) red|now (blink|flash)\w*|it(?: is|'s)? just (blink|flash)\w*|(gauge|battery|symbol) (is |has gone |went |turned )red|red light (is )?(on|flashing))/g,
    allow: ["plan"],
    unless:
      /\b((?:will|gonna|going to|it'll|about to|until it|till it|when it) (?:starts? )?(?:to )?(?:blink|flash)\w*|indicator light of|tail ?light|rear light|turn signal|other cyclist)\b/,
  },
  {
    kind: "cut_off",
    value: "cut off",
    because: "the pack shut off",
    says: /\b((it|it's|that's|pack|battery|motor|bike|everything|that|and|just|has|completely|she's|we're|i'm)( has| is| just| it)? (cut out|cuts out|cut off|died|dead|gone dead|shut (off|down|itself off)|switched (itself )?off|ran out|run out|packed (it )?up|given up|conked out)|it cut out|it died|(that's|that is) (her|it|him|us) (done|finished|gone)|completely off|it's off(?! (?:the|to|a|my|road|we|you|again|like)\b)|(?:it's|it|motor|motor's|has|she's|have) (?:just )?stopped (?:helping|assisting|giving|pulling|working)|no more (?:help|power|assist\w*|juice|motor)(?! than)|dead as a \w+|(?:it|she|screen|display|everything) (?:just |has |all )?turned off|(?:been|got) cut off|it just went off|(?:it|motor|power)(?:'s)? just cut\b(?! (?:the|my|it|down|back|in|through|a|corners?|across))|done for good|(?:turned|switched) itself off|(?:turned|switched) off (?:by itself|on its own)|nothing (?:at all )?(?:coming )?from the motor|(me|that's me|i'm|we're) (out of juice|out of battery|out of power|empty|flat(?! out)|dead|done for)|out of juice|no power (left )?(at all|any ?more)|nothing left (in|at all)|and it's off\b|just off\b|(?:she's|battery's|battery is) done(?= [.,]| #| and |$)|nothing on the (?:display|screen)|(?<=that's it [.,] )gone(?= [.,])|(?<=[.] )(?:gone|dead)(?= [.] #_(?:mi|km))|it's out(?= it's out| #| [.,])|gone completely (dead|off)|(it|she|that)('s| has| is)? (just )?(quit|quits|gave up|given up|kaput|toast)\b|that's (?:your|yer|my|the) lot\b|stopped (?:altogether|completely|dead|entirely)|(it|there) (it )?goes (that's it|and that's (it|that))|no display no|it's (completely |totally |all )?(dead|toast|cooked|kaput|finished)\b|(motor|assist|assistance|power|help)(['’]s| has| is)?( just| now| completely)? (gone|cut|quit|stopped|died|dead|(?<=(?:'s|is|has|just|now|completely) )off|out|finished)( out)?\b|(screen|display)(['’]s| has| is| went| gone)?( just| now| gone| completely)? (black|blank|dark|dead)\b|motor is (off|gone)|that's the (?:motor|power|battery|assist\w*) (?:off|gone|done|dead|finished)|battery('s| is) (dead|flat|empty|gone|done))/g,
    unless: UNMEANT_END,
  },
  {
    kind: "low_power",
    value: "low power",
    because: "it has less power",
    says: /\b((dropped|cut|cuts|reduces?|reduced|lowered|limits?|limited|limiting|throttled) (the |its |my |itself |back )?(power|down|assist|output|back)|no (real )?(punch|power|oomph|grunt|kick) (left|any ?more|now)|(losing|lost|loses|lack\w*) (its |the |all )?(punch|power|oomph|grunt|kick)|(it's|is|now it's|it is|i'm|assist is|power is|been) (now )?(limited|weak|very weak|weaker|getting weak\w*|fading|limping|sluggish)|(got|get|gets|getting|feel|feels|feeling|went|gone|going|gotten|growing) (kinda |kind of |sort of |pretty |super |so |very |really |real |a bit |a little |all |quite |so |awfully )?(weak|weaker|sluggish|lazy|soft|gutless|feeble|lethargic|wheezy|asthmatic)(?! (?:on (?:the|this|a) (?:sand|gravel|grass|ground|trail|path|side|beach|verge)|road|ground|sand|spot|surface|under|tyres?|tires?)\b)|(it's|is|she's|motor's) (just |really |clearly |now )?holding (itself )?back|capped me|can't get more than|not giving me (?:what|as much|any)|won't let me (?:use|have|put|go into|into|switch)|(?:hardly|barely) anything(?: now| left| at all)|(?:really |properly |seriously )struggling|(hardly|barely|not) (any|much) (shove|push|punch|pull|go|grunt|oomph|power|help)( left| in it| any ?more)?\b|(gives?|giving|getting|got) (me )?(a lot |much |way |noticeably )?less (power|help|push|assist\w*|pull|than (before|it did|at the start))|(switched|gone|dropped|stepped|shifted) (itself )?(down )?(automatically|by itself|itself|on its own) (down )?(in)?to (eco|level|the lowest|a lower|low)|(she's|it's|he's) got nothing( left)?|lost some (?:top end|speed|power)|(?:gone|going) (?:a bit|a little) flat|half the power|half (?:of )?what (?:i|it|we) had|on its way out|cutting in and out|it's on and off\b|(?:it's|getting|feels|a (?:little|bit)) (?:lazier|duller|slower off the line)|(?<!\b(?:i'm|i am|we're) )hardly doing (?:a thing|anything|much)\b|(?<!\b(?:i'm|i am|we're) )not doing (?:much|a lot|anything)(?= now| any ?more| [.,]|$)|weakest mode|limp[- ]?(home|along)?[- ]?mode|(becoming|become|becomes) (very |noticeably |much |a lot |a bit |quite |clearly )?(weak|weaker|sluggish|feeble)|noticeably (weaker|slower)|limit(s|ing|ed) me (to|now)|(?:cut(?:s|ting)?|hold(?:s|ing)?|pull(?:s|ing)?|scal(?:es|ing)) (?:me|it|itself) back|(cut|cuts|cutting|pull(s|ing|ed)?|dial(s|ing|ed)?) (the |my )?(power|assist|assistance|output|motor) (back|down)|(power|assist|assistance|output) (is |has been |is being |being |getting |was )?(cut|reduced|limited|throttled|dialled|pulled)( back| down)?\b|only (wants|wanted|willing) to (do|go|give)|(won't|doesn't|not going to|isn't going to) (give|let|allow|take) me (any(thing)?|go|more|do) ?(more |over|above|past|faster|beyond)?|(only|just) (gives?|giving|lets?|letting) me (about |around |like |maybe )?#|(barely|hardly) (moves|moving|helping|pushing|pulling|pulls|pulling|assists|helps|any (power|assist|help))|pulled itself down|(?:isn't|not|doesn't|won't|no longer) pull(?:ing|s)? (?:as|like|so|the way|quite as)\b|(?:won't|can't|doesn't) (?:hold|keep) (?:#|(?:the|its|that) speed|up with)|won't (go|do|pull) (over|more|above|past|faster)|(forced|kicked|dropped) (itself |me |it )?(into|down to|back to) (a |the |its )?(lower|low|lowest|weakest|eco)|reduced power|low[- ]?power|power('s| is) (coming down|going|dropping|fading|gone|down)|running out of (steam|puff))/g,
    unless:
      /\b(camera|phone|my legs|limited (?:to|at)(?= #)|limited by|by law|law|speed limit|no sign|not (yet|at all)|price|voltage sags|voltage drops|limited edition|when (?:she|it|he|the \w+) (?:starts|begins|gets|does)|until (?:she|it|he))\b/,
    allow: ["negated", "plan", "claim"],
  },
  {
    kind: "pedalling_no_power",
    value: "no power",
    because: "pedalled without the motor",
    says: /\b((pedal|pedalling|pedaling|pedalled|pedaled)( it| the bike| myself| her)? (home|the rest|back|in|without)|without (the |any |a )?(motor|power|assist\w*)|with no (?:motor|power|assist\w*)\b|no (motor|assist\w*)( at all| now|(?= #)|(?= [.])|$)|legs only|only (my )?legs|(turn|switch|shut)(ed|ing|ting)? (the )?(motor|assist\w*|power) off|motor switched off|just pedal\w* (without|with no|now)|on my own (legs|power|steam)|under my own (power|steam)|on muscle( power)? (only|alone))/g,
    unless: /\b(if |class|would|weighs|feel\w* like)\b/,
    allow: ["negated", "plan"],
  },
  {
    kind: "turn_round",
    value: "turned",
    because: "the way back begins",
    says: /\b(turn(ed|ing)? ?(a)?round|i('m| am) turning( back)?(?! (?:the|it|my|this|on|onto|into|in|off|up|down|left|right)\b)|turned back|turning back|turn(ing|ed)? for home|head(ed|ing)? back|head back|u-?turn|here (i|we) turn|(i|we) turn here|home from here|(?:swing|swinging|swung|spin|spinning|spun|flip|flipped|flipping) (?:it |her |the bike )?(?:a)?round\b(?! (?:the|a|this)\b)|head(ed|ing) (for )?home|(going|now) back the (other|same) way|back the other way|homewards?\b|about[- ]turn|on (my|the) way back( now)?)\b/g,
    unless:
      /\b(then (i|we) turn|and then i'll|(?:usually|normally|always) turn|where (i|we|you) turn\w* |if (?:i|we|you) turn|wind(?:'s| has| is| just)* (?:swung|swinging|turned|turning)|before (i|we) turn|until (i|we) turn|turn\w* \w*round (is|was|comes)|on the way back it'll|will turn)\b/,
    allow: ["plan", "whatIf"],
  },
  {
    kind: "stop",
    value: "stop",
    because: "a halt, or the test is ended",
    says: /\b(pit ?stop|pull(ed|ing)? over|pull(ed|ing) in (?:here|at|to)|calling it good|(?:going to |gonna |let's |i'll )?pause (?:at|here|for)|(?:going to |gonna |let's |i'll |i )stop (?:here|(?:under|by|at) (?:this|the|a)|and (?:eat|have|get|rest|take|drink|grab)|for a (?:minute|second|sec|moment|bit))|give me a (?:moment|minute)|(?:good )?(?:spot|place|time) for (?:lunch|a break|a rest|a snack)|let me (?:get|grab|have|take) a (?:drink|snack|sip|break|bite|breather|rest)|make (?:some |a |me a )?(?:coffee|tea|brew)|(?<=(?:^|[.] ))(?:lunch|coffee|pit stop|break)(?= [.])|(?:i|we) stopped and (?:ate|had|got|took|drank|grabbed)|(?:have|having|had) (?:my |a |some |a bit of |a quick )?(?:flask|lunch|sandwich|butty|pasty|picnic)\b(?! (?:on|in) the)|(stopp(ing|ed)|i've stopped|stop) (real quick|quickly|briefly|off)?( ?)for (a|some|lunch|coffee|water|food|fuel|my)|(a|short|quick|little|brief) (rest|breather|pause)( stop)?( on| at| here| now| by|$| ,| \.)|(going to|gonna|gotta|time to|time for) (go )?(have|grab|get|eat|stop for|take)? ?(a |some |my )?(bite|lunch|break|breather|rest|coffee|snack|drink|beer|sandwich|tea|burger|taco|pie|soup)\b|(?:a |have a |for a )?sit ?down(?= |$)(?! bars)|(?:tak(?:e|ing)|giv(?:e|ing) (?:it|her|him|myself|the motor)) (?:#|#_min|#_s|a rest|a minute|a moment)(?! (?:bars|miles|off|more))(?= here| and|$| ,| \.| in the| before| to| so)|(?:a|short|quick|little|small|brief) break\b(?! in)|let(?:ting)? (?:it|her|him|the (?:motor|battery)) (?:rest|cool)|tak(e|ing) a (little |short |quick )?break|took a break|(quick|short|little|small|brew|smoko|bio|wee|coffee|lunch|tea|pub|caf[eé]|bakery|shop|servo|fuel|loo|pee|drinks?|pie|beer|breakfast|snack|ice cream|water|food|gas|photo|tea|rest|toilet|bathroom|comfort) (break|stop)|hop(ping)? off\b|stop at #|(?:gotta|have to|had to|need to) stop\b(?! (?:at|when|before|charging))|stopped to \w+(?! of)|(?:had|have) (?:had )?to wait\b|(?:got|had|have|and|that's) a (?:puncture|flat(?= [.,])|flat tyre|flat tire)(?= |$)(?! (?:kit|repair|proof|protection))|(?:nip|pop)(?:ping|ped)? in(?:to| here)?(?! and out)\b|pause the (?:clock|timer)|(?:i will|i'll|we'll|let me) rest\b|break (at|here|now|for)|(i've|i have|we've|have|had) (stopped|to stop)|stopp(ing|ed) (here|at|for|now)|stopping the (test|ride)|i'm stopping|(we|i) stop here|i'll (leave it|stop|call it|end it) (there|here|a day)|leave it (there|here|at that)|(that's )?where i stop|call(ing)? it (a day|there|here|quits)|end(ing)? (it|the (test|ride)) (here|there)|stop the (test|ride|clock) here)(?:\b|(?<=#))/g,
    unless:
      /\b(non-?stop|wouldn't|brakes?|not stopping|(?:won't|didn't|don't|never|haven't|hasn't|no need to|not going to|not gonna) (?:stop|stopped)|bus stop|(going to|gonna|will|i'll|we'll) stop at|stop light|motor stops|doesn't stop|without (a )?(stop|break)|until|when i('ve| have)? stop|ride on to|if i stop|every|since the last (stop|break)|if this)\b/,
    allow: ["plan", "negated", "whatIf", "otherBike"],
  },
  {
    kind: "throttle",
    value: "only",
    because: "the throttle does it",
    says: /\b(throttle[- ]only|only (the |on )?throttle|nothing but (the )?(throttle|thumb)|(with|on|using) (the )?throttle (again|only|alone|today|now|the whole)|on throttle\b|just (the )?(throttle|thumb)|all throttle|throttle (today|test)|feet (stay |are |kept )?still|(keeping|keep) my feet still|no pedal\w*( at all| today| input)?|(pure|straight|hundred percent) throttle|with the throttle\b)/g,
    unless:
      /\b(when (?:i|we) (?:did|ran|rode|do)|double the|no throttle|without (a |the )?throttle|isn't a throttle|hardly|barely|there('s| is) no throttle|doesn't have|not (using )?(the )?throttle|is throttle only (legal|allowed)|and there's a throttle|minutes|that was|part one|last (time|one|test|video)|(first|next) (test|part|video)|range\b(?!.*today))\b|#\S* on (just )?(the )?throttle/,
    allow: ["negated", "plan"],
  },
  {
    kind: "wind",
    value: "head",
    because: "wind against",
    says: /\b(head ?wind\w*|into (the|a|this|that) (\w+ )?(wind|breeze|gale)|wind(['’]?s| is| was| comes?| coming| has)? [^.]{0,24}(in (my|our|the) (face|nose)|against (me|us)|straight (at|into|in)|right at|at us|at me|head[- ]on|from (the )?(front|ahead)|in front)|(in|into|straight in|straight into|right in) (my|our|the) (face|faces|nose|teeth|mugs?|chops|kisser)|against (the|a) (wind|breeze)|(?:wind|breeze)[^.]{0,36}(?:coming|blowing)[^.#]{0,20} (?:right |straight )?at (?:me|us)|breeze (in my face|against)|wind (is )?against)/g,
    unless:
      /\b(half (?:of )?(?:the|it|this|my)|on the way back it'll|will be|sun in|flies|rain in|no headwind)\b/,
  },
  {
    kind: "wind",
    value: "tail",
    because: "wind from behind",
    says: /\b(tail ?wind\w*|(?:wind|breeze)(['’]?s| is| was| comes?| has)? [^.]{0,20}(behind|at (my|our|the) back|on (my|our) back|from (the )?(behind|back|rear)|pushing (me|us)|with (me|us))|(?:wind|breeze)(?:'s| is| was)? in (?:my|our) favou?r|with the (wind|breeze)(?! (on|from|in|against|across))( now| behind| today|\b)|(breeze|it's|now it's|it is) (at|on) (my|our) backs?|at (my|our) backs?|(wind|breeze) (is )?(pushing|helping)|(light|strong|slight|gentle) wind from behind|carries me)/g,
    unless: /\b(no tailwind|will be|it'll be|(should|would|might) be)\b/,
  },
  {
    kind: "wind",
    value: "side",
    because: "wind from the side",
    says: /\b(side ?wind\w*|cross ?wind\w*|(wind|breeze)(['’]?s| is| was| comes?| coming| has)? [^.]{0,26}(from the (left|right|side)|on (the|my) (left|right|side)|(from|on) the other side|sideways|across)|(?:side on|from the side|from the (?:left|right))(?<=\b(?:wind|breeze)\b.{0,95})|(?:off|over|across|on) my (?:left|right) shoulder|touch of wind from the (left|right)|wind from the (left|right|side))/g,
  },
];

/** Something that happens or lasts, with where it was said. */
export interface Event {
  readonly from: number;
  readonly to: number;
  readonly found: Found | null;
  readonly reason: Reason | null;
  readonly approx?: boolean;
}

const CHOSEN = /^(?:dropped|switched|gone|stepped|shifted|kicked) /;
const BY_RIDER = /\b(?:i|i've|i have|we|we've)(?: just| now| also)? $/;

/** So many words behind a charge it is said how far it went. */
const SAID_WITHIN = 12;
/** "I charged it to 80 percent". */
const isPartCharge = ({ quantities, tokens }: Said, from: number, to: number) =>
  quantities.some(
    (each) =>
      each.unit === "%" &&
      each.from >= from &&
      each.from - to < SAID_WITHIN &&
      each.value < FULL &&
      tokens[each.from - 1]?.word === "to" &&
      !breaks(tokens, to - 1, each.from),
  );

/** Everything in a text that happens, or that the weather does. */
export function eventsOf(said: Said): readonly Event[] {
  const out: Event[] = [];
  for (const { kind, value, says, unless, allow, because } of EVENTS)
    for (const match of said.script.matchAll(says)) {
      const from = said.tokenAt(match.index);
      const to = said.tokenAt(match.index + match[0].length - 1) + 1;
      const around = said.around(from, to);
      if (unless?.test(around.sentence)) continue;
      if (kind === "full_charge" && isPartCharge(said, from, to)) continue;
      // "I've dropped it into low": chosen, not forced.
      if (kind === "low_power" && CHOSEN.test(match[0]) && BY_RIDER.test(around.before)) continue;
      // "Dead quiet", "it quits blinking".
      if (kind === "cut_off" && NO_END.test(around.after)) continue;
      if (value === "head" && /^(from the (side|left|right)|sideways|across)/.test(around.after)) continue;
      const reason = NOT_YET.test(around.before) ? REASONS.plan : killed(around, allow ? { allow } : {});
      out.push({ from, to, reason, found: reason ? null : { kind, value, unit: null, because } });
    }
  return out;
}

const LOST = new RegExp(
  [
    String.raw`\b(?:lost|dropped|used up|down|gone through|losing|lose)(?: about| just| only| now)? (?:my |our |the |its )?(a bar|a light|a segment|one bar|one light|one\b|another(?: bar| light| one)?|my first(?: one| bar| light)?|(?:first|second|third|fourth|fifth|sixth|seventh|eighth|next|last but one)(?: one| bar| light)?|the next(?: one| bar| light)?)`,
    String.raw`\b((?:my |the |your |its |our |there's |and )?(?:first|second|third|fourth|fifth|sixth|seventh|eighth|next|last but one|another|number #?|one|a) ?(?:bar|light|segment|one)?)(?: has| is| just|'s)*(?: just| now)? ?(?:gone|went|dropped|drops|disappeared|lost|left me|vanished|goes)\b`,
    String.raw`\bthere (?:goes|went) (?:my |the |your |another |a )*(bar|yours|mine|(?:first|second|third|fourth|fifth|sixth|next) ?(?:bar|light|segment|one)?|one|another)`,
    String.raw`\b(bar (?:number )?#)(?: has| is| just|'s)* (?:gone|out|down|dropped|lost|disappeared)`,
    String.raw`\b(?:lost|dropped|losing) (bar (?:number )?#)`,
    String.raw`\b(another (?:bar|one)) (?:gone|lost|down)`,
    String.raw`\b(?:lost|dropped) (# of (?:the|my|its) (?:little |green )?(?:bars|lights|segments))`,
    String.raw`\bthere's number one (gone)`,
    String.raw`\bone of (?:my|the|its) (bars|lights|segments)(?: has| is| just|'s)* (?:gone|out|lost|disappeared)`,
    String.raw`\b(?:cost|costs|took)(?: me| us| it)? (a bar|another bar|another one|one bar|my (?:first|second|third|fourth) bar)`,
  ].join("|"),
  "g",
);
const NO_BAR =
  /\b(ride|lap|test|bike|hill|run|day|week|hour|mile|model|pack|climb|hasn't|haven't|not|no|never)\b(?!.*\b(bar|bars)\b)/;

/** "Two bars to one bar": the bars between went. */
const barsBetween = ({ quantities, around }: Said): readonly Event[] =>
  quantities
    .filter(({ unit, began, value }) => unit === "bar" && began !== null && began > value)
    .map(({ from, to, value, began }) => {
      const reason = killed(around(from, to));
      return {
        ...{ from, to: from + 1, reason },
        found: reason
          ? null
          : {
              kind: "bar_lost" as const,
              value: (began ?? value) - value,
              unit: null,
              because: "bars that went on the way",
            },
      };
    });

/** Bars that went, said without a figure of their own. */
export function barsLost(said: Said): readonly Event[] {
  const out: Event[] = [...barsBetween(said)];
  for (const match of said.script.matchAll(LOST)) {
    const from = said.tokenAt(match.index);
    const to = said.tokenAt(match.index + match[0].length - 1) + 1;
    const around = said.around(from, to);
    // "The second one goes way quicker": as a rule.
    if (
      /(?:goes|drops)$/.test(match[0]) &&
      /^(?:way|quicker|faster|much|always|a lot|first)\b/.test(around.after)
    )
      continue;
    const barNear =
      /\b(bars?|#_bar)\b/.test(`${around.earlier} ${around.sentence}`) ||
      /bar|lights|segments/.test(said.script.slice(Math.max(0, match.index - 400), match.index)) ||
      (/light|segment/.test(match[0]) && /#_bar|battery|gauge/.test(said.script.slice(0, match.index)));
    if (
      !barNear ||
      NO_BAR.test(match[0]) ||
      /^(ride|lap|test|bike|hill|run|day|week|hour|mile|model|pack|climb|of the(?! (?:bars|lights|segments))|percent|every|each|per)\b/.test(
        around.after,
      )
    )
      continue;
    const reason = killed(around, { allow: ["otherBike"] });
    out.push({
      from,
      to,
      reason,
      found: reason
        ? null
        : {
            kind: "bar_lost",
            value: 1,
            unit: null,
            because: "a bar that went",
            ...(/\b(another|second|third|fourth|fifth|next)\b/.test(match[0]) && { anew: true }),
            ...(/\byours?\b/.test(match[0]) && { of: "yours" as const }),
          },
    });
  }
  return out;
}
