/** A path on this site, or the other one: never an address elsewhere. */
export function safePath(value: FormDataEntryValue | null, otherwise: string): string {
  return typeof value === "string" && /^\/(?![/\\])/.test(value) ? value : otherwise;
}

/** A path with a mark that something was changed there, so that it can be undone. */
export function afterChange(path: string, changeId: string | null): string {
  if (changeId === null) return path;
  return `${path}${path.includes("?") ? "&" : "?"}changed=${changeId}`;
}
