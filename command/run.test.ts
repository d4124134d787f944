import { describe, expect, test } from "@jest/globals";
import { aside, run } from "./run.ts";

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
    const slow = aside("node", node("setTimeout(() => { console.log('late'); }, 50)"));
    const quick = aside("node", node("process.exit(2)"));
    expect(await quick).toMatchObject({ code: 2 });
    expect(await slow).toEqual({ code: 0, out: "late\n" });
  });
  test("one that is not there fails, and says so", () =>
    expect(aside("no-such-program-here", [])).rejects.toThrow("ENOENT"));
});
