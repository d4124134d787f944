import type { Said } from "../context.ts";
import { killed } from "../kills.ts";
import type { Event } from "./events.ts";

/** Parts of the whole, in percent. */
const PARTS: readonly (readonly [words: RegExp, percent: number])[] = [
  [/half/, 100 / 2],
  [/third/, 100 / 3],
  [/quarter/, 100 / 4],
];
const SAID =
  /(?<![\w#])((?:the |my )?(?:battery|gauge|indicator|needle|charge|pack|symbol|meter)(?:'s| is| stands| sits| reads| shows| says| has| at| on| still| down| to| now| about| roughly| around| only| just| exactly| a| the| last)* (?:# quarters?|# thirds?|half|third|quarter)\b|(?:a |about |roughly |the last |exactly |last )*(?:# quarters?|# thirds?|half|third|quarter) (?:of (?:the|my) (?:battery|charge|pack|gauge|capacity)|(?:the )?battery|charge) ?(?:left|remaining|still|now|gone|used|has gone|is gone|has been used)?)/g;

/** Charge as a fraction: "the indicator stands at a third". */
export function fractionsOf(said: Said): readonly Event[] {
  return [...said.script.matchAll(SAID)].map((match) => {
    const [words] = match;
    const from = said.tokenAt(match.index);
    const to = said.tokenAt(match.index + words.length - 1) + 1;
    const around = said.around(from, to);
    const reason = killed(around);
    const part = PARTS.find(([name]) => name.test(words))?.[1] ?? 0;
    // "Two thirds", "three quarters": so many of them.
    const many = said.quantities.find((each) => each.from >= from && each.to <= to)?.value ?? 1;
    const value = Math.round(part * many);
    const kind =
      /(gone|used)\s*$/.test(words) ||
      /\b(used|lost|burnt|took|cost|gone through)( up| me)?( about| roughly| around)? $/.test(around.before)
        ? ("percent_used" as const)
        : ("percent_left" as const);
    return {
      ...{ from, to, reason, approx: true },
      found:
        reason || value === 0 || value > 100
          ? null
          : { kind, value, unit: "%", because: "a part of the charge" },
    };
  });
}
