import { Piscina } from "piscina";
import { scopeOf, type Database } from "#db/client";
import { UnreadableRow } from "#db/unreadable";
import type { comparisonTasks } from "../comparison/tasks.server";
import type { Answered, Asked, TaskName } from "./tasks";
import type { Came, Work } from "./worker";

/** The worker's bundle; without one, as in development, tasks run where they are asked for. */
const bundle = process.env["BAROMETRON_COMPUTE"] ?? null;
/** No task takes longer: what does is ended with its thread, ms. */
const LONGEST_MS = 180_000;
/** Tasks that may wait in a row before more are turned away. */
const MOST_WAITING = 400;
/** Memory of one thread, MB. */
const HEAP_MB = 1536;

/** Too much is asked for at once: the page says so, and when to come back. */
export class Busy extends Error {}

/** Comparisons share a thread, which remembers the desk; all else runs on threads beside it. */
type Lane = "desk" | "rest";
const COMPARISONS: Readonly<Record<keyof typeof comparisonTasks, true>> = {
  ...{ standings: true, claims: true, bikeKnown: true, climbs: true, bridge: true },
  ...{ pair: true, pairWorth: true, pairUnder: true, known: true },
};

const pools = new Map<Lane, Piscina<Work, Came>>();

function poolOf(lane: Lane, filename: string): Piscina<Work, Came> {
  let pool = pools.get(lane);
  if (!pool) {
    pool = new Piscina({
      filename,
      minThreads: lane === "desk" ? 1 : 0,
      maxThreads: lane === "desk" ? 1 : 2,
      concurrentTasksPerWorker: lane === "desk" ? 4 : 1,
      idleTimeout: 30_000,
      maxQueue: MOST_WAITING,
      resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    });
    pools.set(lane, pool);
  }
  return pool;
}

/**
 * Runs a task where it holds nobody up.
 *
 * @param signal ends the task, and its thread, when nobody waits for it any more
 * @throws UnreadableRow, Busy, or the task's own error
 */
export async function compute<Name extends TaskName>(
  db: Database,
  name: Name,
  asked: Asked<Name>,
  signal?: AbortSignal,
): Promise<Answered<Name>> {
  if (bundle === null) {
    const { tasks } = await import("./tasks");
    return (tasks[name] as (db: Database, asked: unknown) => Promise<Answered<Name>>)(db, asked);
  }
  const lane: Lane = name in COMPARISONS ? "desk" : "rest";
  const pool = poolOf(lane, bundle);
  if (pool.queueSize >= MOST_WAITING) throw new Busy();
  const longest = AbortSignal.timeout(LONGEST_MS);
  const came = await pool.run(
    { name, asked, scope: scopeOf(db) },
    { signal: signal ? AbortSignal.any([signal, longest]) : longest },
  );
  if (came.ok) return came.value as Answered<Name>;
  if ("unreadable" in came) throw new UnreadableRow(came.unreadable);
  throw Object.assign(new Error(came.message), { code: came.code });
}

/** Ends all threads, so that the process can end. */
export async function closePools(): Promise<void> {
  await Promise.all([...pools.values()].map((pool) => pool.destroy()));
  pools.clear();
}
