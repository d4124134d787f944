import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // All routes from the start: a link taken with no network asks nobody for its route.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true, v8_splitRouteModules: true, v8_viteEnvironmentApi: true },
} satisfies Config;
