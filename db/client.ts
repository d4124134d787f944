import { drizzle, type PostgresJsDatabase } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import * as schema from "./schema.ts";

export type Database = PostgresJsDatabase<typeof schema>;

export interface Connection {
  readonly db: Database;
  close(): Promise<void>;
}

/** A database that was away is tried again soon, and never less often than this, s. */
const MOST_BACKOFF_S = 0.5;
const PATIENCE_S = 5;

/** Opens a pool on a PostgreSQL address, postgres://user@host:port/name. */
export function connect(url: string, max = 8): Connection {
  const client = postgres(url, {
    max,
    onnotice: () => undefined,
    connect_timeout: PATIENCE_S,
    backoff: (tries: number) => Math.min(MOST_BACKOFF_S, 0.02 * 2 ** tries),
  });
  return { db: drizzle(client, { schema }), close: () => client.end({ timeout: 5 }) };
}
