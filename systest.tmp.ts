import { startCluster, ensureDatabase } from "./command/cluster.ts";
import { migrateDatabase } from "#db/migrate";
import { show } from "./command/run.ts";
import { mkdtempSync } from "node:fs";
const folder = mkdtempSync("/tmp/bt-");
const c = await startCluster({ folder, port: 55180, throwaway: true });
await ensureDatabase(c.address!, "storage");
await migrateDatabase(c.address + "/storage", "db/migrations");
await show(
  "node",
  [
    "--experimental-vm-modules",
    "--disable-warning=ExperimentalWarning",
    "node_modules/jest/bin/jest.js",
    "--config",
    "tests/jest.config.js",
  ],
  { TEST_DATABASE_URL: c.address + "/storage" },
);
c.stop();
