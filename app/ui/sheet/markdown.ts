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

/**
 * Markdown as the words that screen and paper set alike. What is no text of Markdown, such as tags, stays as typed.
 *
 * @example readMarkdown("It *creaks*.") is one paragraph of the runs "It ", "creaks" (slanted) and "."
 */
export const readMarkdown = (markdown: string): readonly Words[] => wordsOf(fromMarkdown(markdown).children);
