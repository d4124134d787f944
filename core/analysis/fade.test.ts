import { describe, expect, test } from "@jest/globals";
import type { EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";

const mi = (miles: number) => miles * METRES_PER_MILE;
const reckon = (bodies: readonly EntryBody[], day2: readonly EntryBody[] = []) => {
  const ride = (all: readonly EntryBody[], from: number) => ({
    name: `Ride ${from}`,
    entries: all.map((body, i) => ({
      id: `019c0000-0000-7000-8000-${String(from * 100 + i).padStart(12, "0")}`,
      seq: i,
      at: null,
      body,
      supersedes: null,
    })),
  });
  const found = analyseTest(
    testRecordSchema.parse({
      test: { title: "t", day: "2026-06-01" },
      bike: { name: "b", levels: ["eco"], percentStep: 1 },
      pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13, ampHours: 13 },
      rides: [ride(bodies, 1), ...(day2.length ? [ride(day2, 2)] : [])],
    }),
  );
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};
const look = (miles: number, percent: number, mph?: number): EntryBody => ({
  kind: "checkIn",
  distanceM: mi(miles),
  percent,
  ...(mph !== undefined && { speedMps: mph * MPS_PER_MPH }),
});
const START: EntryBody = { kind: "start", distanceM: 0, percent: 100, chargerDone: true };
const held = (speed: (miles: number) => number) => [
  START,
  ...[4, 8, 12, 16, 20, 24, 28, 32, 34, 36, 38].map((miles) => look(miles, 100 - 2.5 * miles, speed(miles))),
];

describe("fade by itself", () => {
  test("speeds that fall in the end say where full power ended", () => {
    const { end, rangeFullPower } = reckon(held((miles) => 20 - 0.9 * Math.max(0, miles - 31)));
    expect(end.fullPower).toMatchObject({ by: "fading speed", rootId: null });
    expect(end.fullPower!.distanceM / METRES_PER_MILE).toBeGreaterThan(28);
    expect(end.fullPower!.distanceM / METRES_PER_MILE).toBeLessThan(34);
    expect(rangeFullPower!.because).toBe("the speed that was held fades from there");
  });
  test("a speed that holds, one that is slow from the start, and a few looks say nothing", () => {
    expect(reckon(held((miles) => 20 + (miles % 3) * 0.2)).end.fullPower).toBeNull();
    expect(reckon(held((miles) => 20 - 0.3 * Math.max(0, miles - 10))).end.fullPower).toBeNull();
    expect(reckon([START, look(10, 75, 20), look(30, 25, 12)]).end.fullPower).toBeNull();
  });
  test("what a hand marked goes before it", () => {
    const marked = [...held((miles) => 20 - 0.9 * Math.max(0, miles - 31)), { kind: "fullPowerEnd", distanceM: mi(35) } as const]; // prettier-ignore
    expect(reckon(marked).end.fullPower).toMatchObject({ by: "hand" });
  });
});

describe("miles after the end", () => {
  const ridden = [START, look(10, 74), look(20, 49), look(30, 24)];
  const died: EntryBody = { kind: "end", reason: "cutOff", distanceM: mi(39) };
  test("pedalling home is no part of range or use", () => {
    const [plain, home] = [reckon([...ridden, died]), reckon([...ridden, died, look(41.5, 0), look(43, 0)])];
    expect(home.best.value.mean).toBeCloseTo(plain.best.value.mean, 12);
    expect(home.rangeTotal!.value.mean).toBeCloseTo(mi(39), 6);
    expect(home.distance.because).toMatch(/more after the end count for nothing/);
    expect(home.course.afterEndM).toBeCloseTo(mi(4), 6);
  });
  test("nor is the next day without a charge; with one it is", () => {
    const next = (start: EntryBody) => [start, look(6, 80)];
    const without = reckon([...ridden, died], next({ kind: "start", distanceM: 0 }));
    expect(without.distance.value.mean).toBeCloseTo(mi(39), 6);
    const charged = reckon(
      [...ridden, died, { kind: "refill", toFull: true, distanceM: mi(39) } as EntryBody],
      next({ kind: "start", distanceM: 0, percent: 95 }),
    );
    expect(charged.distance.value.mean).toBeCloseTo(mi(45), 6);
  });
  test("a place that was noted late, before the end, counts", () =>
    expect(reckon([...ridden, died, look(35, 11)]).readings.some(({ text }) => text === "11 %")).toBe(true));
  test("stopped by choice and ridden on another day is no end", () => {
    const choice: EntryBody = { kind: "end", reason: "byChoice", distanceM: mi(30) };
    const days = reckon([...ridden, choice], [{ kind: "start", distanceM: 0, percent: 24 }, look(6, 9)]);
    expect(days.distance.value.mean).toBeCloseTo(mi(36), 6);
  });
});
