import { setTimeout } from "node:timers/promises";
import pg from "pg";

export const quoted = (identifier: string) => pg.escapeIdentifier(identifier);

/** Works with one connection, which is closed afterwards. */
export async function withClient<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  client.on("error", () => undefined);
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

export async function exists(admin: pg.Client, database: string): Promise<boolean> {
  const { rowCount } = await admin.query("select 1 from pg_database where datname = $1", [database]);
  return rowCount === 1;
}

/** Ends this role's connections to a database; the server's own helpers leave by themselves. */
export async function endConnections(admin: pg.Client, database: string): Promise<void> {
  await admin.query(
    "select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and usename = current_user and pid <> pg_backend_pid()",
    [database],
  );
}

/** Tries again for a while what fails because somebody is still connected. */
async function whenFree(admin: pg.Client, database: string, sql: string): Promise<void> {
  for (let tries = 0; ; tries += 1)
    try {
      await admin.query(sql);
      return;
    } catch (error) {
      if ((error as { code?: string }).code !== "55006" || tries > 100) throw error;
      await endConnections(admin, database);
      await setTimeout(100);
    }
}

export const renamed = (admin: pg.Client, from: string, to: string): Promise<void> =>
  whenFree(admin, from, `alter database ${quoted(from)} rename to ${quoted(to)}`);

export const dropDatabase = (admin: pg.Client, database: string): Promise<void> =>
  whenFree(admin, database, `drop database if exists ${quoted(database)}`);
