import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { buildApp } from "./build.ts";
import { ensureDatabase, startCluster } from "./cluster.ts";
import { needChromium } from "./packages.ts";
import { MIGRATIONS } from "./paths.ts";
import { freePort } from "./ports.ts";
import { show } from "./run.ts";
import { say } from "./say.ts";
import { serve } from "./serve.ts";

interface Count {
  readonly passed: number;
  readonly failed: number;
}

const JEST = [
  "--experimental-vm-modules",
  "--disable-warning=ExperimentalWarning",
  "node_modules/jest/bin/jest.js",
];

/** A step that is one test: it passes when its program ends well. */
async function step(name: string, program: string, args: readonly string[]): Promise<Count> {
  say(`\n== ${name}`);
  return (await show(program, args)) === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function jest(
  name: string,
  config: string,
  report: string,
  env: Readonly<Record<string, string>> = {},
): Promise<Count> {
  say(`\n== ${name}`);
  await show("node", [...JEST, "--config", config, "--json", `--outputFile=${report}`, "--silent"], env);
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, "utf8"),
  ) as Record<string, number>;
  return { passed: numPassedTests ?? 0, failed: (numFailedTests ?? 0) + (numRuntimeErrorTestSuites ?? 0) };
}

async function browser(report: string, env: Readonly<Record<string, string>>): Promise<Count> {
  say("\n== The interface in Chromium");
  const code = await show("npx", ["playwright", "test", "--config", "tests/e2e/playwright.config.ts"], {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  });
  const { stats } = JSON.parse(readFileSync(report, "utf8")) as {
    stats: { expected: number; unexpected: number; flaky: number };
  };
  const failed = stats.unexpected + stats.flaky;
  return { passed: stats.expected, failed: failed === 0 && code !== 0 ? 1 : failed };
}

/** Everything, on a cluster of its own that is thrown away; the last line counts it all. */
export async function test(): Promise<number> {
  const chromium = needChromium();
  const folder = mkdtempSync(join(tmpdir(), "barometron-test-"));
  // The database runs as a user of its own, who must be able to enter.
  chmodSync(folder, 0o755);
  const counts: Count[] = [];
  counts.push(await step("Types", "npm", ["run", "-s", "typecheck"]));
  counts.push(await step("Lint and formatting", "npm", ["run", "-s", "lint"]));
  counts.push(await jest("Units and properties", "jest.config.js", join(folder, "unit.json")));
  const cluster = await startCluster({ folder, port: 55_180, throwaway: true });
  try {
    const databases = cluster.address ?? "";
    for (const name of ["storage", "interface"]) {
      await ensureDatabase(databases, name);
      await migrateDatabase(`${databases}/${name}`, MIGRATIONS);
    }
    process.env["BAROMETRON_BUILD"] = buildApp();
    counts.push(
      await jest("Storage and the command", "tests/jest.config.js", join(folder, "system.json"), {
        TEST_DATABASE_URL: `${databases}/storage`,
      }),
    );
    const { db, close } = connect(`${databases}/interface`, 2);
    await seedOnce(db);
    await close();
    process.env["DATABASE_URL"] = `${databases}/interface`;
    process.env["NODE_ENV"] = "production";
    const serving = await serve(await freePort(4380));
    counts.push(
      await browser(join(folder, "browser.json"), { BASE_URL: serving.address, CHROMIUM: chromium }),
    );
    await serving.close();
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  const passed = counts.reduce((sum, count) => sum + count.passed, 0);
  const failed = counts.reduce((sum, count) => sum + count.failed, 0);
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
