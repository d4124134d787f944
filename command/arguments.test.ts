import { describe, expect, test } from "@jest/globals";
import { askedOf, usageOf, type Takes } from "./arguments";

const START: Takes = { options: { port: ["N", "the port"], desk: ["NAME", "a desk"] } };
const RESTORE: Takes = {
  options: { undo: [null, "put back"], beside: ["NAME", "another"] },
  words: ["FILE"],
};

describe("what a command is asked", () => {
  test.each([
    [START, []],
    [START, ["--port", "4200"]],
    [START, ["--port=4200", "--desk", "old"]],
    [RESTORE, ["desk.backup", "--beside", "old"]],
    [RESTORE, ["--undo"]],
  ] as const)("%#: it is done", (takes, args) =>
    expect(askedOf("start", args, takes)).toEqual({ is: "right", args }),
  );
  test.each([
    [START, ["--port", "abc"], "“abc” is no port: give a number from 1 to 65535."],
    [START, ["--port", "70000"], "“70000” is no port"],
    [START, ["--prot", "4200"], "Unknown option '--prot'"],
    [START, ["--port"], "argument missing"],
    [START, ["now"], "start does not take “now”"],
    [{ words: ["FILE"], least: 1 }, [], "Say FILE too"],
  ] as const)("%#: it says what is wrong and does nothing", (takes, args, sentence) =>
    expect(askedOf("start", args, takes)).toMatchObject({
      is: "wrong",
      sentence: expect.stringContaining(sentence),
    }),
  );
  test.each([["--help"], ["-h"]])("%s asks how", (help) =>
    expect(askedOf("start", ["--port", "4200", help], START)).toEqual({ is: "help" }),
  );
  test("the usage names each option and word", () => {
    const usage = usageOf("restore", "bring a backup back", RESTORE).join("\n");
    expect(usage).toContain("./barometron restore [options] [FILE]");
    for (const option of ["--undo", "--beside NAME", "--help"]) expect(usage).toContain(option);
  });
});
