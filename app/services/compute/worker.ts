import { setPriority } from "node:os";
import { connect, type Connection, type Scope } from "#db/client";
import { UnreadableRow, type Unreadable } from "#db/unreadable";
import { tasks, type TaskName } from "./tasks";

/** A task as it comes over, and what comes back: errors cross a thread's border as data. */
export interface Work {
  readonly name: TaskName;
  readonly asked: unknown;
  /** The desk it is for; null for the whole database. */
  readonly scope: Scope | null;
}
export type Came =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly unreadable: Unreadable }
  | { readonly ok: false; readonly message: string; readonly code: string | null };

/** How far reckoning gives way to all else on the machine: 0, as an equal, to 19, last of all. */
const GIVES_WAY = Number(process.env["BAROMETRON_GIVES_WAY"] ?? 8);
try {
  // On Linux a priority is a thread's own: pages are answered before what can wait.
  setPriority(0, GIVES_WAY);
} catch {
  // Where it may not be set, the threads are equals.
}

let connection: Connection | null = null;

/** Runs one task on this thread's own connection. */
export default async function work({ name, asked, scope }: Work): Promise<Came> {
  connection ??= connect(process.env["DATABASE_URL"]!, 2);
  const run = tasks[name] as (db: Connection["db"], asked: unknown) => Promise<unknown>;
  try {
    const db = scope ? connection.at(scope) : connection.db;
    return { ok: true, value: await run(db, asked) };
  } catch (error) {
    if (error instanceof UnreadableRow) return { ok: false, unreadable: error.row };
    const cause = error instanceof Error ? (error.cause ?? error) : error;
    return {
      ok: false,
      message: cause instanceof Error ? (cause.stack ?? cause.message) : String(cause),
      code: (cause as { code?: string } | null)?.code ?? null,
    };
  }
}
