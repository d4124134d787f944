import { bikeSchema, packRecordSchema, riderSchema, setUpSchema } from "#core/records";
import type { Database } from "./client.ts";
import { saveTogether } from "./entities.ts";
import { LINKING, linkedRows, lockedRow, Refused, type EntityKind, type Found, type Row } from "./kinds.ts";
import { withoutNulls } from "./rows.ts";

/** Kinds that may have been entered twice, and are made one. */
export const MERGED = ["bike", "rider", "pack", "setUp"] as const satisfies readonly EntityKind[];
export type Merged = (typeof MERGED)[number];

/** A record that its schema refuses takes nothing of the other: two true halves can be one that cannot be. */
const SCHEMAS = { bike: bikeSchema, rider: riderSchema, pack: packRecordSchema, setUp: setUpSchema };

const KEYS_OF_ROW = ["id", "deskId", "bikeId", "version", "updatedAt", "archivedAt", "deletedAt"];
const isEmpty = (value: unknown) =>
  value === null || value === undefined || value === "" || (Array.isArray(value) && value.length === 0);

/** One record of two: its own facts, and the other's where it has none, or only assumed ones. */
export function mergedRow(kept: Row, other: Row): Row {
  const assumed = (row: Row) => (row["pencil"] as readonly string[] | undefined) ?? [];
  const taken = Object.keys(kept).filter(
    (key) =>
      key !== "pencil" &&
      !KEYS_OF_ROW.includes(key) &&
      !isEmpty(other[key]) &&
      (isEmpty(kept[key]) || (assumed(kept).includes(key) && !assumed(other).includes(key))),
  );
  const pencil = [
    ...assumed(kept).filter((key) => !taken.includes(key)),
    ...assumed(other).filter((key) => taken.includes(key)),
  ];
  return { ...kept, ...Object.fromEntries(taken.map((key) => [key, other[key]])), pencil };
}

/**
 * Makes one record of two that are the same thing: all that links to the one links to the other, which takes the facts it
 * lacks; the one goes to the trash.
 *
 * @param into the record that stays
 * @returns the change's id; null when either is not there
 * @throws Refused when they are one already, or packs or set-ups of different bikes
 */
export async function mergeEntities(
  db: Database,
  kind: Merged,
  id: string,
  into: string,
): Promise<string | null> {
  if (id === into) throw new Refused("Choose another one to merge it with.");
  return saveTogether(db, async (tx, save) => {
    const [first, second] = [id, into].sort();
    const locked = [await lockedRow(tx, kind, first!), await lockedRow(tx, kind, second!)];
    const [from, to] = [id, into].map((each) => locked.find((row) => row?.id === each));
    if (!from || !to) return false;
    if (from["bikeId"] !== to["bikeId"])
      throw new Refused("They belong to different bikes: merge the bikes first.");
    const merged = mergedRow(to, from);
    await save(kind, SCHEMAS[kind].safeParse(withoutNulls(merged)).success ? merged : to);
    // A test links to a pack by either of two columns, and each row is saved once.
    const moved = new Map<string, Found>();
    for (const link of LINKING[kind]) {
      for (const row of await linkedRows(tx, link, id, true)) {
        const before = moved.get(row.id)?.row ?? row;
        moved.set(row.id, { kind: link.kind, row: { ...before, [link.column]: into } });
      }
    }
    for (const each of moved.values()) await save(each.kind, withoutTwice(each));
    const now = new Date();
    await save(kind, { ...from, archivedAt: from["archivedAt"] ?? now, deletedAt: now });
    return true;
  });
}

/** A test on two packs that have become one has one. */
const withoutTwice = ({ row }: Found): Row =>
  row["secondPackId"] && row["secondPackId"] === row["packId"] ? { ...row, secondPackId: null } : row;
