import { expect, test } from "@jest/globals";
import { niceSteps } from "./scale";

test("steps are round and cover the figure", () => {
  expect(niceSteps(0, 27, 3)).toEqual([0, 10, 20, 30]);
  expect(niceSteps(0, 0.4, 4)).toEqual([0, 0.1, 0.2, 0.3, 0.4]);
  expect(niceSteps(3.2, 31, 5)).toEqual([10, 20, 30]);
});
