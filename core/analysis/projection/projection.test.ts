import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { rangeOwnMix, shareWithReserve } from "#core/analysis/projection";

const fraction = fc.record({
  mean: fc.double({ min: 0.05, max: 1.1, noNaN: true }),
  sd: fc.double({ min: 0, max: 0.1, noNaN: true }),
});

describe("range for a ride's own mix", () => {
  test("half the energy over 20 miles is 40 to the end", () => {
    expect(rangeOwnMix(20, { mean: 0.5, sd: 0.01 }, 1, 0)).toEqual({ mean: 40, sd: 0.8 });
  });
  test("a share of the charge is that share of the range, as sure relatively", () => {
    fc.assert(
      fc.property(fraction, fc.double({ min: 0.1, max: 1, noNaN: true }), (used, share) => {
        const [whole, part] = [rangeOwnMix(1000, used, 1, 0.005)!, rangeOwnMix(1000, used, share, 0.005)!];
        expect(part.mean).toBeCloseTo(whole.mean * share, 6);
        expect(part.sd / part.mean).toBeCloseTo(whole.sd / whole.mean, 9);
      }),
    );
  });
  test("the distance's error adds in quadrature", () => {
    const range = rangeOwnMix(1000, { mean: 0.5, sd: 0.015 }, 1, 0.04)!;
    expect(range.sd / range.mean).toBeCloseTo(0.05, 9);
  });
  test.each([0, -0.1])("no use (%p) gives no range", (mean) => {
    expect(rangeOwnMix(1000, { mean, sd: 0.01 }, 1, 0)).toBeNull();
  });
  test("a fifth is kept back", () => expect(shareWithReserve).toBeCloseTo(0.8));
});
