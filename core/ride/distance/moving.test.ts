import { describe, expect, test } from "@jest/globals";
import { meanWhileMoving, standsOf } from "#core/ride/distance";

/** One point a second to the north at the speeds given, m/s. */
function track(speeds: readonly number[]) {
  let along = 0;
  const lat = speeds.map((speed) => 53 + (along += speed) / 111_195);
  return { timeS: speeds.map((_, i) => i), lat, lon: speeds.map(() => 8), eleM: speeds.map(() => null) };
}

describe("a mean over the time in motion", () => {
  test("leaves out what was recorded at a stand", () => {
    const speeds = [...Array(60).fill(6), ...Array(60).fill(0)] as number[];
    const values = speeds.map((speed) => (speed > 0 ? 140 : 90));
    const found = meanWhileMoving(track(speeds), values)!;
    expect(found.mean).toBeCloseTo(140, 6);
    expect(found.seconds).toBe(59);
  });
  test("leaves out what was not recorded, and is none where nothing was", () => {
    const speeds = Array(20).fill(6) as number[];
    expect(
      meanWhileMoving(
        track(speeds),
        speeds.map((_, i) => (i % 2 ? 100 : null)),
      )!.mean,
    ).toBe(100);
    expect(
      meanWhileMoving(
        track(speeds),
        speeds.map(() => null),
      ),
    ).toBeNull();
    expect(meanWhileMoving(track([]), [])).toBeNull();
  });
});

describe("where a track stood", () => {
  test("two stops, one of them a pause of the recorder; a wobble is none", () => {
    const found = standsOf({
      timeS: [0, 10, 15, 40, 60, 64, 80, 200, 210],
      distanceM: [0, 60, 60, 60, 180, 180, 280, 285, 345],
    });
    expect(found).toEqual([
      { fromS: 10, toS: 40, distanceM: 60 },
      { fromS: 80, toS: 200, distanceM: 285 },
    ]);
  });
  test("before it set out and after it came home it did not stop", () => {
    expect(standsOf({ timeS: [0, 100, 110, 500], distanceM: [0, 0, 60, 60] })).toEqual([]);
  });
});
