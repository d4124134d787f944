import { eq } from "drizzle-orm";
import { v5 as uuidv5 } from "uuid";
import type { Database } from "./client.ts";
import { saveEntity, saveTogether, type SaveOne } from "./entities.ts";
import { linkedRows, lockedRow, nameOf, withName, type EntityKind, type Found } from "./kinds.ts";
import { ride } from "./schema.ts";

/** Archives a row, or takes it out of the archive. Returns the change's id; null when there is no such row. */
export async function archiveEntity(
  db: Database,
  kind: EntityKind,
  id: string,
  away = true,
): Promise<string | null> {
  const row = await lockedRow(db, kind, id);
  if (!row) return null;
  return saveEntity(db, kind, {
    ...row,
    archivedAt: away ? new Date() : null,
    ...(away ? {} : { deletedAt: null }),
  });
}

/** Gives a record another name. Returns the change's id; null when there is no such record, or its kind has no name. */
export async function renameEntity(
  db: Database,
  kind: EntityKind,
  id: string,
  name: string,
): Promise<string | null> {
  const row = await lockedRow(db, kind, id);
  return row && kind !== "bench" ? saveEntity(db, kind, withName(kind, row, name)) : null;
}

/** Copies a row under a new id. Sent again, the copy is the same one. */
async function copyRow(
  save: SaveOne,
  { kind, row }: Found,
  id: string,
  more: Readonly<Record<string, unknown>>,
): Promise<void> {
  const { version: _, stamp: __, ...rest } = row;
  await save(kind, { ...rest, ...more, id, archivedAt: null, deletedAt: null });
}

/** Room for ", copy" in a name. */
const LONGEST_NAME = 113;

/** A new test like another: nothing is noted yet, and its first ride has the clock of the other's. */
async function firstRideLike(tx: Database, testId: string, copy: string): Promise<void> {
  const [first] = await tx.select().from(ride).where(eq(ride.testId, testId)).orderBy(ride.position).limit(1);
  await tx
    .insert(ride)
    .values({
      id: uuidv5("ride", copy),
      testId: copy,
      position: 0,
      name: "Ride 1",
      zone: first?.zone ?? "+00:00",
    })
    .onConflictDoNothing();
}

/** What a copy does not have of what it is copied from. */
const ANEW: Readonly<Partial<Record<EntityKind, Readonly<Record<string, unknown>>>>> = {
  test: { rehearsal: null },
  plan: { testId: null },
  setUp: { since: null },
  instrument: { formerNames: [] },
  // What its tests showed is the other's.
  bike: { learned: [] },
  pack: { learned: [] },
};

/**
 * Makes a record like another, named as its copy: a bike with its packs and set-ups, a test with its conditions and an empty log.
 *
 * @param copy id of the copy: with the same one, there is one copy
 * @param today day of a test that is to be ridden again, YYYY-MM-DD
 * @returns the change's id; null when there is no such record, or its kind is not copied
 */
export async function duplicateEntity(
  db: Database,
  kind: EntityKind,
  id: string,
  { copy, today }: { readonly copy: string; readonly today: string },
): Promise<string | null> {
  if (kind === "bench") return null;
  return saveTogether(db, async (tx, save) => {
    const row = await lockedRow(tx, kind, id);
    if (!row) return false;
    if (await lockedRow(tx, kind, copy)) return true;
    const named = withName(kind, row, `${nameOf(kind, row).slice(0, LONGEST_NAME)}, copy`);
    await copyRow(save, { kind, row: named }, copy, {
      ...ANEW[kind],
      ...(kind === "test" && { day: today }),
    });
    if (kind === "test") await firstRideLike(tx, id, copy);
    if (kind !== "bike") return true;
    for (const part of ["pack", "setUp"] as const)
      for (const each of await linkedRows(tx, { kind: part, column: "bikeId" }, id))
        if (each["archivedAt"] === null)
          await copyRow(save, { kind: part, row: each }, uuidv5(each.id, copy), {
            ...ANEW[part],
            bikeId: copy,
          });
    return true;
  });
}
