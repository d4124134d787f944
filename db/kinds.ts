import { and, eq, getTableColumns, isNull } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import type { Database } from "./client.ts";
import {
  bench,
  bike,
  climb,
  course,
  instrument,
  method,
  pack,
  plan,
  rider,
  setUp,
  sheet,
  sweep,
  test,
} from "./schema.ts";

/** The records a person keeps, changes, archives and deletes: their tables, their names, and what belongs to what. */
const TABLES = {
  bike,
  pack,
  setUp,
  rider,
  instrument,
  bench,
  course,
  method,
  plan,
  sweep,
  climb,
  sheet,
  test,
} as const;
export type EntityKind = keyof typeof TABLES;
export const ENTITY_KINDS = Object.keys(TABLES) as readonly EntityKind[];

/** A record as a row. */
export type Row = Readonly<Record<string, unknown>> & { readonly id: string };
/** All these tables have an id, a version, and the times of their last change, archiving and deletion. */
type KeptTable = PgTable & {
  readonly id: PgColumn;
  readonly version: PgColumn;
  readonly archivedAt: PgColumn;
  readonly deletedAt: PgColumn;
};

export const tableOf = (kind: EntityKind) => TABLES[kind] as unknown as KeptTable;

/** Records that link to another: by which column, and whether they belong to it, so that they are deleted with it. */
export interface Linking {
  readonly kind: EntityKind;
  readonly column: string;
  readonly belongs: boolean;
}

const links = (column: string, kinds: readonly EntityKind[], belongs = false): readonly Linking[] =>
  kinds.map((kind) => ({ kind, column, belongs }));

/** What links to each kind. A plan's test is no such link: a plan stays without it. */
export const LINKING: Readonly<Record<EntityKind, readonly Linking[]>> = {
  bike: links("bikeId", ["pack", "setUp", "test", "plan", "sweep", "climb"], true),
  pack: [
    ...links("packId", ["bench"], true),
    ...links("packId", ["test", "plan", "sweep", "climb"]),
    ...links("secondPackId", ["test"]),
  ],
  setUp: links("setUpId", ["test", "plan", "sweep", "climb"]),
  rider: links("riderId", ["test", "plan", "sweep", "climb"]),
  course: links("courseId", ["plan"]),
  test: links("testId", ["sheet"], true),
  bench: links("benchId", ["sheet"], true),
  instrument: [],
  method: [],
  plan: [],
  sweep: [],
  climb: [],
  sheet: [],
};

/** What a kind is called, one and several. */
const NOUNS: Readonly<Record<EntityKind, readonly [string, string]>> = {
  bike: ["bike", "bikes"],
  pack: ["pack", "packs"],
  setUp: ["set-up", "set-ups"],
  rider: ["rider", "riders"],
  instrument: ["instrument", "instruments"],
  bench: ["bench discharge", "bench discharges"],
  course: ["course", "courses"],
  method: ["method", "methods"],
  plan: ["plan", "plans"],
  sweep: ["sweep", "sweeps"],
  climb: ["climb", "climbs"],
  sheet: ["report", "reports"],
  test: ["test", "tests"],
};

/** @example counted("test", 2) === "2 tests" */
export const counted = (kind: EntityKind, count: number): string =>
  `${count} ${NOUNS[kind][count === 1 ? 0 : 1]}`;
export const nounOf = (kind: EntityKind): string => NOUNS[kind][0];

/** Where a record's name stands: a column, or a field of its body. Bench discharges have none. */
const NAMED: Readonly<Partial<Record<EntityKind, readonly ["column" | "body", string]>>> = {
  bike: ["column", "name"],
  pack: ["column", "name"],
  setUp: ["column", "name"],
  rider: ["column", "name"],
  instrument: ["column", "name"],
  test: ["column", "title"],
  course: ["body", "name"],
  method: ["body", "name"],
  plan: ["body", "title"],
  sweep: ["body", "title"],
  climb: ["body", "hill"],
  sheet: ["body", "title"],
};

const bodyOf = (row: Row) => row["body"] as Readonly<Record<string, unknown>>;

/** What a record goes by; a bench discharge by its day. */
export function nameOf(kind: EntityKind, row: Row): string {
  const [where, key] = NAMED[kind] ?? ["body", "on"];
  const name = where === "column" ? row[key] : bodyOf(row)[key];
  return typeof name === "string" && name.trim() !== "" ? name : nounOf(kind);
}

/** The record under another name, which is no longer an assumed one. */
export function withName(kind: EntityKind, row: Row, name: string): Row {
  const place = NAMED[kind];
  if (!place) return row;
  const [where, key] = place;
  const inkOf = (fields: Readonly<Record<string, unknown>>) => {
    const { pencil } = fields;
    return {
      ...fields,
      [key]: name,
      ...(Array.isArray(pencil) && { pencil: pencil.filter((field) => field !== key) }),
    };
  };
  if (where === "body") return { ...row, body: inkOf(bodyOf(row)) };
  const renamed = { ...inkOf(row), id: row.id };
  const former = row["formerNames"];
  // Logs that were written under the name of before go on meaning it.
  return kind === "instrument" && Array.isArray(former) && row["name"] !== name
    ? { ...renamed, formerNames: [...new Set([...(former as string[]), row["name"] as string])] }
    : renamed;
}

/** A record with its kind. */
export interface Found {
  readonly kind: EntityKind;
  readonly row: Row;
}

/** Why something cannot be done to a record, in a sentence for the person. */
export class Refused extends Error {}

/** A column by which a kind links to another. */
export const linkColumn = (kind: EntityKind, column: string): PgColumn =>
  getTableColumns(tableOf(kind))[column]!;

/** Rows of a kind that link to a record; those in the trash as well, or not. */
export async function linkedRows(
  db: Database,
  { kind, column }: Pick<Linking, "kind" | "column">,
  id: string,
  trashed = false,
): Promise<readonly Row[]> {
  const table = tableOf(kind);
  const rows = await db
    .select()
    .from(table)
    .where(and(eq(linkColumn(kind, column), id), trashed ? undefined : isNull(table.deletedAt)));
  return rows as unknown as readonly Row[];
}

/** The row under a lock, so that two saves at once come one after the other. */
export async function lockedRow(tx: Database, kind: EntityKind, id: string): Promise<Row | null> {
  const table = tableOf(kind);
  const [row] = await tx.select().from(table).where(eq(table.id, id)).for("no key update");
  return (row as Row | undefined) ?? null;
}
