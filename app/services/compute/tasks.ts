import { createHash } from "node:crypto";
import { decodeText, readGpx, readLogger } from "#core/formats";
import type { Database } from "#db/client";
import { analyse } from "./analyse";
import { comparisonTasks } from "../comparison/tasks.server";

/** A file's bytes as text; the bytes come over whole, so that nothing is copied. */
const textOf = (bytes: Uint8Array) => decodeText(bytes, "file");

/** What takes long enough to hold others up, by name. Each runs in a worker thread with a connection of its own. */
export const tasks = {
  analyse: (db: Database, { testId }: { readonly testId: string }) => analyse(db, testId),
  readTrack: async (_db: Database, { bytes }: { readonly bytes: Uint8Array }) => {
    const text = textOf(bytes);
    return text.ok ? readGpx(text.value) : text;
  },
  readLogger: async (
    _db: Database,
    asked: { readonly bytes: Uint8Array; readonly logger: string; readonly startS: number | null },
  ) => {
    const text = textOf(asked.bytes);
    const record = text.ok ? readLogger(text.value, asked.logger, asked.startS) : text;
    return { record, hash: createHash("sha256").update(asked.bytes).digest("base64url") };
  },
  ...comparisonTasks,
};
export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type Asked<Name extends TaskName> = Parameters<Tasks[Name]>[1];
export type Answered<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;
