import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { spawn } from "node:child_process";
import { once } from "node:events";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import { markOf, runningHere, takeFolder } from "./running.ts";

const folder = mkdtempSync(join(tmpdir(), "barometron-running-"));
afterAll(() => rmSync(folder, { recursive: true }));
let files = 0;
const left = (running: object | string) => {
  const file = join(folder, `${(files += 1)}.json`);
  writeFileSync(file, typeof running === "string" ? running : JSON.stringify(running));
  return file;
};

describe("a folder that a start has noted itself in", () => {
  test("is another start's while that very process lives, and free when it has ended", async () => {
    const other = spawn("sleep", ["60"]);
    const file = left({ pid: other.pid!, mark: markOf(other.pid!), address: "http://127.0.0.1:4180" });
    expect(takeFolder(file)).toBeNull();
    expect(runningHere(file)?.address).toBe("http://127.0.0.1:4180");
    other.kill();
    await once(other, "exit");
    expect(takeFolder(file)).not.toBeNull();
  });
  test("is free where its process number was given to another process since", () => {
    const file = left({ pid: process.ppid, mark: "another boot/1", address: null });
    expect(runningHere(file)).toBeNull();
    expect(takeFolder(file)).not.toBeNull();
  });
  test("is free where the number is one's own: in a container every start is process 1", () => {
    const file = left({ pid: process.pid, mark: markOf(process.pid), address: null });
    expect(takeFolder(file)).not.toBeNull();
  });
  test("is free where what was noted cannot be read", () => expect(takeFolder(left("{"))).not.toBeNull());
  test("a process has a mark of its own, and one that is not there has none", () => {
    expect(markOf(process.pid)).toMatch(/^[0-9a-f-]{36}\/\d+$/);
    expect(markOf(process.pid)).not.toBe(markOf(1));
    expect(markOf(2 ** 30)).toBeNull();
  });
  test("says where it serves, and lets go", () => {
    const file = join(folder, "own.json");
    const taken = takeFolder(file)!;
    taken.serve("http://127.0.0.1:4190");
    taken.release();
    expect(takeFolder(file)).not.toBeNull();
  });
});
