/**
 * A title as a file's name, for any system: letters and digits of any script, strokes between.
 *
 * @example fileName("Levee / run: 2", "csv") === "Levee-run-2.csv"
 */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize("NFC")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "");
  return `${[...plain].slice(0, 80).join("") || "test"}.${ending}`;
}
