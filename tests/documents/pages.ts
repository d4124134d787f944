import { readFileSync } from "node:fs";

/** A page of the documents as it stands. */
export const pageText = (file: string): string => readFileSync(file, "utf8");

/** Rows of the tables of a page, cell by cell; the lines under headings are none. */
export function tableRows(text: string): readonly (readonly string[])[] {
  return text
    .split("\n")
    .filter((line) => line.startsWith("|") && !/^[|\s:-]+$/.test(line))
    .map((line) =>
      line
        .slice(1, line.lastIndexOf("|"))
        .split(/(?<!\\)\|/)
        .map((cell) => cell.trim()),
    );
}

/** What stands between back-ticks. */
export const ticked = (cell: string): readonly string[] =>
  [...cell.matchAll(/`([^`]+)`/g)].map(([, inner = ""]) => inner);

/** A page on one line, so that sentences are found wherever their lines are broken. */
export const flat = (text: string): string => text.replace(/\s+/g, " ");
