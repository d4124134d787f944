import { useEffect, useState } from "react";

/** Where the service worker keeps pages, their data and records; see command/serviceWorker.ts. */
const CACHES = { pages: "pages", data: "data", records: "records" } as const;

/** Whether a ride can be taken where there is no network: nobody knows yet, it is being stored, it can, or it cannot. */
export type Leaving = "unknown" | "storing" | "ready" | "not";

/** Stores an address for use with no network; false when it could not be fetched or kept. */
async function store(cacheName: string, address: string): Promise<boolean> {
  try {
    await (await caches.open(cacheName)).add(address);
    return true;
  } catch {
    return false;
  }
}

/**
 * Stores what a ride needs with no network, what it needs most first: the record the forecast is reckoned from, the ride's
 * page and its data; then the run sheet and the list of rides.
 *
 * @returns whether the ride works with no network by now
 */
export function useOfflinePrefetch(testId: string, planId: string | null, stamp: string): Leaving {
  const [leaving, setLeaving] = useState<Leaving>("unknown");
  useEffect(() => {
    if (!("serviceWorker" in navigator) || !import.meta.env.PROD) return;
    let left = false;
    const tell = (now: Leaving) => {
      if (!left) setLeaving(now);
    };
    const put = async () => {
      // Without a service worker, as where a browser forbids it, nobody would hand the stored page out.
      if (!(await navigator.serviceWorker.getRegistration())) return;
      tell("storing");
      await navigator.serviceWorker.ready;
      const needed = [
        await store(CACHES.records, `/strip/${testId}/record`),
        await store(CACHES.pages, `/ride/${testId}`),
        await store(CACHES.data, `/ride/${testId}.data`),
      ];
      tell(needed.every(Boolean) ? "ready" : "not");
      for (const page of ["/ride", ...(planId ? [`/plan/${planId}/pocket`] : [])]) {
        await store(CACHES.pages, page);
        await store(CACHES.data, `${page}.data`);
      }
    };
    // A worker that is still being installed registers in a moment.
    const timer = setTimeout(() => void put().catch(() => tell("not")), SETTLED_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [planId, stamp, testId]);
  return leaving;
}

/** The page comes first: storing it begins when it has settled, ms. */
const SETTLED_MS = 300;
