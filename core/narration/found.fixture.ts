import { describe, expect, test } from "@jest/globals";
import { readNarration, type Item, type Narration } from "./index.ts";

/** A text read, as its only piece. */
export function readPlain(text: string, unit?: "mi" | "km"): Narration {
  const found = readNarration(text, { format: "plain", ...(unit && { unit }) });
  if (!found.ok) throw new Error("not read");
  return found.value;
}

const shown = ({ kind, value }: Item) => `${kind} ${Array.isArray(value) ? value.join("-") : String(value)}`;

/** Everything that is proposed of a text, in the order it was said. */
export function foundIn(text: string, unit?: "mi" | "km"): string {
  const { items, setUp } = readPlain(text, unit);
  return [...items, ...setUp]
    .sort((a, b) => a.place.piece - b.place.piece || a.place.from - b.place.from)
    .map(shown)
    .join(", ");
}

/** Texts of one sort, each with all that is found in it. */
export const family = (name: string, cases: readonly (readonly [text: string, expected: string])[]) =>
  describe(name, () => {
    test.each(cases)("%s", (text, expected) => expect(foundIn(text)).toBe(expected));
  });
