import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { migrateDatabase } from "#db/migrate";
import { buildApp } from "./build.ts";
import { ensureDatabase } from "./cluster.ts";
import { needChromium } from "./packages.ts";
import { MIGRATIONS } from "./paths.ts";
import { aside, show, type Ran } from "./run.ts";
import { say } from "./say.ts";
import { serveDemo, withThrowawayCluster } from "./throwaway.ts";

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

/** The same for a program that ran beside the others. */
async function told(name: string, ran: Promise<Ran>): Promise<Count> {
  const { code, out } = await ran;
  say(`\n== ${name}\n${out.trimEnd()}`);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
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

/** Storage, command and interface tests, on a cluster of their own. */
function systemTests(chromium: string): Promise<readonly Count[]> {
  return withThrowawayCluster(async ({ address = "" }, folder) => {
    for (const name of ["storage", "interface"]) await ensureDatabase(address, name);
    await migrateDatabase(`${address}/storage`, MIGRATIONS);
    await buildApp();
    const system = await jest(
      "Storage and the command",
      "tests/jest.config.js",
      join(folder, "system.json"),
      {
        TEST_DATABASE_URL: `${address}/storage`,
      },
    );
    const serving = await serveDemo(`${address}/interface`);
    const screens = await browser(join(folder, "browser.json"), {
      BASE_URL: serving.address,
      CHROMIUM: chromium,
    });
    await serving.close();
    return [system, screens];
  });
}

/** Everything; the last line counts it all. */
export async function test(): Promise<number> {
  const chromium = needChromium();
  const folder = mkdtempSync(join(tmpdir(), "barometron-report-"));
  // The trial takes one processor for over a minute: it runs beside types and lint.
  const trial = aside("node", ["--import", "tsx", "command/main.ts", "trial"]);
  const counts = [
    await step("Types", "npm", ["run", "-s", "typecheck"]),
    await step("Lint and formatting", "npm", ["run", "-s", "lint"]),
    await jest("Units and properties", "jest.config.js", join(folder, "unit.json")),
    await told("The coverage trials on the stand-in bike", trial),
    ...(await systemTests(chromium)),
  ];
  rmSync(folder, { recursive: true, force: true });
  const passed = counts.reduce((sum, count) => sum + count.passed, 0);
  const failed = counts.reduce((sum, count) => sum + count.failed, 0);
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
