/**
 * The format of a backup: a compressed stream of lines, data and nothing else. The first line says what it is; then each
 * table, its name and columns as JSON, its rows as PostgreSQL's COPY text, and `\.`; the last line holds what was written:
 * rows by table and the hash of everything before it. Nothing in it is ever run.
 */

/** The tables that hold what a person made, each after those it refers to. Caches are left out: they are reckoned anew. */
export const TABLES = [
  "desk",
  "bike",
  "pack",
  "rider",
  "instrument",
  "bench",
  "set_up",
  "course",
  "method",
  "test",
  "plan",
  "plan_tick",
  "change",
  "ride",
  "entry",
  "track",
  "telemetry",
  "telemetry_import",
  "telemetry_chunk",
  "entry_photograph",
  "sweep",
  "climb",
  "reference",
  "published",
  "sheet",
  "edition",
  "photograph",
  "set_aside",
] as const;

/** Who may come in and who changed what: kept in backups, and in nothing else that leaves the desk. */
const PEOPLE = [
  "user",
  "account",
  "passkey",
  "member",
  "invitation",
  "phone",
  "share_link",
  "trail",
] as const;
export const BACKED_UP = [...TABLES, ...PEOPLE] as const;

/** The first line. */
export interface Head {
  readonly barometron: "desk backup";
  readonly format: 1;
  /** How many migrations made its schema, and the name of the last one. */
  readonly schema: number;
  readonly schemaName: string;
  readonly madeAt: string;
}

export interface TableHead {
  readonly table: string;
  readonly columns: readonly string[];
}

export interface TableCount {
  readonly name: string;
  readonly rows: number;
}

/** The last line. */
export interface Tail {
  readonly end: true;
  readonly tables: readonly TableCount[];
  /** SHA-256 of every byte before this line. */
  readonly sha256: string;
}

/** What a backup holds, as it says itself and as it was found to be. */
export interface Manifest {
  readonly schema: number;
  readonly schemaName: string;
  /** Null in files of the first format, which do not say. */
  readonly madeAt: string | null;
  readonly tables: readonly TableCount[];
}

/** A backup that cannot be used, with the sentence that says why. */
export class BadBackup extends Error {}

export const END_OF_ROWS = "\\.";
