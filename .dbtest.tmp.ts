import { withThrowawayCluster } from "./command/throwaway.ts";
import { ensureDatabase } from "./command/cluster.ts";
import { migrateDatabase } from "./db/migrate.ts";
import { spawnSync } from "node:child_process";
await withThrowawayCluster(async ({ address }) => {
  await ensureDatabase(address, "storage");
  await migrateDatabase(`${address}/storage`, "./db/migrations");
  spawnSync("node", ["--experimental-vm-modules","--disable-warning=ExperimentalWarning","node_modules/jest/bin/jest.js","--config","tests/jest.config.js",...process.argv.slice(2)], { cwd: ".", stdio: "inherit", env: { ...process.env, TEST_DATABASE_URL: `${address}/storage` } });
});
