import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { choicesOf } from "#core/fields";
import { BIKE_FIELDS, INSTRUMENT_FIELDS, PACK_FIELDS, SET_UP_FIELDS, TEST_FIELDS } from "#core/records";
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

test("a column of a few values holds no other", async () => {
  const { rows } = await connection.db.execute<{ name: string }>(sql`
    select conname as name from pg_constraint where contype = 'c' and connamespace = 'public'::regnamespace`);
  const names = rows.map(({ name }) => name);
  for (const [table, fields] of Object.entries({
    bike: BIKE_FIELDS,
    pack: PACK_FIELDS,
    set_up: SET_UP_FIELDS,
    instrument: INSTRUMENT_FIELDS,
    test: TEST_FIELDS,
  }))
    for (const [key, field] of Object.entries(fields))
      if (choicesOf(field).length > 0)
        expect(names).toContain(`${table}_${key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)}`);
  await expect(
    connection.db.execute(
      sql`insert into instrument (id, name, kind) values (gen_random_uuid(), 'x', 'kettle')`,
    ),
  ).rejects.toThrow();
});
