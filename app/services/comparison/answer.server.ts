import { setTimeout } from "node:timers/promises";
import type { Database } from "#db/client";
import { freshenDesk } from "../analysis.server";
import { compute } from "../compute/pool.server";
import { underWay } from "../deskMemory.server";
import type { Answered, Asked } from "../compute/tasks";
import { PATIENCE_MS, stillReckoning, within } from "../patience.server";
import type { comparisonTasks } from "./tasks.server";

type Name = keyof typeof comparisonTasks;

/** What is being answered now. */
const once = underWay<unknown>();

const asked = <N extends Name>(db: Database, name: N, what: Asked<N>) =>
  once(db, `${name} ${JSON.stringify(what)}`, () => compute(db, name, what)) as Promise<Answered<N>>;

/** How long after one page the next is let on, ms: drawing one takes about as long, and others are let in between. */
const APART_MS = 60;
let nextMs = 0;

/** Waits for its turn: pages asked for at once are drawn one after the other, with room for others between them. */
async function turn(): Promise<void> {
  const now = performance.now();
  const mine = Math.max(now, nextMs);
  nextMs = mine + APART_MS;
  if (mine > now) await setTimeout(mine - now);
}

/** How long a fresh page waits in all for the desk and for what is asked of it; and one that is on screen meanwhile, ms. */
const FRESH_MS = 450;
const ON_SCREEN_MS = 4000;

/** A page that asks for its data only still shows what it had: it may wait longer before it is taken away. */
const patienceFor = (request: Request) =>
  request.headers.get("accept")?.includes("text/html") ? FRESH_MS : ON_SCREEN_MS;

/**
 * A comparison over the desk, with how many tests are still being reckoned; those stand as last known.
 *
 * @throws what makes the frame say that the page is still being reckoned, when it is not there in time
 */
export async function onDesk<N extends Name>(
  db: Database,
  request: Request,
  name: N,
  what: Asked<N>,
): Promise<{ readonly value: Answered<N>; readonly pending: number; readonly all: number }> {
  const beganMs = performance.now();
  const counts = await freshenDesk(db);
  const running = asked(db, name, what).then((value) => ({ value }));
  const left = Math.max(PATIENCE_MS / 3, patienceFor(request) - (performance.now() - beganMs));
  const came = await within(running, left);
  if (!came) return stillReckoning(counts);
  await turn();
  return { value: came.value, pending: counts.stale, all: counts.all };
}

/** The same where a page can do without: without a value when it is not there in time. */
export async function onDeskIfReady<N extends Name>(
  db: Database,
  name: N,
  what: Asked<N>,
): Promise<{ readonly value: Answered<N> | undefined; readonly pending: number }> {
  const { stale } = await freshenDesk(db);
  const came = await within(asked(db, name, what).then((value) => ({ value })));
  return { value: came?.value, pending: stale };
}
