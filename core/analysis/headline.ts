import { nth } from "#core/base";
import type { Result, Estimate } from "#core/base";
import type { TestResults } from "./types.ts";

/** What a list shows of a test. */
export interface Headline {
  /** Wh per metre as ridden; null while it cannot be reckoned. */
  readonly whPerM: Estimate | null;
  /** Readings in question. */
  readonly questions: number;
  /** What waits for a person's judgement; null when nothing does. */
  readonly waits: string | null;
  readonly hasEnd: boolean;
}

/** What a test waits for, in a sentence or two; null when it waits for nothing. */
function waitsFor({ flags, odometer, end }: TestResults): string | null {
  const sentences = [
    flags.length === 1
      ? nth(flags, 0).sentence
      : flags.length > 1
        ? `${flags.length} readings look off.`
        : "",
    end.reason === null ? "No end chosen: say how the test ended." : "",
    odometer?.warn ? "The display's distance is off by more than 3 %: check the wheel setting." : "",
  ].filter(Boolean);
  return sentences.length ? sentences.join(" ") : null;
}

/** A test's headline for lists, from its results or from why it has none. */
export function headlineOf(result: Result<TestResults>): Headline {
  if (!result.ok)
    return {
      whPerM: null,
      questions: 0,
      waits:
        result.problems.find(({ code }) => code === "no-reading")?.sentence ??
        "No check-ins yet: add the start and what followed.",
      hasEnd: false,
    };
  const { best, flags, end } = result.value;
  return {
    whPerM: best.value,
    questions: flags.length,
    waits: waitsFor(result.value),
    hasEnd: end.reason !== null,
  };
}
