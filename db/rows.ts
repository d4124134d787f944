type NullsOut<T> = { [Key in keyof T]: Exclude<T[Key], null> | (null extends T[Key] ? undefined : never) };

/** A row with its empty columns left out, as the schemas of core expect. */
export function withoutNulls<T extends object>(row: T): NullsOut<T> {
  return Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null)) as NullsOut<T>;
}

/** The other way: every listed column set, with null where a value is missing, so that an update can empty it. */
export function withNulls<T extends object, Keys extends keyof T>(
  value: T,
  keys: readonly Keys[],
): { [Key in Keys]: Exclude<T[Key], undefined> | null } {
  return Object.fromEntries(keys.map((key) => [key, value[key] ?? null])) as {
    [Key in Keys]: Exclude<T[Key], undefined> | null;
  };
}
