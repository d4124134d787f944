const HERE = "http://here";

/** A path on this site, or the other one: never an address elsewhere, nor what no address holds. */
export function safePath(value: FormDataEntryValue | null, otherwise: string): string {
  if (typeof value !== "string" || !value.startsWith("/") || value.length > 2000) return otherwise;
  if (!URL.canParse(value, HERE)) return otherwise;
  const url = new URL(value, HERE);
  // Browsers read a backslash as a slash, and leave out tabs and line breaks: what is left must still be a path here.
  if (url.origin !== HERE || url.pathname.startsWith("//")) return otherwise;
  return `${url.pathname}${url.search}`;
}

/** What a change did, where it was more than a save. */
export const DID = ["archived", "back", "deleted", "copied", "renamed", "merged"] as const;
export type Did = (typeof DID)[number];

/** A path with a mark that something was changed there, so that it can be undone. */
export function afterChange(path: string, changeId: string | null, did?: Did): string {
  if (changeId === null) return path;
  const url = new URL(path, HERE);
  url.searchParams.delete("undone");
  url.searchParams.set("changed", changeId);
  if (did) url.searchParams.set("did", did);
  else url.searchParams.delete("did");
  return `${url.pathname}${url.search}`;
}
