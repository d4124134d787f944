import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { SIDES } from "#core/fields";
import { type EntryBody } from "#core/ride/log";
import { readLine, writeLine } from "./index.ts";

const setting = { levels: ["low", "high"], throttle: true };
const read = (line: string) =>
  readLine(line, setting).body as EntryBody & { section?: string; side?: string };

describe("sections and runs on the line", () => {
  test.each([
    ["@upper", { section: "upper" }],
    ["@upper:A", { section: "upper", side: "A" }],
    ["@upper:b", { section: "upper", side: "B" }],
    ["@:B", { side: "B" }],
    ["@", { section: "" }],
  ])("%s", (line, found) => {
    const { kind, ...rest } = read(`4mi ${line}`);
    expect(kind).toBe("checkIn");
    expect(rest).toMatchObject(found);
  });
  test("a run that is neither A nor B stays in the note, and says what to type", () => {
    const { unread, body } = readLine("4mi @upper:C", setting);
    expect(unread).toEqual([
      expect.objectContaining({ text: "@upper:C", why: "a run is A or B: type @upper:A" }),
    ]);
    expect(body).toMatchObject({ note: "@upper:C" });
  });
  test("a section is said once on a line", () =>
    expect(readLine("@upper @lower", setting).unread).toHaveLength(1));
  test("written and read again it is the same", () =>
    fc.assert(
      fc.property(
        fc.option(fc.stringMatching(/^[a-z][a-z0-9-]{0,10}$/), { nil: undefined }),
        fc.option(fc.constantFrom(...SIDES), { nil: undefined }),
        (section, side) => {
          const body: EntryBody = {
            kind: "checkIn",
            percent: 61,
            ...(section !== undefined && { section }),
            ...(side !== undefined && { side }),
          };
          const { section: again, side: run } = read(writeLine(body, setting, "imperial")!);
          expect([again, run]).toEqual([section, side]);
        },
      ),
    ));
  test("a chip says what was understood", () =>
    expect(readLine("@upper:A", setting).chips).toEqual([
      { from: 0, to: 8, text: "@upper:A", says: "section, run A", field: "side" },
    ]));
});
