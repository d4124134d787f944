import type { Quantity } from "./quantities.ts";
import type { Token } from "./tokens.ts";

/** These begin anew. */
const RESTARTS = new Set([
  "so",
  "okay",
  "ok",
  "but",
  "now",
  "right",
  "anyway",
  "alright",
  "oh",
  "yeah",
  "yep",
]);
const SUBJECTS = new Set([
  "it's",
  "that's",
  "there's",
  "we're",
  "i'm",
  "we've",
  "i've",
  "here's",
  "they're",
  "she's",
  "he's",
  "battery's",
  "gauge's",
  "display's",
  "voltage's",
  "pulse's",
  "temperature's",
  "range's",
]);
/** The same in two words: "we are", "battery is", "we just". */
const SUBJECT_OF_TWO =
  /^(?:(?:we|i|it|that|there|here|battery|voltage|gauge|display|speed|range) (?:are|am|is|have|has|was|just|goes|comes)|(?:quick|another|next|last|first) (?:update|check|report)|back (?:on|in|into|to)|(?:i|we|it|she) (?:did|hit|used)|heart rate(?:'s)?|top speed|total (?:climb|climbing|time|distance|elevation|ascent|miles)|(?:moving|ride|riding) time|average speed|(?:level|pas|assist|lap) (?:one|two|three|four|five|six|seven|eight|nine|\d)|p a|rolling again|round (?:one|two|three|four))$/;
/** What closes a statement: what comes after it is of something else. */
const CLOSES =
  /(?:(?:which|so|well|but|and|yeah|guess) we'll see|we'll see (?:about that|how (?:it|she|he|that) (?:goes|does|holds up|works out))|(?:i )?don't (?:buy|think so|know about that|believe (?:it|that))|are you kidding(?: me)?|you know|or whatever|come on|no way|just kidding|no i didn't|by the way|(?:let's |we'll )?see how (?:far|long) .{0,14}(?:get|goes|go|lasts|last|does)|used to (?:do|be) (?:that|this|so|it)|that's what .{0,24}(?:will|does|can) do)$/;
/** Words that govern no figure: one right behind them begins anew. "... the top speed for the day | 15 miles". */
const GOVERNS_NONE = new Set(
  "day today then here again way road hill bottom bridge path trail time though too also anyway man guys folks everybody everyone sure good nice great fine bad fast slow easy hard yet already either wow wind breeze weather know whatever thing things stuff honest lie fun cold hot dry wet corner section bit lights light water park house truck van car camp lunch coffee second minute moment everything nothing something someone finally obviously basically literally please thanks long trying die died question doubt happy wild crazy nuts insane unreal awesome terrible tired cheap pretty lovely impressive impressed work office evening morning monday tuesday wednesday thursday friday saturday sunday cool perfect hands legs knees loop circuit start home bike school shops patient sand gravel grass dirt walk changed anymore altogether afterwards".split(
    " ",
  ),
);
/** "Out there", "back there". */
const AWAY = new Set(["out", "up", "down", "over", "back"]);
const GOVERNS = new Set(
  "if when until till unless whether think thinks hope says said say reckon reckons estimates shows means promises guess bet sure once where what how before that maybe like because".split(
    " ",
  ),
);
/** "So far" and "the range now says" go on. */
const GOES_ON = /^(so far|now (says|shows|reads|is|has|at|down|up|estimates|reckons|thinks|claims|stands))$/;

/** Somebody else is spoken of, even right behind a figure: "51 percent my wife's bike would". */
const ANOTHER =
  /^(?:yesterday (?:i|we|it|that|he|she)\b|last (?:time|week|month|year) (?:i|we|it|with|without|when|this|round|around|out|on)\b|last (?:year|week|month)'s|my (?:wife|husband|buddy|friend|brother|sister|dad|mom|mate|neighbou?r|son|daughter|old|other|last)(?:'s)?(?: |$)|(?:somebody|someone|people) in |(?:a|some) (?:guy|chap|lady|friend|dude|bloke|fella|fellow|kid|man|woman|colleague|gentleman|rider|stranger)(?: |$))/;
const ANOTHER_FIRST = new Set(["yesterday", "last", "my", "somebody", "someone", "people", "a", "some"]);
/** The last words of what closes a statement. */
const CLOSING = new Set(
  "see that goes does up out holds buy so believe it me kidding know whatever on way do kidding didn't get goes go lasts last does".split(
    " ",
  ),
);
/** As many words as the longest of what closes one. */
const CLOSING_WORDS = 8;
const BEFORE_SPEED = new Set("top max maximum average moving riding highest".split(" "));
const LEVELS = new Set(["level", "pas", "assist", "p", "lap"]);
const INTO_LEVEL = new Set(
  "in to on at into onto up down of the pedal power from with for and or same".split(" "),
);
/** "Back then I used": not of this ride. */
const OTHER_TIMES = new Set([
  "back then",
  "last time",
  "last year",
  "last week",
  "last month",
  "last summer",
  "the summer",
  "the spring",
]);
/** "Pulse is back to 95": one statement; and "the figure on the display is". */
const LEADS_BACK = new Set(
  "is it's was are i'm we're come comes came go goes went going get gets got put right straight all settled settles and".split(
    " ",
  ),
);
const SHOWN_ON = new Set(["on", "by", "of", "in"]);
const SELF = new Set(["my", "i", "people", "his", "hers"]);
const BEFORE_SELF = new Set([
  "is",
  "was",
  "like",
  "on",
  "of",
  "what",
  "that",
  "and",
  "by",
  "with",
  "to",
  "in",
  "at",
  "than",
  "if",
]);

/** Where statements begin and end in speech that was written down without stops. */
export interface Borders {
  /** Whether one begins at a token, looked at from a place so many tokens after it. */
  begins(at: number, tokensAfter: number): boolean;
  /** Whether one has ended before a token, looked at from a place so many tokens before it. */
  ends(at: number, tokensBefore: number): boolean;
}

const RESTART = 1;
const SUBJECT = 2;
const CLOSED = 4;
const FIGURE = 8;
const OTHER = 16;
const OWN = 32;

export function bordersOf(tokens: readonly Token[], quantities: readonly Quantity[]): Borders {
  const figures = new Set(
    quantities.filter(({ unit, exact }) => unit !== null || exact).map(({ from }) => from),
  );
  const some = (from: number, to: number) =>
    tokens
      .slice(Math.max(0, from), to)
      .map(({ word }) => word)
      .join(" ");
  const marks = Uint8Array.from(tokens, ({ word }, at) => {
    const last = tokens[at - 1]?.word ?? "";
    const two = `${word} ${tokens[at + 1]?.word ?? ""}`;
    // A new subject begins a new statement, unless what comes before it governs it: "if it's".
    // "Top speed was": it began a word before.
    const isSubject =
      !(word === "speed" && BEFORE_SPEED.has(last)) &&
      !(LEVELS.has(word) && INTO_LEVEL.has(last)) &&
      !(word === "back" && LEADS_BACK.has(last)) &&
      !(last === "the" && SHOWN_ON.has(tokens[at - 2]?.word ?? "")) &&
      !OTHER_TIMES.has(`${tokens[at - 2]?.word ?? ""} ${last}`) &&
      last !== "yesterday" &&
      (SUBJECTS.has(word) || SUBJECT_OF_TWO.test(two)) &&
      !GOVERNS.has(last);
    return (
      (RESTARTS.has(word) && !GOES_ON.test(two) ? RESTART : 0) |
      (isSubject ? SUBJECT : 0) |
      (CLOSING.has(last) && CLOSES.test(some(at - CLOSING_WORDS, at)) ? CLOSED : 0) |
      (figures.has(at) &&
      (GOVERNS_NONE.has(last) || (last === "there" && AWAY.has(tokens[at - 2]?.word ?? "")))
        ? FIGURE
        : 0) |
      (ANOTHER_FIRST.has(word) && ANOTHER.test(some(at, at + 3)) ? OTHER : 0) |
      (SELF.has(word) && !BEFORE_SELF.has(last) ? OWN : 0)
    );
  });
  return {
    begins(at, tokensAfter) {
      const mark = marks[at] ?? 0;
      return (
        (mark & (CLOSED | FIGURE | SUBJECT)) !== 0 ||
        ((mark & RESTART) !== 0 && (tokensAfter > 1 || figures.has(at + 1)))
      );
    },
    ends(at, tokensBefore) {
      const mark = marks[at] ?? 0;
      return (
        (mark & (RESTART | CLOSED | OTHER)) !== 0 || ((mark & (SUBJECT | OWN)) !== 0 && tokensBefore > 0)
      );
    },
  };
}
