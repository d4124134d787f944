import { describe, expect, test } from "@jest/globals";
import { Course, farthest, type Read } from "./course.ts";

const read = (kind: string, at: number, value: Read["value"]): Read => ({
  kind,
  at,
  value,
  unit: null,
  of: null,
});

describe("the course of a ride", () => {
  const course = new Course([
    read("distance", 10, 5),
    read("percent_left", 12, 90),
    read("distance", 30, 12.4),
    read("speed", 33, [14, 16]),
    read("full_charge", 50, "full"),
    read("distance", 60, 3),
  ]);
  test("between two readings of a kind, on one charge", () => {
    expect(course.at("distance", 20)).toEqual({ before: 5, after: 12.4, count: 2 });
    expect(course.at("distance", 5)).toEqual({ before: null, after: 5, count: 2 });
    expect(course.at("distance", 40)).toEqual({ before: 12.4, after: null, count: 2 });
  });
  test("a full pack begins anew", () => {
    expect(course.at("distance", 55)).toEqual({ before: null, after: 3, count: 1 });
    expect(course.at("percent_left", 55)).toEqual({ before: null, after: null, count: 0 });
  });
  test("a span is no place on the way", () =>
    expect(course.at("speed", 40)).toEqual({ before: null, after: null, count: 0 }));
  test("what was said beside a place", () => {
    expect(course.beside("percent_left", 20).map(({ value }) => value)).toEqual([90]);
    expect(course.beside("percent_left", 40)).toEqual([]);
    expect(course.of("heart_rate")).toEqual([]);
  });
  test("without a reading after it, a place is no more than so far on", () => {
    expect(farthest(0)).toBe(8);
    expect(farthest(50)).toBe(70);
  });
});
