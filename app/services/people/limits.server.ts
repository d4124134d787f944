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

const tooMany = ({ msBeforeNext }: RateLimiterRes) =>
  data(
    `Too many tries from here: wait ${Math.max(1, Math.ceil(msBeforeNext / 60_000))} min, then try again.`,
    {
      status: 429,
      headers: { "Retry-After": String(Math.ceil(msBeforeNext / 1000)) },
    },
  );

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
    throw error instanceof RateLimiterRes ? tooMany(error) : error;
  }
}

/** A try that succeeded counts no more. */
export async function forgetTries(db: Database, request: Request, name: string): Promise<void> {
  const [atName, atAny] = limitersOver(db);
  const address = addressOf(request);
  await atName.delete(`${address} ${name}`);
  await atAny.reward(address);
}

/**
 * What a secret of an address leads to. One that leads nowhere counts as a try; one that holds never does, however often and
 * by however many of one household it is opened.
 *
 * @param gone what to say of a secret that leads nowhere
 * @throws 404 with that sentence; 429 after too many of them
 */
export async function bySecret<Found>(
  db: Database,
  request: Request,
  find: () => Promise<Found | null>,
  gone: string,
): Promise<Found> {
  const found = await find();
  if (found !== null) return found;
  await countTry(db, request, "a secret");
  throw data(gone, { status: 404 });
}
