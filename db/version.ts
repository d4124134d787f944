import { sql } from "drizzle-orm";
import type { Database } from "./client.ts";

/**
 * A short text that is another one whenever anything changed that comparisons rest on: tests and their logs by their
 * stamps, analyses by theirs, records by their versions.
 */
export async function deskVersion(db: Database): Promise<string> {
  const { rows } = await db.execute<{ version: string }>(sql`select concat_ws('/',
    (select concat_ws('.', count(*), max(stamp)) from test),
    (select concat_ws('.', count(*), sum(hashtext(test_id::text || stamp)::bigint)) from result),
    (select concat_ws('.', count(*), sum(version)) from bike),
    (select concat_ws('.', count(*), sum(version)) from pack),
    (select concat_ws('.', count(*), sum(version)) from set_up),
    (select concat_ws('.', count(*), sum(version)) from rider),
    (select concat_ws('.', count(*), sum(version)) from sweep),
    (select concat_ws('.', count(*), sum(version)) from climb),
    (select count(*) from reference)) as version`);
  return rows[0]?.version ?? "";
}
