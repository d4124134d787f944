import { describe, expect, test } from "@jest/globals";
import type { TestResults } from "#core/analysis";
import { newest } from "./useLive";

const of = (readings: number) => ({ readings: Array(readings).fill(null) }) as unknown as TestResults;
const [before, after] = [of(2), of(3)];
const sent = { stamp: "1", results: before, pending: false, entries: 3 };

describe("what a ride comes to while entries are on their way", () => {
  test("is the server's while nothing waits", () =>
    expect(newest(sent, null, "1 ", false)).toEqual({ results: before, isOld: false }));
  test("is marked as old until the worker has counted the entry, and is then the worker's", () => {
    expect(newest(sent, null, "1 a", true)).toEqual({ results: before, isOld: true });
    const answered = { key: "1 a", entries: 4, results: after };
    expect(newest(sent, answered, "1 a", true)).toEqual({ results: after, isOld: false });
    expect(newest(sent, answered, "1 a b", true)).toEqual({ results: after, isOld: true });
  });
  test("stays the worker's while the server has the entry and has not counted it", () => {
    const taken = { ...sent, stamp: "2", pending: true, entries: 4 };
    const answered = { key: "1 a", entries: 4, results: after };
    expect(newest(taken, answered, "2 ", false)).toEqual({ results: after, isOld: false });
    expect(newest({ ...taken, entries: 5 }, answered, "3 ", false)).toEqual({ results: after, isOld: true });
    expect(newest(taken, null, "2 ", false)).toEqual({ results: before, isOld: true });
  });
  test("is nothing, and not old, before there is any", () =>
    expect(newest({ ...sent, results: null }, null, "1 a", true)).toEqual({ results: null, isOld: false }));
});
