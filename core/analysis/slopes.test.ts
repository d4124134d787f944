import { describe, expect, test } from "@jest/globals";
import { profileOf } from "#core/ride/distance";
import { slopesOf } from "./slopes.ts";

const METRES_PER_DEGREE = 111_195;

/** A track north along a line, a point every 20 m, at heights by metres along. */
function track(lengthM: number, heightAt: (metres: number) => number | null) {
  const metres = Array.from({ length: Math.floor(lengthM / 20) + 1 }, (_, i) => 20 * i);
  return profileOf({
    timeS: metres.map((_, i) => 4 * i),
    lat: metres.map((each) => each / METRES_PER_DEGREE),
    lon: metres.map(() => 0),
    eleM: metres.map(heightAt),
  });
}

describe("how much of a way lies at which slope", () => {
  test("a hill up and down at 5 %, and a flat as long", () => {
    const slopes = slopesOf([track(4000, (m) => (m < 1000 ? 0.05 * m : m < 2000 ? 0.05 * (2000 - m) : 0))])!;
    const share = (slope: number) =>
      slopes
        .filter((part) => Math.abs(part.slope - slope) < 0.006)
        .reduce((sum, part) => sum + part.share, 0);
    expect(share(0.05)).toBeCloseTo(0.25, 1);
    expect(share(-0.05)).toBeCloseTo(0.25, 1);
    expect(share(0)).toBeCloseTo(0.5, 1);
  });
  test("shares sum to one, and rise and fall are those of the way", () => {
    const slopes = slopesOf([track(6000, (m) => 20 * Math.sin(m / 300) + 0.01 * m)])!;
    expect(slopes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(slopes.reduce((sum, { share, slope }) => sum + share * slope, 0)).toBeCloseTo(0.01, 2);
  });
  test("without heights, or without a track, nothing is known", () => {
    expect(slopesOf([track(2000, () => null)])).toBeNull();
    expect(slopesOf([null])).toBeNull();
    expect(slopesOf([])).toBeNull();
  });
});
