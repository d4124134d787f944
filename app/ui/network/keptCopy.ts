/**
 * Whether what a page shows is the service worker's copy, handed out because the desk did not answer in time: it may be older than
 * what the desk holds by now. The worker says so in Server-Timing, the one header of its own answer that a page can read.
 */

const KEPT = "kept";

let isCopy = false;
const listeners = new Set<() => void>();

function note(now: boolean): void {
  if (now === isCopy) return;
  isCopy = now;
  for (const listener of listeners) listener();
}

/** Notes of an answer with a page's data whether it is a copy. */
export const noteCopy = (headers: Headers): void => note(headers.get("Server-Timing") === KEPT);

/** Notes it of the page itself, as it was loaded. */
export function noteOwnCopy(): void {
  const [own] = performance.getEntriesByType("navigation") as PerformanceNavigationTiming[];
  note(own?.serverTiming?.some(({ name }) => name === KEPT) ?? false);
}

export const copyShown = (): boolean => isCopy;
export function onCopy(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
