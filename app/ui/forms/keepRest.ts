/** A pause after each file, so that nothing a person waits for is held up, ms. */
const PAUSE_MS = 150;

const idle = () =>
  new Promise<void>((resolve) => {
    if ("requestIdleCallback" in window) requestIdleCallback(() => resolve());
    else setTimeout(resolve, PAUSE_MS);
  });

let stopped = false;

/** Leaves off: something more important is to be done. */
export function stopKeeping(): void {
  stopped = true;
}

/** Has the files of all other pages kept, one by one while the browser has nothing else to do. */
export async function keepRest(): Promise<void> {
  const response = await fetch("/rest.json");
  if (!response.ok) return;
  const cache = await caches.open("assets");
  for (const file of (await response.json()) as readonly string[]) {
    if (stopped) return;
    if (await cache.match(file)) continue;
    await idle();
    await cache.add(file).catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}
