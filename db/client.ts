import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import pg from "pg";
import * as peopleSchema from "./people/schema.ts";
import * as deskSchema from "./schema.ts";

const schema = { ...deskSchema, ...peopleSchema };
export type Database = NodePgDatabase<typeof schema>;

/** Whose rows a connection sees, and who is said to have changed them. */
export interface Scope {
  readonly deskId: string;
  /** A user's id, `phone/` and a phone's id, or empty for whoever sits at this machine. */
  readonly actor: string;
}

export interface Connection {
  /** The whole database, as its owner: for commands, tests, and what lets people in. */
  readonly db: Database;
  /** The rows of one desk; the database refuses all others. */
  at(scope: Scope): Database;
  close(): Promise<void>;
}

/** How long a query may wait for a connection, and run, ms: what takes longer is broken, and says so. */
const PATIENCE_MS = 10_000;
const STATEMENT_MS = 20_000;
/** The role that sees one desk only, made by the schema's history or by whoever keeps the database. */
const APP_ROLE = "barometron_app";

/** Connections that work at desks, each with the desk and the person it was last named. */
interface DeskConnections {
  readonly pool: pg.Pool;
  readonly named: WeakMap<pg.PoolClient, string>;
  /** Where several share a database, a connection that cannot be held to one desk is refused. */
  readonly strict: boolean;
}

/** Codes of a role that is not there, or may not be taken. */
const NO_ROLE = new Set(["22023", "42501", "42704"]);

/** Holds what is left of a transaction to one desk, as its people see it. */
export async function actAt(client: pg.Client, { deskId, actor }: Scope): Promise<void> {
  const { rowCount } = await client.query("select 1 from pg_roles where rolname = $1", [APP_ROLE]);
  if (rowCount) await client.query(`set local role ${APP_ROLE}`);
  await client.query("select set_config('app.desk_id', $1, true), set_config('app.actor', $2, true)", [
    deskId,
    actor,
  ]);
}

/** A pool whose connections are named a desk before they are used. */
class DeskPool extends pg.Pool {
  constructor(
    private readonly connections: DeskConnections,
    private readonly scope: Scope,
  ) {
    super({ max: 1 });
  }
  override async connect(): Promise<pg.PoolClient> {
    const { pool, named, strict } = this.connections;
    const client = await pool.connect();
    const key = `${this.scope.deskId} ${this.scope.actor}`;
    if (named.get(client) === key) return client;
    try {
      if (!named.has(client))
        await client.query(`set role ${APP_ROLE}`).catch((error: { code?: string }) => {
          if (strict || !NO_ROLE.has(error.code ?? "")) throw error;
        });
      await client.query("select set_config('app.desk_id', $1, false), set_config('app.actor', $2, false)", [
        this.scope.deskId,
        this.scope.actor,
      ]);
      named.set(client, key);
      return client;
    } catch (error) {
      client.release(true);
      throw error;
    }
  }
  override query(...args: unknown[]): never {
    const asked = this.connect().then(async (client) => {
      try {
        return await (client.query as (...args: unknown[]) => Promise<unknown>)(...args);
      } finally {
        client.release();
      }
    });
    return asked as never;
  }
}

const scopes = new WeakMap<object, Scope>();

/** The desk a database was opened at; null for the whole of it. */
export const scopeOf = (db: Database): Scope | null => scopes.get(db) ?? null;

function poolAt(url: string, max: number): pg.Pool {
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
  return pool;
}

/** Databases of desks that are kept ready, by desk and person. */
const KEPT = 500;

/**
 * Opens pools on a PostgreSQL address, postgres://user@host:port/name: one for the whole database and one for desks.
 *
 * @param strict refuse to work at a desk where the database cannot hold a connection to it
 */
export function connect(url: string, max = 8, strict = false): Connection {
  const whole = poolAt(url, max);
  const desks: DeskConnections = { pool: poolAt(url, max), named: new WeakMap(), strict };
  const kept = new Map<string, Database>();
  return {
    db: drizzle(whole, { schema }),
    at: (scope) => {
      const key = `${scope.deskId} ${scope.actor}`;
      let db = kept.get(key);
      if (!db) {
        db = drizzle(new DeskPool(desks, scope), { schema });
        scopes.set(db, scope);
        if (kept.size >= KEPT) kept.clear();
        kept.set(key, db);
      }
      return db;
    },
    close: async () => {
      await Promise.all([desks.pool.end(), whole.end()]);
    },
  };
}
