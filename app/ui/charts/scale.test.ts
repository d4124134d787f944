import { expect, test } from "@jest/globals";
import fc from "#tests/property";
import { stepsCovering, stepsWithin } from "./scale";

test("steps are round and cover the figure", () => {
  expect(stepsCovering(27, 3)).toEqual([0, 10, 20, 30]);
  expect(stepsCovering(0.4, 4)).toEqual([0, 0.1, 0.2, 0.3, 0.4]);
  expect(stepsCovering(0, 3).length).toBeGreaterThan(1);
});

test("steps within a span never leave it", () => {
  expect(stepsWithin(3.2, 31, 5)).toEqual([10, 20, 30]);
  expect(stepsWithin(0, 24.4, 3)).toEqual([0, 10, 20]);
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 100, noNaN: true }),
      fc.double({ min: 1, max: 500, noNaN: true }),
      (low, span) => {
        for (const step of stepsWithin(low, low + span, 5)) {
          expect(step).toBeGreaterThanOrEqual(low - 1e-6);
          expect(step).toBeLessThanOrEqual(low + span + 1e-6);
        }
      },
    ),
  );
});
