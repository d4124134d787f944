import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import pg from "pg";
import * as schema from "./schema.ts";

export type Database = NodePgDatabase<typeof schema>;

export interface Connection {
  readonly db: Database;
  close(): Promise<void>;
}

/** How long a query may wait for a connection, and run, ms: what takes longer is broken, and says so. */
const PATIENCE_MS = 10_000;
const STATEMENT_MS = 20_000;

/** Opens a pool on a PostgreSQL address, postgres://user@host:port/name. */
export function connect(url: string, max = 8): Connection {
  const pool = new pg.Pool({
    connectionString: url,
    max,
    connectionTimeoutMillis: PATIENCE_MS,
    statement_timeout: STATEMENT_MS,
    idle_in_transaction_session_timeout: STATEMENT_MS,
    application_name: "barometron",
  });
  // A connection that is cut fails the query on it, and no more: the pool opens another when it is needed.
  const cut = () => undefined;
  pool.on("error", cut);
  pool.on("connect", (client) => client.on("error", cut));
  return { db: drizzle(pool, { schema }), close: () => pool.end() };
}
