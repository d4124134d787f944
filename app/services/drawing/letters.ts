/** Letters of the shipped font are about so wide, of their size. */
const LETTER = 0.49;

const most = (width: number, size: number) => Math.max(4, Math.floor(width / (LETTER * size)));

/** A text cut where it would not fit, with a sign that it goes on. */
export function fitting(text: string, width: number, size: number): string {
  const count = most(width, size);
  return text.length <= count ? text : `${text.slice(0, count - 1).trimEnd()}…`;
}

/**
 * A text in lines that fit a width, cut after the last line there is room for.
 *
 * @example wrapped("one two three", 40, 10, 2) is ["one two", "three"]
 */
export function wrapped(text: string, width: number, size: number, lines: number): readonly string[] {
  const count = most(width, size);
  const found: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = found.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= count)
      found[found.length - 1] = `${last} ${word}`;
    else found.push(word);
  }
  if (found.length <= lines) return found.map((line) => fitting(line, width, size));
  return [...found.slice(0, lines - 1), fitting(found.slice(lines - 1).join(" "), width, size)];
}
