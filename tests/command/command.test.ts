import { once } from "node:events";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import { freePort } from "../../command/ports";

const folder = mkdtempSync(join(tmpdir(), "barometron-command-"));
// The database runs as a user of its own, who must be able to enter.
chmodSync(folder, 0o755);
const data = join(folder, "data");
/** A port of this run's own: an earlier run that was broken off may still hold another. */
const port = await freePort(4700 + (process.pid % 200));
const env = { ...process.env, BAROMETRON_DATA: data, DATABASE_URL: "", PORT: String(port) };

const calc = (text: string) => spawnSync("./barometron", ["calc", "-"], { input: text, encoding: "utf8" });

describe("calc", () => {
  test("answers one line a request and ends well", () => {
    const { stdout, status } = calc('{"calculation":"openCircuit","input":{"chemistry":"NMC","q":0.5}}');
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({ ocvV: 3.72 });
  });
  test("an error is a line of JSON with path and sentence, and exit code 1", () => {
    const { stdout, status } = calc(
      '[{"calculation":"openCircuit","input":{"chemistry":"NMC","q":2}},{"calculation":"openCircuit","input":{"chemistry":"NMC","q":1}}]',
    );
    const lines = stdout
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as { error?: { path: string; sentence: string }; ocvV?: number });
    expect(status).toBe(1);
    expect(lines[0]!.error).toMatchObject({
      path: expect.stringContaining("input"),
      sentence: expect.any(String),
    });
    expect(lines[1]!.ocvV).toBe(4.2);
  });
  test("reads a file, and says when there is none", () => {
    const file = join(folder, "one.json");
    writeFileSync(
      file,
      '{"calculation":"plain","input":{"startPercent":90,"endPercent":40,"labelWh":500,"distanceMi":20}}',
    );
    expect(JSON.parse(spawnSync("./barometron", ["calc", file], { encoding: "utf8" }).stdout)).toMatchObject({
      energyWh: 250,
    });
    expect(spawnSync("./barometron", ["calc", join(folder, "none.json")], { encoding: "utf8" }).status).toBe(
      1,
    );
  });
});

describe("standin", () => {
  const make = (...args: readonly string[]) =>
    spawnSync("./barometron", ["standin", ...args, "--out", folder], { encoding: "utf8" });
  test("writes a bundle that calc answers in full, and its truth apart", () => {
    expect(make("--seed", "7", "--scenario", "slip").status).toBe(0);
    const { stdout, status } = spawnSync("./barometron", ["calc", join(folder, "slip-7.json")], {
      encoding: "utf8",
    });
    expect(status).toBe(0);
    const [answer] = (JSON.parse(stdout) as { tests: Record<string, unknown>[] }).tests;
    for (const key of [
      "best",
      "flags",
      "bestWithoutFlags",
      "budget",
      "capacity",
      "packLearned",
      "thresholds",
      "parts",
      "alone",
      "surer",
    ])
      // prettier-ignore
      expect(answer).toHaveProperty(key);
    const truth = JSON.parse(readFileSync(join(folder, "slip-7.truth.json"), "utf8")) as {
      whPerMi: number;
      slip: { entryId: string };
    };
    expect((answer!["flags"] as { rootId: string }[])[0]!.rootId).toBe(truth.slip.entryId);
    expect(readFileSync(join(folder, "slip-7.json"), "utf8")).not.toContain("whPerMi");
  });
  test("an unknown scenario is answered with those there are; a seed must be a number", () => {
    const unknown = make("--scenario", "moon");
    expect([unknown.status, unknown.stderr]).toEqual([2, expect.stringContaining("lost-sky")]);
    expect(make("--seed", "many").status).toBe(2);
  });
});

test("a word it does not know is answered with those it does", () => {
  const { status, stderr } = spawnSync("./barometron", ["fly"], { encoding: "utf8" });
  expect(status).toBe(2);
  expect(stderr).toContain("./barometron demo");
});

