import type { DeskLine } from "./desks.ts";
import type { KindLine } from "./kinds.ts";
import type { TrialFigure } from "./trial.ts";

/** What a whole trial found. */
export interface TrialFound {
  readonly kinds: readonly KindLine[];
  readonly desks: readonly DeskLine[];
  readonly figures: readonly TrialFigure[];
}

const shown = (value: number | null) => (value === null ? "" : (100 * value).toFixed(1));

/** Where a cell holds a figure of the first model and one of now, the last is now's. */
const now = (cell: string) => cell.split(", ").at(-1) ?? "";

/** Rows of a page's tables by their first cell. */
function rowsOf(page: string): ReadonlyMap<string, readonly string[]> {
  const rows = page.split("\n").filter((line) => line.startsWith("|"));
  return new Map(
    rows.map((line) => {
      const [name = "", ...cells] = line
        .slice(1, line.lastIndexOf("|"))
        .split("|")
        .map((cell) => cell.trim());
      return [name, cells];
    }),
  );
}

/**
 * Where the tables of docs/method.md say otherwise than a whole trial found: a sentence for each row; empty when every figure
 * is as printed.
 *
 * @param page the text of docs/method.md
 */
export function differsFromPage(page: string, { kinds, desks, figures }: TrialFound): readonly string[] {
  const rows = rowsOf(page);
  const compare = (
    name: string,
    found: readonly string[],
    cells: (row: readonly string[]) => readonly string[],
  ) => {
    const row = rows.get(name);
    if (!row) return [`docs/method.md has no row for ${name}.`];
    const says = cells(row).slice(0, found.length);
    return says.join(" | ") === found.join(" | ")
      ? []
      : [`${name}: docs/method.md says ${says.join(" | ")}, found ${found.join(" | ")}.`];
  };
  return [
    ...kinds.flatMap((line) =>
      compare(
        line.kind,
        [
          ...[
            line.covers,
            line.capacityCovers,
            line.best,
            line.plain,
            line.half,
            line.slips,
            line.honest,
          ].map(shown),
          `${shown(line.left35)}, ${shown(line.left70)}`,
        ],
        (row) => [...row.slice(0, 7).map(now), row[7] ?? ""],
      ),
    ),
    ...desks.flatMap((line) =>
      compare(
        line.name,
        [
          line.covers,
          line.half,
          line.error,
          line.plainError,
          line.order,
          line.plainOrder,
          line.sure,
          line.sureRight,
        ].map(shown),
        (row) => row,
      ),
    ),
    ...figures.flatMap(({ what, value, of }) =>
      compare(what, [`${shown(value)} %`, String(of)], (row) => row),
    ),
  ];
}
