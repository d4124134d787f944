import type { PhrasingContent, RootContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";

/** A run of letters in a paragraph. */
export interface Run {
  readonly text: string;
  readonly strong?: true;
  readonly slanted?: true;
  /** An address on the web or of a letter; no other is followed. */
  readonly to?: string;
}

/** A tester's own words as they are set: paragraphs, headings, items of a list. */
export interface Words {
  readonly as: "paragraph" | "heading" | "item" | "quote";
  readonly runs: readonly Run[];
}

const SAFE = /^(https?:|mailto:)/i;

function runsOf(nodes: readonly PhrasingContent[], style: Omit<Run, "text"> = {}): readonly Run[] {
  return nodes.flatMap((node): readonly Run[] => {
    switch (node.type) {
      case "text":
      case "inlineCode":
      case "html":
        return [{ text: node.value, ...style }];
      case "break":
        return [{ text: "\n", ...style }];
      case "strong":
        return runsOf(node.children, { ...style, strong: true });
      case "emphasis":
        return runsOf(node.children, { ...style, slanted: true });
      case "link":
        return runsOf(node.children, SAFE.test(node.url) ? { ...style, to: node.url } : style);
      case "image":
        return node.alt ? [{ text: node.alt, ...style }] : [];
      default:
        return "children" in node ? runsOf(node.children, style) : [];
    }
  });
}

function wordsOf(nodes: readonly RootContent[], as: Words["as"] = "paragraph"): readonly Words[] {
  return nodes.flatMap((node): readonly Words[] => {
    switch (node.type) {
      case "paragraph":
        return [{ as, runs: runsOf(node.children) }];
      case "heading":
        return [{ as: "heading", runs: runsOf(node.children) }];
      case "list":
        return node.children.flatMap(({ children }) => wordsOf(children, "item"));
      case "blockquote":
        return wordsOf(node.children, "quote");
      case "code":
      case "html":
        return [{ as, runs: [{ text: node.value }] }];
      default:
        return [];
    }
  });
}

/** Quotes and lists within each other in one line, and lines of one piece that the parser reads. */
const DEEPEST = 6;
const MOST_LINES = 60;
/** Marks and lines of a whole text that are read as Markdown: a person's words have fewer, and the rest stays as typed. */
const MOST_MARKS = 1000;
const MOST_LINES_IN_ALL = 400;

/** What a line is within: quotes and lists, by the signs it begins with. */
const CONTAINERS = /^(?:[ \t]*(?:>|[-*+](?=[ \t]|$)|\d{1,9}[.)](?=[ \t]|$)))*/;
const depthOf = (line: string): number => (CONTAINERS.exec(line)![0].match(/>|[-*+]|\d+[.)]/g) ?? []).length;
const isIndentedDeep = (line: string) => /^[ \t]{24}/.test(line);

const marksIn = (block: string): number => (block.match(/[*_[\]`<>!&\\~#+-]/g) ?? []).length;

/** A text in pieces that can be read one by one: at empty lines, and a long list after so many lines. */
function blocksOf(markdown: string): readonly string[] {
  return markdown.split(/\n(?:[ \t]*\n)+/).flatMap((block) => {
    const lines = block.split("\n");
    if (lines.length <= MOST_LINES) return block.trim() ? [block] : [];
    return Array.from({ length: Math.ceil(lines.length / MOST_LINES) }, (_, i) =>
      lines.slice(i * MOST_LINES, (i + 1) * MOST_LINES).join("\n"),
    );
  });
}

/** Letters that the parser reads at a time. */
const PIECE = 1000;

/**
 * Blocks joined to pieces that the parser reads quickly, and by themselves those that it is not given: its time grows with the square
 * and the cube of signs within signs.
 */
function piecesOf(markdown: string) {
  const pieces: { text: string; readonly prose: boolean }[] = [];
  let [marks, lines] = [0, 0];
  for (const text of blocksOf(markdown)) {
    const own = text.split("\n");
    marks += marksIn(text);
    lines += own.length;
    const prose =
      marks <= MOST_MARKS &&
      lines <= MOST_LINES_IN_ALL &&
      own.every((line) => depthOf(line) <= DEEPEST && !isIndentedDeep(line));
    const last = pieces.at(-1);
    if (prose && last?.prose && last.text.length + text.length < PIECE) last.text += `\n\n${text}`;
    else pieces.push({ text, prose });
  }
  return pieces;
}

/**
 * Markdown as the words that screen and paper set alike. What is no text of Markdown, such as tags, stays as typed; so does a block
 * of signs that nobody writes, such as a thousand quotes within each other.
 *
 * @example readMarkdown("It *creaks*.") is one paragraph of the runs "It ", "creaks" (slanted) and "."
 */
export const readMarkdown = (markdown: string): readonly Words[] =>
  piecesOf(markdown).flatMap(({ text, prose }): readonly Words[] =>
    prose ? wordsOf(fromMarkdown(text).children) : [{ as: "paragraph", runs: [{ text }] }],
  );
