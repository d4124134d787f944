import { expect, test } from "@jest/globals";
import fc from "#tests/property";
import { firstNotBefore } from "#core/base";

test("finds what a walk from the front finds", () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -20, max: 20 })),
      fc.integer({ min: -25, max: 25 }),
      (list, at) => {
        const sorted = [...list].sort((a, b) => a - b);
        const walked = sorted.findIndex((each) => each >= at);
        expect(firstNotBefore(sorted.length, (i) => sorted[i]! < at)).toBe(
          walked < 0 ? sorted.length : walked,
        );
      },
    ),
  );
});
test("of an empty list it is the beginning", () => expect(firstNotBefore(0, () => true)).toBe(0));
