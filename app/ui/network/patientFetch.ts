/**
 * Requests of the router that find no network wait for it and are sent again, so that a lost network takes no page and
 * nothing that was typed: the page stays as it is until its answer comes.
 */

import { noteCopy } from "./keptCopy";

/** How long until a request is sent again: at first, at most, and how that grows. */
const FIRST_MS = 1000;
const MOST_MS = 15_000;
const GROWS = 1.7;

/** Header by which the server knows a save that is sent again: what it makes has this id. */
export const ONCE = "x-once";

/** Requests that wait for a network: saves, and pages. */
export interface Waiting {
  readonly saves: number;
  readonly pages: number;
}
export const NOTHING_WAITS: Waiting = { saves: 0, pages: 0 };

let waiting = NOTHING_WAITS;
const listeners = new Set<() => void>();
/** Sends what waits at once. */
const wakers = new Set<() => void>();

function told(change: Partial<Waiting>): void {
  waiting = {
    saves: Math.max(0, waiting.saves + (change.saves ?? 0)),
    pages: Math.max(0, waiting.pages + (change.pages ?? 0)),
  };
  for (const listener of listeners) listener();
}

/** What waits now, for a page to show. */
export const waitingNow = (): Waiting => waiting;
export function onWaiting(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
/** Tries again what waits. */
export const tryNow = (): void => {
  for (const wake of [...wakers]) wake();
};

/** A pause that ends early when somebody asks, or when the request is given up. */
function pause(ms: number, signal: AbortSignal | null | undefined): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      wakers.delete(done);
      signal?.removeEventListener("abort", done);
      resolve();
    };
    const timer = setTimeout(done, ms);
    wakers.add(done);
    signal?.addEventListener("abort", done);
  });
}

/** Whether a request is one of the router's own, for a page's data or an action. */
const isRouters = (url: string) => /\.data($|\?)/.test(url);

/** An answer that broke off: whatever ended it, such as a service worker that was replaced, it may be asked for again. */
class BrokenOff extends TypeError {}

/** Answers that have no body. */
const BODILESS = new Set([101, 204, 205, 304]);

/**
 * An answer with all of its body here. The router reads it as a stream: one that breaks off, or is given up in the middle, would fail
 * where nobody hears of it; so it fails here, and is sent again or given up.
 */
async function whole(answer: Response): Promise<Response> {
  if (BODILESS.has(answer.status) || !answer.body) return answer;
  const { status, statusText, headers } = answer;
  noteCopy(headers);
  const body = await answer.arrayBuffer().catch((cause: unknown) => {
    throw new BrokenOff("The answer broke off.", { cause });
  });
  return new Response(body, { status, statusText, headers });
}

/**
 * A fetch that waits for a network. Requests that are not the router's, and those that were given up, fail as they do.
 *
 * @param send the browser's own fetch; @param newId a fresh id for a save, the same however often it is sent
 */
export function patientFetch(send: typeof fetch, newId: () => string): typeof fetch {
  return async (input, init) => {
    if (typeof input === "object" && "body" in input && input.body) return send(input, init);
    const url = typeof input === "string" ? input : input instanceof URL ? input.href : input.url;
    if (!isRouters(url)) return send(input, init);
    const isSave = (init?.method ?? "GET").toUpperCase() !== "GET";
    const headers = new Headers(init?.headers);
    if (isSave) headers.set(ONCE, newId());
    const one: Partial<Waiting> = isSave ? { saves: 1 } : { pages: 1 };
    const less: Partial<Waiting> = isSave ? { saves: -1 } : { pages: -1 };
    let counted = false;
    try {
      for (let waitMs = FIRST_MS; ; waitMs = Math.min(MOST_MS, waitMs * GROWS)) {
        try {
          return await whole(await send(input, { ...init, headers }));
        } catch (error) {
          if (!(error instanceof TypeError) || init?.signal?.aborted) throw error;
          if (!counted) told(one);
          counted = true;
          await pause(waitMs, init?.signal);
          if (init?.signal?.aborted) throw error;
        }
      }
    } finally {
      if (counted) told(less);
    }
  };
}
