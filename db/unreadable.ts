import type { z } from "zod";
import { withoutNulls } from "./rows.ts";

/** A stored row that cannot be read: which, what it is called as far as can be told, and why. */
export interface Unreadable {
  readonly table: string;
  readonly id: string;
  readonly label: string;
  readonly sentences: readonly string[];
}

/** Thrown where one row is asked for and that very row cannot be read. */
export class UnreadableRow extends Error {
  readonly row: Unreadable;

  constructor(row: Unreadable) {
    super(`a row of ${row.table} cannot be read`);
    this.row = row;
  }
}

type Row = Readonly<Record<string, unknown>>;

const labelOf = (row: Row): string => {
  const body = row["body"] as Row | null | undefined;
  for (const each of [row["name"], row["title"], body?.["name"], body?.["title"], body?.["hill"]])
    if (typeof each === "string" && each.trim() !== "") return each.slice(0, 120);
  return "without a name";
};

/**
 * Reads stored rows one by one: what cannot be read is left out and told to the collector, so that one bad row never takes
 * a list down.
 *
 * @param read makes a value of a row, or throws
 * @param unreadable is told what was left out, when it is given
 */
export function readRows<R, T>(
  table: string,
  rows: readonly R[],
  read: (row: R) => T,
  unreadable?: Unreadable[],
  rowOf: (row: R) => Row = (row) => row as unknown as Row,
): readonly T[] {
  return rows.flatMap((row) => {
    try {
      return [read(row)];
    } catch (error) {
      unreadable?.push(unreadableRow(table, rowOf(row), error));
      return [];
    }
  });
}

/** The same for one row that is asked for by its id: null when there is none. @throws UnreadableRow */
export function readRow<R, T>(
  table: string,
  row: R | undefined,
  read: (row: R) => T,
  rowOf: (row: R) => Row = (each) => each as unknown as Row,
): T | null {
  if (row === undefined) return null;
  const unreadable: Unreadable[] = [];
  const [value] = readRows(table, [row], read, unreadable, rowOf);
  if (unreadable[0]) throw new UnreadableRow(unreadable[0]);
  return value!;
}

function unreadableRow(table: string, row: Row, error: unknown): Unreadable {
  const issues = (error as { issues?: readonly { path: readonly PropertyKey[]; message: string }[] }).issues;
  const sentences = issues?.length
    ? issues.slice(0, 5).map(({ path, message }) =>
        // What a schema says in a sentence stands by itself; a bare finding needs its place.
        message.endsWith(".") ? message : `${path.map(String).join(".") || "row"}: ${message}.`,
      )
    : ["It is not what this table holds."];
  return { table, id: String(row["id"] ?? ""), label: labelOf(row), sentences };
}

/** Reads a row's columns by a schema of core. */
export const bySchema =
  <Schema extends z.ZodType<object>>(schema: Schema) =>
  (row: object): z.infer<Schema> =>
    schema.parse(withoutNulls(row));
