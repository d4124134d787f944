import { parseNumber } from "#core/base";
import type { ReadingCells } from "./readings.ts";

/** A table as it is shown: headings, and rows of texts. */
export interface ShownTable {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** A figure as cells show it: "14.4", "14.4 ± 0.7", "14.4 ± 0.7 Wh/mi", "−4.5 ± 1.3", "69 %". */
const FIGURE = /^([−+-]?[\d.,]+)(?:\s*±\s*([\d.,]+))?(?:\s+([^\d\s±][^\d±]*))?$/;

interface Figure {
  readonly value: number;
  readonly by: number | null;
  readonly unit: string;
}

const numberOf = (text: string): number | null => {
  const value = parseNumber(text.replace("−", "-").replace("+", ""), true);
  return typeof value === "number" ? value : null;
};

function figureOf(cell: string): Figure | null {
  const found = FIGURE.exec(cell.trim());
  const value = found ? numberOf(found[1] ?? "") : null;
  if (!found || value === null) return null;
  const by = found[2] === undefined ? null : numberOf(found[2]);
  return { value, by, unit: (found[3] ?? "").trim() };
}

/** Headings that tell apart: empty ones get a number, a second of one name as well. */
function told(headings: readonly string[]): readonly string[] {
  const seen = new Map<string, number>();
  return headings.map((heading, i) => {
    const name = heading.trim() || `column ${i + 1}`;
    const times = (seen.get(name) ?? 0) + 1;
    seen.set(name, times);
    return times === 1 ? name : `${name} ${times}`;
  });
}

/**
 * A shown table as rows to be taken away: where every filled cell of a column is a figure in one unit, numbers are numbers, the
 * unit stands in the heading and the plus-or-minus in a column of its own; all else stays the text it is.
 *
 * @example headings ["Bike", "Use"], row ["Tarrick Fold", "13 ± 3 Wh/mi"] is { Bike: "Tarrick Fold", "Use, Wh/mi": 13, "Use ±, Wh/mi": 3 }
 */
export function shownRows({ headings, rows }: ShownTable): readonly ReadingCells[] {
  const columns = told(headings).map((heading, column) => {
    const cells = rows.map((row) => (row[column] ?? "").trim());
    const figures = cells.map((cell) => (cell === "" ? null : figureOf(cell)));
    const units = new Set(figures.flatMap((figure) => (figure ? [figure.unit] : [])));
    const allFigures = units.size === 1 && cells.every((cell, i) => cell === "" || figures[i] !== null);
    const [unit = ""] = units;
    const named = (name: string) => (unit === "" ? name : `${name}, ${unit}`);
    const doubted = figures.some((figure) => typeof figure?.by === "number");
    return (i: number): ReadingCells => {
      if (!allFigures) return { [heading]: cells[i] ?? "" };
      const figure = figures[i];
      return {
        [named(heading)]: figure?.value ?? "",
        ...(doubted && { [named(`${heading} ±`)]: figure?.by ?? "" }),
      };
    };
  });
  return rows.map((_, i) => Object.assign({}, ...columns.map((cellsAt) => cellsAt(i))) as ReadingCells);
}

/** Rows as text that a mail or a sheet of cells takes: tabs between cells, headings first. */
export function tabbedText(rows: readonly ReadingCells[]): string {
  const headings = Object.keys(rows[0] ?? {});
  const plain = (cell: string | number | undefined) => String(cell ?? "").replace(/\s+/g, " ");
  return [headings, ...rows.map((row) => headings.map((heading) => plain(row[heading])))]
    .map((cells) => cells.join("\t"))
    .join("\n");
}
