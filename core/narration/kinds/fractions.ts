import type { Said } from "../context.ts";
import { killed } from "../kills.ts";
import type { Event } from "./events.ts";

/** Charge said as a part of the whole, in percent. */
const PARTS: readonly (readonly [words: RegExp, percent: number])[] = [
  [/three quarters?/, 75],
  [/two thirds?/, 67],
  [/half/, 50],
  [/third/, 33],
  [/quarter/, 25],
];
const SAID =
  /\b((?:the |my )?(?:battery|gauge|indicator|needle|charge|pack|symbol|meter)(?:'s| is| stands| sits| reads| shows| says| has| at| on| still| down| to| now| about| roughly| around| only| just| exactly| a| the| last)* (?:three quarters|two thirds|half|third|quarter)\b|(?:a |about |roughly |the last |exactly |last )*(?:three quarters|two thirds|half|third|quarter) (?:of (?:the|my) (?:battery|charge|pack|gauge|capacity)|(?:the )?battery|charge) ?(?:left|remaining|still|now|gone|used|has gone|is gone|has been used)?)/g;

/** Charge as a fraction: "the indicator stands at a third". */
export function fractionsOf(said: Said): readonly Event[] {
  return [...said.script.matchAll(SAID)].map((match) => {
    const [words] = match;
    const from = said.tokenAt(match.index);
    const to = said.tokenAt(match.index + words.length - 1) + 1;
    const around = said.around(from, to);
    const reason = killed(around);
    const value = PARTS.find(([part]) => part.test(words))?.[1] ?? 0;
    const kind =
      /(gone|used)\s*$/.test(words) ||
      /\b(used|lost|burnt|took|cost|gone through)( up| me)?( about| roughly| around)? $/.test(around.before)
        ? ("percent_used" as const)
        : ("percent_left" as const);
    return {
      ...{ from, to, reason, approx: true },
      found: reason || value === 0 ? null : { kind, value, unit: "%", because: "a part of the charge" },
    };
  });
}
