import { describe, expect, test } from "@jest/globals";
import { capacityOn, measuredEarlier, measurementsOf, packRecordSchema } from "#core/records";

const pack = (more: object) => packRecordSchema.parse({ name: "p", labelWh: 500, ...more });
const aged = pack({
  measuredWh: 440,
  measuredOn: "2026-11-02",
  measuredBefore: [
    { on: "2025-06-10", wh: 470, sdWh: 6 },
    { on: "2024-05-01", wh: 490 },
  ],
});

describe("a pack's capacity, by day", () => {
  test.each([
    ["2023-01-01", 490],
    ["2024-05-01", 490],
    ["2025-12-31", 470],
    ["2026-11-01", 470],
    ["2026-11-02", 440],
    ["2027-03-01", 440],
  ])("on %s it is what was measured last before, else first after: %f Wh", (day, wh) =>
    expect(capacityOn(aged, day)?.wh).toBe(wh),
  );
  test("one without a day counts where nothing earlier does; none where nothing was measured", () => {
    expect(capacityOn(pack({ measuredWh: 455 }), "2020-01-01")?.wh).toBe(455);
    expect(capacityOn(pack({}), "2020-01-01")).toBeNull();
  });
  test("all of it is told, the oldest first", () =>
    expect(measurementsOf(aged).map(({ wh }) => wh)).toEqual([490, 470, 440]));
});

describe("a measurement that gives way to another", () => {
  const first = pack({ measuredWh: 480, measuredSdWh: 5, measuredOn: "2025-02-01" });
  test("stays by its day", () =>
    expect(measuredEarlier(first, pack({ measuredWh: 460, measuredOn: "2026-02-01" }))).toEqual([
      { on: "2025-02-01", wh: 480, sdWh: 5 },
    ]));
  test("is none where its day or its figure alone was put right", () => {
    expect(measuredEarlier(first, pack({ measuredWh: 480, measuredOn: "2025-02-11" }))).toEqual([]);
    expect(measuredEarlier(first, pack({ measuredWh: 478, measuredOn: "2025-02-01" }))).toEqual([]);
    expect(measuredEarlier(pack({ measuredWh: 480 }), pack({ measuredWh: 460 }))).toEqual([]);
  });
});
