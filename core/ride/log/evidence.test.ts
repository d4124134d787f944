import { describe, expect, test } from "@jest/globals";
import type { Entry, EntryBody } from "./entry.ts";
import { foldLog } from "./fold.ts";
import { buildTimeline } from "./buildTimeline.ts";
import type { TelemetryColumns } from "./telemetry.ts";

const T0 = Date.UTC(2026, 9, 18, 9) / 1000;
let count = 0;
const line = (body: EntryBody, second: number | null = null, rest: Partial<Entry> = {}): Entry => {
  count += 1;
  return {
    id: `019a0000-0000-7000-8000-${count.toString(16).padStart(12, "0")}`,
    seq: count,
    at: second === null ? null : new Date((T0 + second) * 1000).toISOString(),
    body,
    supersedes: null,
    ...rest,
  };
};
const km = (distance: number, rest: object = {}): EntryBody => ({
  kind: "checkIn",
  distanceM: distance * 1000,
  ...rest,
});
const start = (rest: object = {}): EntryBody => ({ kind: "start", distanceM: 0, ...rest });
const setting = { knownFactor: null, meterStepV: 0.1, firstLevel: "low", firstGround: "asphalt" as const };
const lay = (...rides: readonly (readonly Entry[])[]) =>
  buildTimeline(
    rides.map((entries) => ({ entries: foldLog(entries), track: null })),
    setting,
  );
const spans = (course: ReturnType<typeof lay>) =>
  course.readings.flatMap(({ reading, struck }) =>
    reading.kind === "energyCounter"
      ? [[reading.fromMark, reading.toMark, reading.wh, ...(struck ? ["struck"] : [])]]
      : [],
  );

describe("a running counter", () => {
  test("gives one row a mark from its reset, not differences of neighbours", () => {
    const course = lay([
      line(start({ counterWh: 0 })),
      line(km(5, { counterWh: 60 })),
      line(km(9, { counterWh: 112 })),
    ]);
    expect(spans(course)).toEqual([[0, 1, 60], [0, 2, 112]]); // prettier-ignore
  });
  test("that did not stand at zero is counted from where it stood", () => {
    const course = lay([line(start({ counterWh: 40 })), line(km(5, { counterWh: 100 }))]);
    expect(spans(course)).toEqual([[0, 1, 60]]);
  });
  test("first read on the way is taken from zero at the start", () => {
    const course = lay([line(start()), line(km(5)), line(km(9, { counterWh: 112 }))]);
    expect(spans(course)).toEqual([[0, 2, 112]]);
  });
  test("that falls to almost nothing was reset: what lies before is not counted, and the page says so", () => {
    const course = lay([
      line(start()),
      line(km(5, { counterWh: 60 })),
      line(km(9, { counterWh: 4 })),
      line(km(14, { counterWh: 70 })),
    ]);
    expect(spans(course)).toEqual([[0, 1, 60], [2, 3, 66]]); // prettier-ignore
    expect(course.notices.join()).toContain("The counter fell from 60.0 to 4.0 Wh: taken as a reset");
  });
  test("reset between two rides counts from the second ride's start", () => {
    const course = lay(
      [line(start()), line(km(9, { counterWh: 112 }))],
      [line(start()), line(km(4, { counterWh: 50 }))],
    );
    expect(spans(course)).toEqual([[0, 1, 112], [2, 3, 50]]); // prettier-ignore
  });
  test("that falls a little gave energy back: it runs on", () => {
    const course = lay([line(start()), line(km(5, { counterWh: 60 })), line(km(6, { counterWh: 55 }))]);
    expect(spans(course)).toEqual([[0, 1, 60], [0, 2, 55]]); // prettier-ignore
  });
  test("may stand below zero after a long descent", () => {
    const course = lay([line(start({ counterWh: 0 })), line(km(5, { counterWh: -12 }))]);
    expect(spans(course)).toEqual([[0, 1, -12]]);
  });
  test("set aside at one mark, stays in sight and is no base", () => {
    const wrong = line(km(5, { counterWh: 600 }));
    const strike = line({ kind: "strike", target: wrong.id, field: "counterWh" });
    const course = lay([line(start()), wrong, line(km(9, { counterWh: 112 })), strike]);
    expect(spans(course)).toEqual([[0, 1, 600, "struck"], [0, 2, 112]]); // prettier-ignore
  });
  test("of another meter runs by itself", () => {
    const course = lay([
      line(start()),
      line(km(5, { counterWh: 60, meter: "a" })),
      line(km(9, { counterAh: 3.1, meter: "b" })),
    ]);
    expect(course.readings.map(({ reading }) => reading.kind)).toEqual(["energyCounter", "chargeCounter"]);
  });
});

describe("bars that come back at rest", () => {
  test("are a rebound, not energy; the bar that goes again says nothing new", () => {
    const course = lay([
      line(start({ chargerDone: true })),
      line({ kind: "barLost", bar: 4, distanceM: 5000 }),
      line(km(6, { bars: 4 })),
      line({ kind: "barLost", bar: 4, distanceM: 6500 }),
      line(km(8, { bars: 3 })),
    ]);
    expect(course.readings.map(({ reading }) => reading.kind)).toEqual(["fullStart", "barLost", "bars"]);
    expect(course.notices).toHaveLength(2);
    expect(course.notices[0]).toContain("4 bars came back at rest after 3: a rebound");
  });
  test("after a charge are energy", () => {
    const course = lay([
      line(start()),
      line({ kind: "barLost", bar: 4, distanceM: 5000 }),
      line({ kind: "refill", distanceM: 5000, toFull: true }),
      line(km(5, { bars: 5 })),
      line(km(9, { bars: 4 })),
    ]);
    expect(course.readings.map(({ reading }) => reading.kind)).toEqual([
      "barLost",
      "bars",
      "bars",
      "fullStart",
    ]);
    expect(course.notices).toEqual([]);
  });
});

