import { migrate } from "drizzle-orm/node-postgres/migrator";
import { connect } from "./client.ts";

/** Brings a database to the newest schema; does nothing when it is there. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const { db, close } = connect(url, 1);
  try {
    await migrate(db, { migrationsFolder: folder });
  } finally {
    await close();
  }
}
