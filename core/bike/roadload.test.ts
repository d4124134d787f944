import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { MPS_PER_MPH } from "#core/base";
import { airDensity, roadPower } from "#core/bike";

describe("air", () => {
  test.each([
    [20, 0, 1.2041],
    [-5, 900, 1.1819],
  ])("%p C at %p m", (tempC, altitudeM, density) =>
    expect(airDensity(tempC, altitudeM)).toBeCloseTo(density, 4),
  );
});

describe("power on the road", () => {
  const uphill = {
    massKg: 128,
    speedMps: 15 * MPS_PER_MPH,
    slope: 0.02,
    headwindMps: 2,
    tempC: 20,
    riderW: 60,
  };
  test("the worked numbers of a headwind uphill", () => {
    const { forceN, wheelW, motorW, batteryW } = roadPower(uphill);
    expect([forceN, wheelW, motorW, batteryW].map((value) => Number(value.toPrecision(5)))).toEqual([
      58.987, 395.55, 356.36, 449.46,
    ]);
  });
  test("downhill the motor rests and only the display draws", () =>
    expect(roadPower({ ...uphill, slope: -0.06 })).toMatchObject({ motorW: 0, batteryW: 4 }));
  test("a tailwind faster than the bike pushes", () =>
    expect(roadPower({ ...uphill, slope: 0, headwindMps: -12 }).forceN).toBeLessThan(
      roadPower({ ...uphill, slope: 0, headwindMps: -7 }).forceN,
    ));
  test("more mass, wind, slope or rougher ground never takes less", () => {
    fc.assert(
      fc.property(
        fc.record({
          massKg: fc.double({ min: 60, max: 220, noNaN: true }),
          speedMps: fc.double({ min: 0.5, max: 12, noNaN: true }),
          slope: fc.double({ min: -0.1, max: 0.15, noNaN: true }),
          headwindMps: fc.double({ min: -8, max: 8, noNaN: true }),
        }),
        (state) => {
          const { batteryW } = roadPower(state);
          expect(roadPower({ ...state, slope: state.slope + 0.01 }).batteryW).toBeGreaterThanOrEqual(
            batteryW,
          );
          expect(roadPower({ ...state, headwindMps: state.headwindMps + 1 }).batteryW).toBeGreaterThanOrEqual(
            batteryW,
          );
          expect(roadPower({ ...state, ground: "grass" }).batteryW).toBeGreaterThanOrEqual(batteryW);
        },
      ),
    );
  });
});

describe("rolling that was measured on a ground", () => {
  const state = { massKg: 120, speedMps: 5 };
  const wheel = (over: object) => roadPower({ ...state, ...over }).wheelW;
  test("stands in place of the tyre's on that ground, and nowhere else", () => {
    const crrBy = { brick: 0.02 };
    expect(wheel({ ground: "brick", crrBy })).toBeGreaterThan(wheel({ ground: "brick" }));
    expect(wheel({ ground: "asphalt", crrBy })).toBe(wheel({ ground: "asphalt" }));
    expect(wheel({ ground: "brick", crrBy: { brick: 0.007 * 1.3 } })).toBeCloseTo(
      wheel({ ground: "brick" }),
      9,
    );
  });
});
