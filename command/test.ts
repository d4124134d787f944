import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { migrateDatabase } from "#db/migrate";
import { buildApp } from "./build.ts";
import { ensureDatabase } from "./cluster.ts";
import { needCaddy, needChromium, needHeadless, needPooler } from "./packages.ts";
import { MIGRATIONS, ROOT } from "./paths.ts";
import { aside, TOOK_TOO_LONG } from "./run.ts";
import { say } from "./say.ts";
import { setDemo, withThrowawayCluster } from "./throwaway.ts";

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
const LIMIT_S = { step: 1500, units: 2700, trial: 2100, system: 2700, browser: 3000 };

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
  paths: readonly string[] = [],
  env: Readonly<Record<string, string>> = {},
): Promise<Count> {
  return phase(
    name,
    "node",
    [...JEST, "--config", config, "--json", `--outputFile=${file}`, "--silent", ...paths],
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

/** Tests of one folder that need a database, on a cluster of their own. */
const system = (
  name: string,
  address: string,
  folder: string,
  file: string,
  paths: readonly string[],
  env: Readonly<Record<string, string>> = {},
) =>
  jest(name, "tests/jest.config.js", join(folder, file), LIMIT_S.system, paths, {
    TEST_DATABASE_URL: `${address}/storage`,
    ...env,
  });

const trials = () =>
  step(
    "The coverage trials on the stand-in bike, in short",
    "node",
    ["--import", "tsx", join(ROOT, "command", "main.ts"), "trial", "--short"],
    LIMIT_S.trial,
  );

/** One after the other, as a lane beside others. */
async function lane(phases: readonly (() => Promise<Count>)[]): Promise<readonly Count[]> {
  const counts: Count[] = [];
  for (const each of phases) counts.push(await each());
  return counts;
}

/** How many requests are sent that nobody should send: with every change, and with all. */
const HOSTILE = { change: "500", all: "5000" };
/** How often a file is damaged, likewise. */
const DAMAGED = { change: "2000", all: "10000" };

/**
 * What every change is tested by, or everything; the last line counts it all. Before the interface, which takes both cores, phases run
 * in lanes of their own.
 *
 * @param args `--all` adds the interface in depth and the trials, and sends and damages more
 */
export async function test(args: readonly string[]): Promise<number> {
  const much = args.includes("--all") ? "all" : "change";
  const [chromium, headless] = [needChromium(), needHeadless()];
  needCaddy();
  needPooler();
  const folder = mkdtempSync(join(tmpdir(), "barometron-report-"));
  const beganMs = performance.now();
  try {
    const counts = await withThrowawayCluster(async ({ address }) => {
      process.env["BAROMETRON_BUILD"] = await buildApp();
      // On a machine busy with other work, reckoning that gives way to it hardly comes on.
      process.env["BAROMETRON_GIVES_WAY"] = "0";
      await ensureDatabase(address, "storage");
      await migrateDatabase(`${address}/storage`, MIGRATIONS);
      const lanes = await Promise.all([
        lane([
          () =>
            jest(
              "Units and properties",
              "jest.config.js",
              join(folder, "unit.json"),
              LIMIT_S.units,
              ["--maxWorkers=2"],
              {
                PROPERTY_MANY: DAMAGED[much],
              },
            ),
          () => step("Lint and formatting", "npm", ["run", "-s", "lint"]),
        ]),
        lane([
          () => step("Types", "npm", ["run", "-s", "typecheck"]),
          () =>
            system("What nobody should send", address, folder, "hostile.json", ["tests/hostile"], {
              HOSTILE: HOSTILE[much],
            }),
          ...(much === "all" ? [trials] : []),
        ]),
        lane([
          () => system("Storage and restores", address, folder, "storage.json", ["tests/db"], { MUCH: much }),
          () => system("What breaks", address, folder, "trials.json", ["tests/trials"]),
        ]),
        lane([() => system("The command", address, folder, "command.json", ["tests/command"])]),
      ]);
      // Each spec file works on a copy of it.
      await ensureDatabase(address, TEMPLATE);
      await setDemo(`${address}/${TEMPLATE}`);
      const screens = await browser(join(folder, "browser.json"), {
        DESK_ADDRESS: address,
        DESK_TEMPLATE: TEMPLATE,
        CHROMIUM: headless,
        // For what a person's own browser keeps on its disk.
        CHROMIUM_WHOLE: chromium,
        E2E_MUCH: much,
      });
      return [...lanes.flat(), screens];
    });
    const passed = counts.reduce((sum, count) => sum + count.passed, 0);
    const failed = counts.reduce((sum, count) => sum + count.failed, 0);
    say(`\n${((performance.now() - beganMs) / 1000).toFixed(0)} s in all`);
    process.stdout.write(`${passed} passed, ${failed} failed\n`);
    return failed === 0 ? 0 : 1;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
