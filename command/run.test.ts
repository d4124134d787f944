import { existsSync, readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { aside, TOOK_TOO_LONG, run } from "./run.ts";

const node = (script: string) => ["-e", script];

describe("programs that are run", () => {
  test("to their end, with what they printed and how they ended", () => {
    expect(run("node", node("console.log('out'); console.error('err'); process.exit(3)"))).toEqual({
      code: 3,
      out: "out\nerr\n",
    });
    expect(run("no-such-program-here", []).code).toBe(1);
  });
  test("beside others: kept until asked for", async () => {
    const slow = aside("node", node("setTimeout(() => { console.log('late'); }, 50)"), { limitS: 60 });
    const quick = aside("node", node("process.exit(2)"), { limitS: 60 });
    expect(await quick).toMatchObject({ code: 2 });
    expect(await slow).toEqual({ code: 0, out: "late\n" });
  });
  test("one that is not there fails, and says so", () =>
    expect(aside("no-such-program-here", [], { limitS: 60 })).rejects.toThrow("ENOENT"));
  test("one that hangs is ended with all it started", async () => {
    const { code, out } = await aside("sh", ["-c", "sleep 600 & echo $!; wait"], { limitS: 1 });
    expect(code).toBe(TOOK_TOO_LONG);
    expect(out).toContain("took longer than 1 s");
    const child = Number(out.split("\n")[0]);
    // Ended, though perhaps a moment later, and perhaps not collected by whoever inherited it.
    const status = `/proc/${child}/status`;
    const lives = () => existsSync(status) && !/^State:\s+Z/m.test(readFileSync(status, "utf8"));
    while (lives()) await new Promise((resolve) => setTimeout(resolve, 20));
  });
  test("one that is no longer wanted is ended with all it started", async () => {
    const asked = new AbortController();
    const running = aside("sh", ["-c", "sleep 600 & echo $!; wait"], { limitS: 60, signal: asked.signal });
    setTimeout(() => asked.abort(), 300);
    const { code } = await running;
    expect(code).not.toBe(0);
  });
});
