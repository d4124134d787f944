import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { connect, type Database } from "./client.ts";

/** The lock under which a database is made ready: several starts on one database come one after the other. */
const READYING = 7_204_511;

/** Does something that only one start may do at a time, under a lock of the database's own. */
export async function oneAtATime<T>(db: Database, work: () => Promise<T>): Promise<T> {
  await db.execute(sql`set statement_timeout = 0`);
  await db.execute(sql`select pg_advisory_lock(${READYING})`);
  try {
    return await work();
  } finally {
    await db.execute(sql`select pg_advisory_unlock(${READYING})`);
  }
}

/** Brings a database to the newest schema; does nothing when it is there. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const { db, close } = connect(url, 1);
  try {
    await oneAtATime(db, () => migrate(db, { migrationsFolder: folder }));
  } finally {
    await close();
  }
}
