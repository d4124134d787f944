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

/** Connections that work at desks. None is any desk's own: each transaction names the desk it is for. */
interface DeskConnections {
  readonly pool: pg.Pool;
  /** Where several share a database, a connection that cannot be held to one desk is refused. */
  readonly strict: boolean;
  /** Whether the role that sees one desk only may be taken; found out once. */
  hasRole: Promise<boolean> | null;
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

async function findRole({ pool, strict }: DeskConnections): Promise<boolean> {
  const client = await pool.connect();
  try {
    await client.query(`begin; set local role ${APP_ROLE}`);
    return true;
  } catch (error) {
    if (strict || !NO_ROLE.has((error as { code?: string }).code ?? "")) throw error;
    return false;
  } finally {
    await client.query("rollback").catch(() => undefined);
    client.release();
  }
}

/** The role that sees one desk, where there is one. */
function hasRole(desks: DeskConnections): Promise<boolean> {
  desks.hasRole ??= findRole(desks).catch((error: unknown) => {
    desks.hasRole = null;
    throw error;
  });
  return desks.hasRole;
}

/** Statements that hold what is left of a transaction to one desk. */
async function naming(desks: DeskConnections, scope: Scope): Promise<string> {
  const [desk, who] = [pg.escapeLiteral(scope.deskId), pg.escapeLiteral(scope.actor)];
  const hasWalls = await hasRole(desks);
  // Without the walls every desk would be one: then there is the first alone.
  if (!hasWalls && scope.deskId !== deskSchema.FIRST_DESK)
    throw new Error("This database has one desk: its user may not take the role barometron_app.");
  const named = `select set_config('app.desk_id', ${desk}, true), set_config('app.actor', ${who}, true)`;
  return hasWalls ? `set local role ${APP_ROLE}; ${named}` : named;
}

type Ask = (...args: unknown[]) => Promise<pg.QueryResult>;
const textOf = (asked: unknown): string =>
  typeof asked === "string" ? asked : String((asked as { text?: unknown } | null)?.text ?? "");

/** A connection for one transaction after another: each is held to the desk as soon as it has begun, and nothing runs outside of one. */
function namedAfterBegin(client: pg.PoolClient, names: string): pg.PoolClient {
  const ask = client.query.bind(client) as unknown as Ask;
  let isOpen = false;
  const query: Ask = async (...args) => {
    const text = textOf(args[0]);
    if (/^begin\b/i.test(text)) {
      const begun = await ask(...args);
      await ask(names);
      isOpen = true;
      return begun;
    }
    if (!isOpen) throw new Error("A query at a desk runs in a transaction.");
    if (/^(commit|rollback)$/i.test(text)) isOpen = false;
    return ask(...args);
  };
  return new Proxy(client, {
    get: (target, key) => {
      if (key === "query") return query;
      const value = Reflect.get(target, key) as unknown;
      return typeof value === "function" ? (value.bind(target) as unknown) : value;
    },
  });
}

/**
 * A pool whose every query is held to one desk, within the transaction it runs in. Nothing about a desk stays on a connection: a
 * pooler between may hand the next transaction to another one.
 */
class DeskPool extends pg.Pool {
  constructor(
    private readonly desks: DeskConnections,
    private readonly scope: Scope,
  ) {
    super({ max: 1 });
  }
  override async connect(): Promise<pg.PoolClient> {
    const names = await naming(this.desks, this.scope);
    return namedAfterBegin(await this.desks.pool.connect(), names);
  }
  override query(...args: unknown[]): never {
    return this.held(args) as never;
  }
  private async held(args: readonly unknown[]): Promise<pg.QueryResult> {
    const names = await naming(this.desks, this.scope);
    const client = await this.desks.pool.connect();
    const ask = client.query.bind(client) as unknown as Ask;
    let broken = true;
    try {
      await ask(`begin; ${names}`);
      // Sent one behind the other; of a query that failed nothing is kept.
      const [answer, ended] = await Promise.allSettled([ask(...args), ask("commit")]);
      broken = ended.status === "rejected";
      if (answer.status === "rejected") throw answer.reason;
      if (ended.status === "rejected") throw ended.reason;
      return answer.value;
    } finally {
      client.release(broken);
    }
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
  const desks: DeskConnections = { pool: poolAt(url, max), strict, hasRole: null };
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
