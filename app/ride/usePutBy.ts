import { useEffect } from "react";

/** Where the service worker keeps pages, their data and records; see command/serviceWorker.ts. */
const CACHES = { pages: "pages", data: "data", records: "records" } as const;

/**
 * Puts by what a ride needs with no network: its page and its plan's run sheet as they are now, the list of rides, and the
 * record the forecast is reckoned from.
 */
export function usePutBy(testId: string, planId: string | null, stamp: string): void {
  useEffect(() => {
    if (!("serviceWorker" in navigator) || !import.meta.env.PROD) return;
    const pages = ["/ride", `/ride/${testId}`, ...(planId ? [`/plan/${planId}/pocket`] : [])];
    const put = async () => {
      await navigator.serviceWorker.ready;
      const add = async (name: string, addresses: readonly string[]) => {
        const cache = await caches.open(name);
        await Promise.all(addresses.map((address) => cache.add(address).catch(() => undefined)));
      };
      await add(CACHES.pages, pages);
      await add(
        CACHES.data,
        pages.map((page) => `${page}.data`),
      );
      await add(CACHES.records, [`/strip/${testId}/record`]);
    };
    void put().catch(() => undefined);
  }, [planId, stamp, testId]);
}
