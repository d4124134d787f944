import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { buildApp } from "./build.ts";
import { ensureDatabase } from "./cluster.ts";
import { needChromium } from "./packages.ts";
import { MIGRATIONS, ROOT } from "./paths.ts";
import { aside, TOOK_TOO_LONG } from "./run.ts";
import { say } from "./say.ts";
import { withThrowawayCluster } from "./throwaway.ts";

interface Count {
  readonly passed: number;
  readonly failed: number;
}

const NONE: Count = { passed: 0, failed: 1 };

const JEST = [
  "--experimental-vm-modules",
  "--disable-warning=ExperimentalWarning",
  "node_modules/jest/bin/jest.js",
];
/** After this a phase hangs: none takes as long on a machine with every core busy, s. */
const LIMIT_S = { step: 900, units: 1500, trial: 1200, system: 1800, browser: 2700 };

/** Runs a phase, prints its output whole when it is done, with the seconds it took. */
async function phase(
  name: string,
  program: string,
  args: readonly string[],
  limitS: number,
  count: (code: number) => Count,
  env: Readonly<Record<string, string>> = {},
): Promise<Count> {
  const beganMs = performance.now();
  const { code, out } = await aside(program, args, { limitS, env });
  const seconds = ((performance.now() - beganMs) / 1000).toFixed(0);
  say(`\n== ${name}: ${seconds} s${code === TOOK_TOO_LONG ? ", over its limit" : ""}\n${out.trimEnd()}`);
  return count(code);
}

/** A phase that is one test: it passes when its program ends well. */
const step = (name: string, program: string, args: readonly string[], limitS = LIMIT_S.step) =>
  phase(name, program, args, limitS, (code) =>
    code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 },
  );

/** What a runner wrote of its tests, read when it is done; a runner that wrote nothing failed. */
function reported<T>(file: string, read: (report: T) => Count): (code: number) => Count {
  return (code) => {
    if (!existsSync(file)) return NONE;
    const count = read(JSON.parse(readFileSync(file, "utf8")) as T);
    return count.failed === 0 && code !== 0 ? { ...count, failed: 1 } : count;
  };
}

function jest(
  name: string,
  config: string,
  file: string,
  limitS: number,
  env: Readonly<Record<string, string>> = {},
): Promise<Count> {
  return phase(
    name,
    "node",
    [...JEST, "--config", config, "--json", `--outputFile=${file}`, "--silent"],
    limitS,
    reported<Record<string, number>>(file, (report) => ({
      passed: report["numPassedTests"] ?? 0,
      failed: (report["numFailedTests"] ?? 0) + (report["numRuntimeErrorTestSuites"] ?? 0),
    })),
    env,
  );
}

function browser(file: string, env: Readonly<Record<string, string>>): Promise<Count> {
  return phase(
    "The interface in Chromium",
    "npx",
    ["playwright", "test", "--config", "tests/e2e/playwright.config.ts"],
    LIMIT_S.browser,
    reported<{ stats: { expected: number; unexpected: number; flaky: number } }>(file, ({ stats }) => ({
      passed: stats.expected,
      failed: stats.unexpected + stats.flaky,
    })),
    { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
  );
}

const TEMPLATE = "demo_template";

/** The demo desk in a database of its own, every figure reckoned: each spec file works on a copy of it. */
async function makeTemplate(address: string): Promise<void> {
  await ensureDatabase(address, TEMPLATE);
  const url = `${address}/${TEMPLATE}`;
  await migrateDatabase(url, MIGRATIONS);
  const { db, close } = connect(url, 2);
  try {
    await seedOnce(db);
    const { analyse } = await import("#app/services/compute/analyse");
    const { staleTests } = await import("#db/results");
    for (const id of await staleTests(db, process.env["BAROMETRON_BUILD"]!, 500)) await analyse(db, id);
  } finally {
    await close();
  }
}

/** Storage, command and interface tests, on a cluster of their own; what else is to be done runs beside the first two. */
function systemTests(
  chromium: string,
  folder: string,
  beside: () => Promise<readonly Count[]>,
): Promise<readonly Count[]> {
  return withThrowawayCluster(async ({ address }) => {
    process.env["BAROMETRON_BUILD"] = await buildApp();
    await ensureDatabase(address, "storage");
    await migrateDatabase(`${address}/storage`, MIGRATIONS);
    const [others, system] = await Promise.all([
      beside(),
      jest(
        "Storage, the command, and what breaks",
        "tests/jest.config.js",
        join(folder, "system.json"),
        LIMIT_S.system,
        {
          TEST_DATABASE_URL: `${address}/storage`,
        },
      ),
    ]);
    await makeTemplate(address);
    const screens = await browser(join(folder, "browser.json"), {
      DESK_ADDRESS: address,
      DESK_TEMPLATE: TEMPLATE,
      CHROMIUM: chromium,
    });
    return [...others, system, screens];
  });
}

/** Everything; the last line counts it all. Phases that lean on one core run beside one another. */
export async function test(): Promise<number> {
  const chromium = needChromium();
  const folder = mkdtempSync(join(tmpdir(), "barometron-report-"));
  const beganMs = performance.now();
  try {
    const types = await step("Types", "npm", ["run", "-s", "typecheck"]);
    const rest = await systemTests(chromium, folder, async () => [
      await jest("Units and properties", "jest.config.js", join(folder, "unit.json"), LIMIT_S.units),
      await step("Lint and formatting", "npm", ["run", "-s", "lint"]),
      await step(
        "The coverage trials on the stand-in bike, in short",
        "node",
        ["--import", "tsx", join(ROOT, "command", "main.ts"), "trial", "--short"],
        LIMIT_S.trial,
      ),
    ]);
    const counts = [types, ...rest];
    const passed = counts.reduce((sum, count) => sum + count.passed, 0);
    const failed = counts.reduce((sum, count) => sum + count.failed, 0);
    say(`\n${((performance.now() - beganMs) / 1000).toFixed(0)} s in all`);
    process.stdout.write(`${passed} passed, ${failed} failed\n`);
    return failed === 0 ? 0 : 1;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