describe("charges", () => {
  test("to full at the end measure what was used since full, and make no leg", () => {
    const course = lay([
      line(start({ chargerDone: true })),
      line(km(9, { percent: 60 })),
      line({ kind: "refill", distanceM: 9000, toFull: true, wallWh: 260, charger: "shed" }),
    ]);
    expect(course.legs).toHaveLength(1);
    expect(course.readings.at(-1)!.reading).toMatchObject({
      kind: "wallRefill",
      mark: 1,
      wallWh: 260,
      charger: "shed",
    });
  });
  test("in part in between are a leg of their own, with what came back", () => {
    const course = lay(
      [line(start()), line(km(9)), line({ kind: "refill", toFull: false, wallWh: 140 })],
      [line(start()), line(km(6))],
    );
    expect(course.legs.map(({ charged, distanceM }) => [charged, distanceM])).toEqual([
      [false, 9000],
      [true, 0],
      [false, 6000],
    ]);
    expect(course.readings.at(-1)!.reading).toMatchObject({
      kind: "wallCharge",
      fromMark: 1,
      toMark: 2,
      wallWh: 140,
    });
    expect(course.marks.at(-1)!.distanceM).toBe(15_000);
  });
  test("to full in between start anew from full", () => {
    const course = lay([
      line(start()),
      line(km(9)),
      line({ kind: "refill", distanceM: 9000, toFull: true }),
      line(km(9, { percent: 100 })),
      line(km(14, { percent: 80 })),
    ]);
    expect(course.readings.map(({ reading }) => [reading.kind, "mark" in reading && reading.mark])).toEqual([
      ["percent", 2],
      ["percent", 3],
      ["fullStart", 2],
    ]);
  });
  test("struck, never happened", () => {
    const refill = line({ kind: "refill", distanceM: 9000, toFull: true });
    const strike = line({ kind: "strike", target: refill.id });
    const course = lay([line(start()), line(km(9)), refill, line(km(14)), strike]);
    expect(course.legs.every(({ charged }) => !charged)).toBe(true);
  });
  test("a counter read before one goes on after it", () => {
    const course = lay([
      line(start()),
      line(km(9, { counterWh: 110 })),
      line({ kind: "refill", distanceM: 9000, toFull: false }),
      line(km(12, { counterWh: 150 })),
      line(km(15, { counterWh: 190 })),
    ]);
    expect(spans(course)).toEqual([[0, 1, 110], [2, 3, 40], [2, 4, 80]]); // prettier-ignore
  });
});

describe("full power's end by hand", () => {
  test("makes no mark, and stands at its mile of the whole test", () => {
    const course = lay(
      [line(start()), line(km(9))],
      [line(start()), line({ kind: "fullPowerEnd", distanceM: 4000 }), line(km(6))],
    );
    expect(course.marks).toHaveLength(4);
    expect(course.handMarks.map(({ distanceM }) => distanceM)).toEqual([13_000]);
  });
});

describe("telemetry between marks", () => {
  const seconds = Array.from({ length: 1201 }, (_, i) => T0 + i);
  const box: TelemetryColumns = {
    logger: "box",
    timeS: seconds,
    volts: seconds.map(() => 50),
    amps: seconds.map(() => 6),
  };
  const course = (telemetry: TelemetryColumns, ...times: readonly number[]) =>
    buildTimeline(
      [
        {
          entries: foldLog(times.map((second, i) => line(i === 0 ? start() : km(i * 3), second))),
          track: null,
          telemetry,
        },
      ],
      setting,
    ).readings.map(({ reading }) => reading);
  test("is summed for each pair of neighbours", () => {
    const [first, second] = course(box, 0, 601, 1200);
    expect(first).toMatchObject({ kind: "telemetry", fromMark: 0, toMark: 1, logger: "box" });
    expect((first as { wh: number }).wh).toBeCloseTo((300 * 601) / 3600, 6);
    expect((second as { wh: number }).wh).toBeCloseTo((300 * 599) / 3600, 6);
  });
  test("is less sure where notes are only to the minute", () => {
    const sd = (...times: readonly number[]) => (course(box, ...times)[0] as { sdWh: number }).sdWh;
    expect(sd(0, 600)).toBeGreaterThan(5 * sd(1, 601));
  });
  test("bridges a gap with its doubt, and leaves out what it hardly saw", () => {
    const cut = seconds.map((_, i) => i).filter((i) => i < 300 || i > 420);
    const gap = { ...box, timeS: cut.map((i) => T0 + i), volts: cut.map(() => 50), amps: cut.map(() => 6) };
    const [reading] = course(gap, 1, 601);
    expect((reading as { wh: number }).wh).toBeCloseTo(50, 1);
    expect((reading as { sdWh: number }).sdWh).toBeGreaterThan(2.9);
    expect(course(box, 0, 4000)).toEqual([]);
  });
  test("nothing without times, or with times that stand still", () => {
    expect(course(box, 0, 0)).toEqual([]);
    expect(course({ ...box, timeS: [], volts: [], amps: [] }, 0, 600)).toEqual([]);
  });
});
