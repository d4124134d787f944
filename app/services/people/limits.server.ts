import { data } from "react-router";
import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import type { Database } from "#db/client";

/** Tries of one address at one name before it waits, and of one address at any: others at the same name go on. */
const AT_ONE_NAME = { points: 8, duration: 900 };
const AT_ANY = { points: 60, duration: 900 };

const limiters = new WeakMap<object, readonly [RateLimiterPostgres, RateLimiterPostgres]>();

function limitersOver(db: Database) {
  let found = limiters.get(db);
  if (!found) {
    const made = (keyPrefix: string, limit: typeof AT_ANY) =>
      new RateLimiterPostgres({
        storeClient: (db as Database & { readonly $client: object }).$client,
        storeType: "pool",
        tableName: "rate_limit",
        tableCreated: true,
        keyPrefix,
        ...limit,
      });
    limiters.set(db, (found = [made("name", AT_ONE_NAME), made("any", AT_ANY)]));
  }
  return found;
}

/** Where a request came from, as a proxy in front that is trusted says, for counting only; it is never kept with a person. */
const addressOf = (request: Request) => request.headers.get("X-Asker") ?? "unknown";

/**
 * Counts a try at signing in.
 *
 * @throws a refusal that says how long to wait, when there were too many
 */
export async function countTry(db: Database, request: Request, name: string): Promise<void> {
  const [atName, atAny] = limitersOver(db);
  const address = addressOf(request);
  try {
    await atAny.consume(address);
    await atName.consume(`${address} ${name}`);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000));
    throw data(`Too many tries from here: wait ${minutes} min, then try again.`, {
      status: 429,
      headers: { "Retry-After": String(Math.ceil(error.msBeforeNext / 1000)) },
    });
  }
}

/** A try that succeeded counts no more. */
export async function forgetTries(db: Database, request: Request, name: string): Promise<void> {
  await limitersOver(db)[0].delete(`${addressOf(request)} ${name}`);
}
