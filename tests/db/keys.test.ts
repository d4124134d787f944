import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { connect, type Connection } from "#db/client";

let connection: Connection;
beforeAll(() => {
  connection = connect(process.env["TEST_DATABASE_URL"]!);
});
afterAll(() => connection.close());

test("every reference to another table can be followed back by an index", async () => {
  const { rows } = await connection.db.execute<{ key: string }>(sql`
    select c.conrelid::regclass || '.' || a.attname as key
    from pg_constraint c
    join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
    where c.contype = 'f' and c.connamespace = 'public'::regnamespace
      and not exists (
        select from pg_index i where i.indrelid = c.conrelid and i.indkey[0] = c.conkey[1]
      )`);
  expect(rows.map(({ key }) => key)).toEqual([]);
});
