import { describe, expect, test } from "@jest/globals";
import { matching } from "./matching";

const choices = ["Brindlow 3, levee loop", "Órdrey Hauler, levee run-down", "Tarrick Fold, volts"].map(
  (label, i) => ({ value: String(i), label }),
);
const found = (typed: string) => matching(choices, typed).map(({ value }) => value);

describe("choices by what is typed of them", () => {
  test.each([
    ["", ["0", "1", "2"]],
    ["  ", ["0", "1", "2"]],
    ["levee", ["0", "1"]],
    ["down LEVEE", ["1"]],
    ["ordrey", ["1"]],
    ["fold loop", []],
    ["(.*", []],
  ])("“%s”", (typed, values) => expect(found(typed)).toEqual(values));
});
