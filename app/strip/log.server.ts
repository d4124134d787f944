import { v7 as uuidv7 } from "uuid";
import { z } from "zod";
import { checkEntry, foldLog, STRIKE_FIELDS, type Entry } from "#core/ride/log";
import type { Problem, System } from "#core/base";
import type { TestRecord } from "#core/records";
import { recordSetting } from "#core/analysis";
import type { Database } from "#db/client";
import { appendEntries, listEntries } from "#db/log";
import type { TypedEntry } from "./entryForm";

/** An id sent by the page, or a new one when the page could not make it. */
export function clientId(value: unknown): string {
  const id = z.uuid().safeParse(value);
  return id.success ? id.data : uuidv7();
}

export interface NewEntry {
  readonly id: string;
  readonly rideId: string;
  readonly at: string | null;
  readonly typed: TypedEntry;
  readonly supersedes: string | null;
}

/** Appends one entry if it can be; else the problems, and nothing is kept. */
export async function keepEntry(
  db: Database,
  record: TestRecord,
  entry: NewEntry,
  system: System,
): Promise<readonly Problem[]> {
  const log = await listEntries(db, entry.rideId);
  if (log.some(({ id }) => id === entry.id)) return [];
  const live = foldLog(log);
  const corrected = live.find(({ rootId }) => rootId === entry.supersedes);
  const others = live.filter(
    ({ rootId, seq }) => rootId !== entry.supersedes && (!corrected || seq < corrected.seq),
  );
  const timeS = entry.at === null ? null : Date.parse(entry.at) / 1000;
  const problems = checkEntry(
    entry.typed.body,
    timeS,
    others,
    recordSetting(record),
    Date.now() / 1000,
    system,
  );
  if (problems.length) return problems;
  const line: Entry = {
    id: entry.id,
    // The server gives it its place.
    seq: 0,
    at: entry.at,
    body: entry.typed.body,
    supersedes: entry.supersedes,
  };
  await appendEntries(db, entry.rideId, [line]);
  return [];
}

/** Sets a reading or a whole entry aside, or restores it: a new line of the log. */
export async function judge(
  db: Database,
  rideId: string,
  id: string,
  kind: "strike" | "restore",
  target: string,
  field: unknown,
): Promise<void> {
  const named = z.enum(STRIKE_FIELDS).safeParse(field);
  await appendLine(db, rideId, {
    id,
    body: { kind, target, ...(named.success ? { field: named.data } : {}) },
  });
}

/** Marks by hand where full power ended; a second mark takes the first one's place. */
export async function markFullPowerEnd(
  db: Database,
  rideId: string,
  id: string,
  distanceM: number,
  supersedes: string | null,
): Promise<void> {
  await appendLine(db, rideId, { id, body: { kind: "fullPowerEnd", distanceM }, supersedes });
}

async function appendLine(
  db: Database,
  rideId: string,
  line: Pick<Entry, "id" | "body"> & Partial<Pick<Entry, "supersedes">>,
): Promise<void> {
  await appendEntries(db, rideId, [{ seq: 0, at: null, supersedes: null, ...line }]);
}
