/** A record's fields as a form writes them. */
export type StoredTexts = Readonly<Record<string, string | undefined>>;

/** A record that was changed by somebody else while a form was open. */
export interface Stale {
  /** The version it has now. */
  readonly version: number;
  readonly stored: StoredTexts;
}

/** The version an action's save made; null where nothing was saved. */
export function savedOf(answer: unknown): number | null {
  const version = (answer as { version?: number | null } | null | undefined)?.version;
  return version ?? null;
}

/** What an action answered, where the record was changed meanwhile; null otherwise. */
export function staleOf(answer: unknown): Stale | null {
  const stale = (answer as { stale?: Stale } | null | undefined)?.stale;
  return stale ?? null;
}
