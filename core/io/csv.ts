import { stringify } from "csv-stringify/browser/esm/sync";

/**
 * A table as CSV, with its headings: UTF-8, commas, lines ended as the standard has them (RFC 4180). A cell that a spreadsheet
 * would take for a formula is made plain text by an apostrophe before it.
 *
 * @param rows each with the same keys, which become the headings; @returns the headings alone for none
 */
export function writeCsv(
  rows: readonly Readonly<Record<string, string | number>>[],
  headings: readonly string[] = Object.keys(rows[0] ?? {}),
): string {
  return stringify([...rows], {
    header: true,
    columns: [...headings],
    escape_formulas: true,
    record_delimiter: "windows",
  });
}
