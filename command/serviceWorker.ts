import { join } from "node:path";
import { generateSW } from "workbox-build";
import { BUILD } from "./paths.ts";

/** How long a page waits for the network before its kept copy is shown, s. */
const PATIENCE_S = 3;
/** Pages, answers and records kept for want of a network, each. */
const MOST = 120;

/** Asks the network first; what it gave last is kept for when it does not answer. */
const networkFirst = (cacheName: string) => ({
  handler: "NetworkFirst" as const,
  options: {
    cacheName,
    networkTimeoutSeconds: PATIENCE_S,
    expiration: { maxEntries: MOST },
    cacheableResponse: { statuses: [200] },
  },
});

/**
 * Makes the service worker of the built client: its files are kept whole, pages and their data as they were last seen. It
 * waits before it replaces an older one until a page tells it to.
 */
export async function buildServiceWorker(): Promise<void> {
  const client = join(BUILD, "client");
  await generateSW({
    globDirectory: client,
    globPatterns: ["assets/**/*.{js,css,woff2}", "icon.svg", "offline.html"],
    dontCacheBustURLsMatching: /^assets\//,
    swDest: join(client, "sw.js"),
    cacheId: "barometron",
    inlineWorkboxRuntime: true,
    sourcemap: false,
    clientsClaim: true,
    skipWaiting: false,
    cleanupOutdatedCaches: true,
    runtimeCaching: [
      {
        urlPattern: ({ request, sameOrigin }) => sameOrigin && request.mode === "navigate",
        ...networkFirst("pages"),
        options: {
          ...networkFirst("pages").options,
          precacheFallback: { fallbackURL: "/offline.html" },
        },
      },
      // A file of a newer build, met before its service worker took over.
      { urlPattern: /\/assets\//, handler: "CacheFirst", options: { cacheName: "assets" } },
      // A ride's data answers whatever parts of it are asked for: one copy serves all.
      {
        urlPattern: ({ url, sameOrigin }) => sameOrigin && /^\/ride(\/[^/]+)?\.data$/.test(url.pathname),
        ...networkFirst("data"),
        options: { ...networkFirst("data").options, matchOptions: { ignoreSearch: true } },
      },
      { urlPattern: /\.data(\?|$)/, ...networkFirst("data") },
      { urlPattern: /\/strip\/[^/]+\/record$/, ...networkFirst("records") },
    ],
  });
}
