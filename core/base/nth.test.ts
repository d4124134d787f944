import { describe, expect, test } from "@jest/globals";
import { lastOf, nth, num, rowAt, there } from "#core/base";

describe("what must be there", () => {
  test("is given by its place, its name or as the last", () => {
    expect(nth([3, 5], 1)).toBe(5);
    expect(nth(Float64Array.of(3, 5), 0)).toBe(3);
    expect(nth({ a: 7 }, "a")).toBe(7);
    expect(lastOf("abc")).toBe("c");
    expect(there(0)).toBe(0);
  });
  test("may be null, false, empty or no number: that is there", () => {
    expect([nth([null], 0), nth([false], 0), nth([""], 0)]).toEqual([null, false, ""]);
    expect(nth([NaN], 0)).toBeNaN();
  });
  test.each([
    () => nth([1], 1),
    () => nth([1], -1),
    () => nth({ a: 1 } as Record<string, number>, "b"),
    () => lastOf([]),
    () => there(undefined),
    () => there(null),
  ])("and where it is not, that is said", (ask) => {
    expect(ask).toThrow(RangeError);
  });
  test("outside a vector there is no number, and outside a matrix no row", () => {
    expect(num(Float64Array.of(2), 0)).toBe(2);
    expect(num(Float64Array.of(2), 3)).toBeNaN();
    expect(num(rowAt([Float64Array.of(2)], 0), 0)).toBe(2);
    expect(rowAt([], 0)).toHaveLength(0);
  });
});
