import { describe, expect, test } from "@jest/globals";
import { answer } from "#core/calc";
import { writeBundle } from "#core/io";
import { METRES_PER_MILE } from "#core/base";
import { cutRecord, lengthOf, analyseTest } from "#core/analysis";
import { worldTest } from "#tests/world";

const bodies = (record: ReturnType<typeof cutRecord>) =>
  record.rides.flatMap(({ entries }) => entries.map(({ body }) => body));

describe("a log as it stood at a place", () => {
  const { record } = worldTest(4, "run-down");
  const lengthM = lengthOf(record);
  const half = cutRecord(record, lengthM / 2);
  test("holds what was noted up to there, and no end", () => {
    expect(bodies(half).length).toBeLessThan(bodies(record).length);
    expect(bodies(half).some(({ kind }) => kind === "end")).toBe(false);
    expect(lengthOf(half)).toBeLessThanOrEqual(lengthM / 2 + 1);
    expect(bodies(cutRecord(record, lengthM))).toEqual(bodies(record));
  });
  test("a later day is gone, and so is what was tracked and logged after it", () => {
    const days = worldTest(2, "two days").record;
    expect(cutRecord(days, lengthOf(days) / 4).rides).toHaveLength(1);
    const tracked = worldTest(2, "hills, track").record;
    const cut = cutRecord(tracked, lengthOf(tracked) / 2).rides[0]!.track!;
    expect(cut.timeS.length).toBeLessThan(0.7 * tracked.rides[0]!.track!.timeS.length);
    const logged = worldTest(2, "logger").record;
    const samples = cutRecord(logged, lengthOf(logged) / 2).rides[0]!.telemetry!;
    expect(samples.timeS.length).toBeLessThan(0.7 * logged.rides[0]!.telemetry!.timeS.length);
  });
  test("a correction and a strike of what stays, stay; of what is gone, go", () => {
    const [first, ...rest] = record.rides[0]!.entries;
    const last = rest.at(-1)!;
    const strike = (target: string, id: string) => ({
      ...{ id, seq: 9000, at: null, supersedes: null },
      body: { kind: "strike" as const, target },
    });
    const struck = {
      ...record,
      rides: [
        {
          ...record.rides[0]!,
          entries: [
            first!,
            ...rest,
            strike(first!.id, "019c0000-0000-7000-8000-00000000f001"),
            strike(last.id, "019c0000-0000-7000-8000-00000000f002"),
          ],
        },
      ],
    };
    const kept = cutRecord(struck, lengthM / 2).rides[0]!.entries.map(({ id }) => id.slice(-4));
    expect(kept).toContain("f001");
    expect(kept).not.toContain("f002");
  });
});

describe("the way left, asked of calc", () => {
  const { record } = worldTest(4, "part charge");
  const lengthM = lengthOf(record);
  const ask = (cutAt: unknown) => answer({ ...writeBundle([record]), cutAt });
  const leftAt = (cutAt: number) =>
    (
      ask(cutAt).value as {
        tests: { rangeLeft: { mean: number; low: number; high: number; fromM: number } }[];
      }
    ).tests[0]!.rangeLeft;
  test("is told from the place asked, also between two looks", () => {
    const reckoned = analyseTest(cutRecord(record, lengthM / 2));
    const lastM = reckoned.ok ? reckoned.value.distance.value.mean : NaN;
    const [at, on] = [leftAt(lastM), leftAt(lastM + 100)];
    expect(at.fromM).toBeCloseTo(lastM, 6);
    expect(on.fromM).toBeCloseTo(lastM + 100, 6);
    expect(at.mean - on.mean).toBeCloseTo(100, 6);
    expect(at.low).toBeLessThan(at.mean);
    expect(at.high).toBeGreaterThan(at.mean);
    expect(at.mean).toBeGreaterThan(5 * METRES_PER_MILE);
  });
  test("a place that is no distance says what to type", () => {
    for (const wrong of [0, -5, "half", null])
      expect(ask(wrong)).toMatchObject({ ok: false, value: { error: { path: "cutAt" } } });
  });
  test("before anything was read there is nothing to tell, in words", () =>
    expect(ask(1)).toMatchObject({ ok: false, value: { error: { sentence: expect.any(String) } } }));
});