interface Started {
  readonly child: ChildProcess;
  readonly address: string;
  readonly said: () => string;
}

/** Runs a start until it says it is ready. */
function start(command: "start" | "demo"): Promise<Started> {
  return new Promise((resolve, reject) => {
    const child = spawn("./barometron", [command], { env, stdio: ["ignore", "ignore", "pipe"] });
    let said = "";
    child.stderr!.on("data", (chunk: Buffer) => {
      said += chunk.toString();
      const address = /ready: (http:\S+)/.exec(said)?.[1];
      if (address) resolve({ child, address, said: () => said });
    });
    child.on("exit", () => reject(new Error(`it ended: ${said}`)));
  });
}

/** A page as whoever looks around the demo desk sees it. */
async function atDemo(address: string, path: string): Promise<string> {
  const { headers } = await fetch(`${new URL(address).origin}/demo`, { redirect: "manual" });
  const cookie = headers.get("set-cookie")?.split(";")[0] ?? "";
  return (await fetch(`${new URL(address).origin}${path}`, { headers: { cookie } })).text();
}

function stop({ child }: Started, signal: NodeJS.Signals): Promise<number | null> {
  return new Promise((resolve) => {
    child.removeAllListeners("exit");
    child.on("exit", (code) => resolve(code));
    child.kill(signal);
  });
}

const databasePid = (): number | null => {
  const file = join(data, "cluster", "postmaster.pid");
  return existsSync(file) ? Number(readFileSync(file, "utf8").split("\n")[0]) : null;
};
/** Whether a process still runs; one that ended but was not collected by its parent does not. */
const lives = (pid: number) =>
  existsSync(`/proc/${pid}/status`) && !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, "utf8"));

