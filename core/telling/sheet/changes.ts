import { estimateToken, halfWidth95 } from "#core/base";
import { figuresOf, type SheetDocument } from "./document.ts";

/** A figure moves the eye when it moved by this part of its plus-or-minus. */
const SEEN = 0.02;

/** Every text of a page that is not a figure, in order. */
function textsOf({ title, line, sections }: SheetDocument): readonly string[] {
  return [
    title,
    line,
    ...sections.flatMap(({ blocks }) =>
      blocks.flatMap((block): readonly string[] => {
        if (block.kind === "text") return [block.text];
        if (block.kind === "list") return block.items;
        if (block.kind === "lines") return block.lines.map(({ label, text }) => `${label}: ${text}`);
        if (block.kind === "table") return block.rows.map((row) => row.join(", "));
        return block.kind === "words" ? [block.markdown] : [];
      }),
    ),
  ];
}

/**
 * What has changed on a page since it was published, in sentences: figures that moved, sentences that came or went, a title.
 *
 * @returns empty when all stands as it was
 */
export function changesSince(published: SheetDocument, now: SheetDocument): readonly string[] {
  const before = new Map(figuresOf(published).map((figure) => [figure.key, figure]));
  const after = new Map(figuresOf(now).map((figure) => [figure.key, figure]));
  const moved = [...after.values()].flatMap(({ key, value, dimension, says }) => {
    const was = before.get(key);
    if (!was) return [`New: ${estimateToken(value, dimension)}, ${says}.`];
    const by = Math.abs(was.value.mean - value.mean) + Math.abs(halfWidth95(was.value) - halfWidth95(value));
    return by > SEEN * halfWidth95(value)
      ? [`${estimateToken(was.value, dimension)} is ${estimateToken(value, dimension)} now: ${says}.`]
      : [];
  });
  const gone = [...before.values()]
    .filter(({ key }) => !after.has(key))
    .map(({ value, dimension, says }) => `Gone: ${estimateToken(value, dimension)}, ${says}.`);
  const [then, today] = [new Set(textsOf(published)), new Set(textsOf(now))];
  const came = [...today].filter((text) => !then.has(text));
  const left = [...then].filter((text) => !today.has(text));
  return [
    ...moved,
    ...gone,
    ...left.map((text) => `No longer said: ${text}`),
    ...came.map((text) => `Said now: ${text}`),
  ];
}
