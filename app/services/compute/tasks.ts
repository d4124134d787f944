import type { Database } from "#db/client";
import { analyse } from "./analyse";
import { longStrip } from "../strip/long";
import { keepLogger, keepTrack } from "./recordings";
import { comparisonTasks } from "../comparison/tasks.server";

/** What takes long enough to hold others up, by name. Each runs in a worker thread with a connection of its own. */
export const tasks = {
  analyse: (db: Database, { testId }: { readonly testId: string }) => analyse(db, testId),
  keepTrack: (
    db: Database,
    asked: { readonly bytes: Uint8Array; readonly rideId: string; readonly fileName: string },
  ) => keepTrack(db, asked),
  keepLogger: (
    db: Database,
    asked: { readonly bytes: Uint8Array; readonly rideId: string; readonly logger: string },
  ) => keepLogger(db, asked),
  longStrip,
  ...comparisonTasks,
};
export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type Asked<Name extends TaskName> = Parameters<Tasks[Name]>[1];
export type Answered<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;