describe("start and stop", () => {
  test("takes another port when its own is taken, and says so; Ctrl-C stops server and database", async () => {
    const taken = createServer().listen(port, "127.0.0.1");
    await once(taken, "listening");
    const started = await start("demo");
    taken.close();
    expect(started.said()).toContain(`Port ${port} is taken by another program`);
    expect(started.address).not.toContain(`:${port}/`);
    expect(started.address).toMatch(/\/demo$/);
    expect(await atDemo(started.address, "/bikes")).toContain("Ondrey Hauler");
    expect(await (await fetch(`${new URL(started.address).origin}/bikes`)).text()).not.toContain("Ondrey");
    const pid = databasePid()!;
    expect(lives(pid)).toBe(true);
    expect(await stop(started, "SIGINT")).toBe(0);
    expect(lives(pid)).toBe(false);
    await expect(fetch(`${new URL(started.address).origin}/health`)).rejects.toThrow();
  });
  test("after the demo one's own desk is empty, also for a browser that looked around before", async () => {
    const demo = await start("demo");
    const { headers } = await fetch(demo.address, { redirect: "manual" });
    const cookie = headers.get("set-cookie")!.split(";")[0]!;
    const own = { headers: { cookie } };
    expect(await (await fetch(`${new URL(demo.address).origin}/bikes`, own)).text()).toContain("Ondrey");
    await stop(demo, "SIGINT");
    const again = await start("start");
    const bikes = await (await fetch(`${again.address}/bikes`, own)).text();
    expect(bikes).not.toContain("Ondrey");
    expect(bikes).toContain("Add the first bike");
    await stop(again, "SIGINT");
  });
  test("killed outright, the next start recovers with the data, and joins the database that still runs", async () => {
    const first = await start("start");
    await stop(first, "SIGKILL");
    const pid = databasePid()!;
    expect(lives(pid)).toBe(true);
    const second = await start("start");
    expect(second.said()).toContain("still runs from an earlier start");
    expect(await atDemo(second.address, "/strip")).toContain("run-down on two levels");
    await stop(second, "SIGINT");
    expect(lives(pid)).toBe(false);
  });
  test("killed with its database, the next start recovers too", async () => {
    const first = await start("start");
    const pid = databasePid()!;
    await stop(first, "SIGKILL");
    process.kill(pid, "SIGKILL");
    const second = await start("start");
    expect((await fetch(`${second.address}/health`)).status).toBe(200);
    await stop(second, "SIGINT");
  });
  test("asked to stop before it is ready, it stops, and leaves no database behind", async () => {
    const child = spawn("./barometron", ["start"], { env, stdio: ["ignore", "ignore", "pipe"] });
    let said = "";
    child.stderr.on("data", (chunk: Buffer) => {
      said += chunk.toString();
    });
    const ended = once(child, "exit");
    while (databasePid() === null && child.exitCode === null)
      await new Promise((resolve) => setTimeout(resolve, 20));
    child.kill("SIGTERM");
    expect((await ended)[0]).toBe(0);
    expect(said).toContain("Stopped before it was ready.");
    expect(databasePid()).toBeNull();
  });
  test("a second start from the same folder names the first", async () => {
    const first = await start("start");
    const second = spawnSync("./barometron", ["start"], { env, encoding: "utf8" });
    expect(second.stderr).toContain(`already runs from this folder: ${first.address}`);
    expect(second.status).toBe(0);
    await stop(first, "SIGINT");
  });
  test("two starts at once in one folder: one serves, the other names it", async () => {
    const both = [0, 1].map(() =>
      spawn("./barometron", ["start"], { env, stdio: ["ignore", "ignore", "pipe"] }),
    );
    const said = both.map(() => "");
    both.forEach((child, i) =>
      child.stderr.on("data", (chunk: Buffer) => {
        said[i] += chunk.toString();
      }),
    );
    const ended = await Promise.race(
      both.map((child, i) => new Promise<number>((resolve) => child.once("exit", () => resolve(i)))),
    );
    expect(said[ended]).toContain("already runs from this folder");
    expect(said[1 - ended]).toContain("ready:");
    const other = both[1 - ended]!;
    const gone = once(other, "exit");
    other.kill("SIGINT");
    await gone;
  });
  test("a database that dies is started again, and pages are served as before", async () => {
    const first = await start("start");
    const pid = databasePid()!;
    process.kill(pid, "SIGKILL");
    const back = async (): Promise<boolean> =>
      (await fetch(`${first.address}/ready`).catch(() => null))?.status === 200 && databasePid() !== pid;
    while (!(await back())) await new Promise((resolve) => setTimeout(resolve, 200));
    expect((await fetch(`${first.address}/live`)).status).toBe(200);
    expect(await atDemo(first.address, "/bikes")).toContain("Ondrey Hauler");
    await stop(first, "SIGINT");
  });
  test("a backup brings the data back while the desk is served; a file that is none changes nothing", async () => {
    const barometron = (...args: readonly string[]) =>
      spawnSync("./barometron", [...args], { env, encoding: "utf8" });
    const serving = await start("start");
    const file = join(folder, "desk.backup");
    expect(barometron("backup", file).status).toBe(0);
    expect(barometron("backup", "verify", file).stderr).toContain("is whole");
    const wrong = join(folder, "wrong.backup");
    writeFileSync(wrong, "hello");
    const refused = barometron("restore", wrong);
    expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining("Nothing was changed")]);
    expect(barometron("restore", file).status).toBe(0);
    expect(await atDemo(serving.address, "/bikes")).toContain("Ondrey Hauler");
    expect(barometron("restore", "--undo").status).toBe(0);
    await stop(serving, "SIGINT");
    rmSync(join(data, "cluster"), { recursive: true, force: true });
    expect(barometron("restore", file).status).toBe(0);
    expect(barometron("check").stderr).toContain("Every stored row can be read.");
    const again = await start("start");
    expect(await atDemo(again.address, "/bikes")).toContain("Ondrey Hauler");
    await stop(again, "SIGINT");
  });
});

afterAll(() => rmSync(folder, { recursive: true, force: true }));
