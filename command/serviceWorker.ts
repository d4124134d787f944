import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { generateSW, type RuntimeCaching } from "workbox-build";
import { BUILD } from "./paths.ts";

/** How long a page waits for the network before its kept copy is shown, s. */
const PATIENCE_S = 3;
/** Pages, answers and records kept for want of a network, each. */
const MOST = 120;

/** What goes into the worker as text: a kept copy names itself in Server-Timing, the one header of its own answer that a page can read. */
const copies: NonNullable<RuntimeCaching["options"]>["plugins"] = [
  {
    cachedResponseWillBeUsed: ({ cachedResponse }) => {
      if (!cachedResponse) return Promise.resolve(cachedResponse);
      const headers = new Headers(cachedResponse.headers);
      headers.set("Server-Timing", "kept");
      return Promise.resolve(new Response(cachedResponse.body, { status: 200, headers }));
    },
  },
];

/** Asks the network first; what it gave last is kept for when it does not answer. */
const networkFirst = (cacheName: string) => ({
  handler: "NetworkFirst" as const,
  options: {
    cacheName,
    networkTimeoutSeconds: PATIENCE_S,
    expiration: { maxEntries: MOST },
    cacheableResponse: { statuses: [200] },
    plugins: copies,
  },
});

/** What a ride needs in the field: its own pages, the run sheet, and the worker that forecasts. */
const IN_THE_FIELD = ["root", "ui/frame", "ui/inside", "ride/ride", "ride/list", "plan/pocket"];

interface RouteFiles {
  readonly module: string;
  readonly imports?: readonly string[];
  readonly css?: readonly string[];
}

/** The files behind what is used in the field, as the build lists them. */
function fieldFiles(client: string): ReadonlySet<string> {
  const name = readdirSync(join(client, "assets")).find((file) => /^manifest-.*\.js$/.test(file));
  if (!name) throw new Error("the build lists no routes");
  const text = readFileSync(join(client, "assets", name), "utf8");
  const { entry, routes } = JSON.parse(text.slice(text.indexOf("{"), text.lastIndexOf("}") + 1)) as {
    entry: RouteFiles;
    routes: Readonly<Record<string, RouteFiles>>;
  };
  const parts = [
    entry,
    ...IN_THE_FIELD.map((id) => {
      const route = routes[id];
      if (!route) throw new Error(`there is no route ${id} for use in the field`);
      return route;
    }),
  ];
  const files = parts.flatMap(({ module, imports = [], css = [] }) => [module, ...imports, ...css]);
  return new Set([...files.map((file) => file.replace(/^\//, "")), `assets/${name}`]);
}

/**
 * Makes the service worker of the built client: what a ride needs is kept first, pages and their data as they were last
 * seen; the rest of the files is named in rest.json, for pages to have it kept when they have nothing else to do. It waits
 * before it replaces an older one until a page tells it to.
 */
export async function buildServiceWorker(): Promise<void> {
  const client = join(BUILD, "client");
  const field = fieldFiles(client);
  const isField = (file: string) =>
    field.has(file) ||
    /^assets\/(reckon\.worker-.*\.js|.*latin-(wght-normal|400-normal)-.*\.woff2)$/.test(file);
  const assets = readdirSync(join(client, "assets"))
    .map((name) => `assets/${name}`)
    .filter((file) => /\.(js|css|woff2)$/.test(file));
  writeFileSync(
    join(client, "rest.json"),
    JSON.stringify(assets.filter((file) => !isField(file)).map((file) => `/${file}`)),
  );
  await generateSW({
    globDirectory: client,
    globPatterns: [...assets.filter(isField), "icon.svg", "offline.html"],
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
      // Files of other pages, and those of a newer build met before its service worker took over.
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
