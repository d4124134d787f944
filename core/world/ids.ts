/** Ids in a row, of the shape of a UUIDv7: the same seed and start make the same entries. */
export function idsFrom(seed: number, start: string): () => string {
  let count = 0;
  const stem = (seed >>> 0).toString(16).padStart(8, "0");
  return () =>
    `${start}${stem.slice(0, 4)}-${stem.slice(4)}-7000-8000-${(count++).toString(16).padStart(12, "0")}`;
}
