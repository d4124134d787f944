import { drizzle, type PostgresJsDatabase } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import * as schema from "./schema.ts";

export type Database = PostgresJsDatabase<typeof schema>;

export interface Connection {
  readonly db: Database;
  close(): Promise<void>;
}

/** Opens a pool on a PostgreSQL address, postgres://user@host:port/name. */
export function connect(url: string, max = 8): Connection {
  const client = postgres(url, { max, onnotice: () => undefined });
  return { db: drizzle(client, { schema }), close: () => client.end({ timeout: 5 }) };
}
