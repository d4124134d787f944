import { formatUncertain, renderUnits, type System } from "#core/base";
import type { SheetBlock, SheetDocument } from "./document.ts";

/** A cell of a Markdown table holds no stroke and no line break. */
const cell = (text: string) => text.replaceAll("|", "\\|").replace(/\s*\n\s*/g, " ");

/** @param under heading of its section, which a table's caption does not say again */
function blockText(
  block: SheetBlock,
  say: (text: string) => string,
  system: System,
  under: string | null,
): string {
  switch (block.kind) {
    case "figures":
      return block.figures
        .map(
          ({ value, dimension, says }) => `- **${formatUncertain(value, dimension, system)}** ${say(says)}`,
        )
        .join("\n");
    case "text":
      return say(block.text);
    case "list":
      return block.items.map((item) => `- ${say(item)}`).join("\n");
    case "lines":
      return block.lines
        .map(({ label, text }) => (label ? `- **${say(label)}**: ${say(text)}` : `  ${say(text)}`))
        .join("\n");
    case "table": {
      const caption = block.caption && block.caption !== under ? [`**${say(block.caption)}**`, ""] : [];
      const table = [
        block.headings,
        block.headings.map(() => "---"),
        ...block.rows.map((row) => row.map(say)),
      ].map((row) => `| ${row.map(cell).join(" | ")} |`);
      return [...caption, ...table].join("\n");
    }
    case "drawing":
      return `_${block.shows}_`;
    case "words":
      return block.markdown.trim();
    case "photographs":
      return block.photographs
        .map(({ caption }) => `_Photograph${caption ? `: ${caption}` : ""}_`)
        .join("\n\n");
    case "address":
      return `Figures, log and method: <${block.address}>`;
  }
}

/** A page as Markdown, for an article. */
export function sheetMarkdown({ title, line, sections }: SheetDocument, system: System): string {
  const say = (text: string) => renderUnits(text, system);
  return [
    `# ${title}`,
    say(line),
    ...sections.flatMap(({ heading, blocks }) => [
      ...(heading ? [`## ${heading}`] : []),
      ...blocks.map((block) => blockText(block, say, system, heading)),
    ]),
  ]
    .join("\n\n")
    .concat("\n");
}
