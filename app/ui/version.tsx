import { useEffect, useRef, useState } from "react";
import { keepRest, stopKeeping } from "#app/ui/forms/keepRest";

/** How often a newer worker is asked to take over, until it has, ms; and how often at most before it is made to. */
const ASK_MS = 1500;
const MOST_ASKED = 8;

/** Whether the server answers now. */
const isReached = () =>
  fetch("/sw.js", { cache: "no-store" }).then(
    ({ ok }) => ok,
    () => false,
  );

/**
 * Registers the service worker, which keeps the pages for when there is no network. Tells of a newer one that waits: it
 * takes over only when the person says so.
 */
function useNewVersion() {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  const asked = useRef(false);
  useEffect(() => {
    if (!import.meta.env.PROD || !("serviceWorker" in navigator)) return;
    const { serviceWorker } = navigator;
    const taken = () => {
      if (asked.current) location.reload();
    };
    serviceWorker.addEventListener("controllerchange", taken);
    const offer = (worker: ServiceWorker | null) => {
      if (worker?.state === "installed" && serviceWorker.controller) setWaiting(worker);
    };
    const watch = (worker: ServiceWorker | null) =>
      worker?.addEventListener("statechange", () => offer(worker));
    const check: { stop?: ReturnType<typeof setInterval> } = {};
    serviceWorker.register("/sw.js").then(
      (registration: ServiceWorkerRegistration | undefined) => {
        // Some browsers refuse without a word.
        if (!registration) return;
        offer(registration.waiting);
        watch(registration.installing);
        registration.addEventListener("updatefound", () => watch(registration.installing));
        void serviceWorker.ready.then(keepRest).catch(() => undefined);
        check.stop = setInterval(() => void registration.update().catch(() => undefined), 15 * 60_000);
      },
      () => undefined,
    );
    return () => {
      serviceWorker.removeEventListener("controllerchange", taken);
      clearInterval(check.stop);
    };
  }, []);
  const take = () => {
    asked.current = true;
    stopKeeping();
    // A worker that still answers somebody takes over when it has: it is asked until it does.
    let asks = 0;
    const ask = async () => {
      asks += 1;
      const registration = await navigator.serviceWorker.getRegistration();
      if (registration && !registration.waiting && !registration.installing) location.reload();
      else if (registration && asks > MOST_ASKED && (await isReached())) {
        // The old one never ends with a request: it is put away, and the page registers the new one by itself.
        await registration.unregister();
        location.reload();
      } else (registration?.waiting ?? waiting)?.postMessage({ type: "SKIP_WAITING" });
    };
    void ask();
    setInterval(() => void ask().catch(() => undefined), ASK_MS);
  };
  return waiting ? take : null;
}

/** A newer version waits: it is taken up with a tap, never by itself. */
export function NewVersion() {
  const take = useNewVersion();
  if (!take) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-3 border-b border-rule bg-sheet px-4 py-1.5 text-sm md:px-6 print:hidden"
    >
      <span>A new version is ready. The page is loaded anew; entries of a ride stay.</span>
      <button type="button" className="button button-plain" onClick={take}>
        Take it up
      </button>
    </div>
  );
}
