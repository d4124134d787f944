import { describe, expect, test } from "@jest/globals";
import {
  CLIMB_PACK_WH,
  climbFigures,
  climbRow,
  drivenBy,
  sweepResults,
  sweepRows,
  sweepSpots,
} from "#core/compare";
import { dayOfRows, deskPosterior, parametersOf } from "#core/desk";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import {
  bikeSchema,
  climbSchema,
  packRecordSchema,
  riderSchema,
  sweepSchema,
  type ClimbRecord,
  type SweepRow,
} from "#core/records";
import { fitRoad, roadPower } from "#core/bike";

const pack = packRecordSchema.parse({ name: "p", labelWh: 672, ampHours: 14, seriesCells: 13 });
const riding = {
  bike: bikeSchema.parse({ name: "Reed", levels: ["low"], throttle: true, massKg: 35 }),
  setUp: null,
  rider: riderSchema.parse({ name: "Maren", massKg: 70 }),
};
const row = (over: Partial<SweepRow> = {}): SweepRow => ({
  level: "throttle",
  ground: "asphalt",
  direction: "there",
  speedMps: 15 * MPS_PER_MPH,
  ampsLow: 5.5,
  ampsHigh: 6.5,
  packVolts: 49.2,
  ...over,
});
const sweep = (rows: readonly SweepRow[]) => sweepSchema.parse({ title: "s", day: "2026-10-18", rows });
/** Both ways at a speed, as the road load has it at these parameters. */
const both = (mph: number, cdA = 0.6): readonly SweepRow[] =>
  (["there", "back"] as const).map((direction) => {
    const { batteryW } = roadPower({ massKg: 105, speedMps: mph * MPS_PER_MPH, cdA, etaM: 0.78 });
    return row({
      direction,
      speedMps: mph * MPS_PER_MPH,
      ampsLow: batteryW / 48 - 0.3,
      ampsHigh: batteryW / 48 + 0.3,
      packVolts: 48,
    });
  });

describe("a sweep", () => {
  test("squares are a level on a ground at about one speed, both ways together", () => {
    const { spots } = sweepSpots(
      sweep([...both(10), ...both(15), row({ ground: "brick", direction: "one way" })]),
      pack,
    );
    expect(spots.map(({ ground, oneWay, rows }) => [ground, oneWay, rows])).toEqual([
      ["asphalt", false, [0, 1]],
      ["asphalt", false, [2, 3]],
      ["brick", true, [4]],
    ]);
  });
  test("both schools of range stand beside the energy", () => {
    const [spot] = sweepSpots(sweep([row(), row({ direction: "back" })]), pack).spots;
    expect(spot!.whPerM.mean * METRES_PER_MILE).toBeCloseTo((49.2 * 6) / 15, 9);
    expect(spot!.rangeByChargeM! / METRES_PER_MILE).toBeCloseTo((14 * 15) / 6, 9);
    expect(spot!.rangeByLabelM / METRES_PER_MILE).toBeCloseTo(672 / ((49.2 * 6) / 15), 9);
  });
  test("without volts the nominal ones count; without cells too the row says what to type", () => {
    const untold = row({ packVolts: undefined });
    expect(sweepSpots(sweep([untold]), pack).spots[0]!.whPerM.mean * METRES_PER_MILE).toBeCloseTo(
      (46.8 * 6) / 15,
      9,
    );
    const bare = packRecordSchema.parse({ name: "q", labelWh: 500 });
    expect(sweepSpots(sweep([untold]), bare)).toMatchObject({
      spots: [],
      problems: [{ row: 0, sentence: expect.stringContaining("series cells") }],
    });
  });
  test("its curve rises with speed, has a band, and says where the range halves and doubles", () => {
    const { curves, fit } = sweepResults(sweep([8, 12, 16, 20].flatMap((mph) => both(mph))), riding, pack);
    const [curve] = curves;
    expect(curve).toMatchObject({ ground: "asphalt", drive: "throttle" });
    const means = curve!.whPerM.map(({ mean }) => mean);
    expect(means.at(-1)!).toBeGreaterThan(2 * means[6]!);
    expect(curve!.whPerM.every(({ sd }) => sd > 0)).toBe(true);
    expect(curve!.againstMps / MPS_PER_MPH).toBeCloseTo(16, 0);
    expect(curve!.halvesAtMps!).toBeGreaterThan(curve!.againstMps);
    expect(curve!.doublesAtMps!).toBeLessThan(curve!.againstMps);
    expect(fit!.parameters.find(({ name }) => name === "drag")!.value.mean).toBeGreaterThan(0.55);
  });
  test("an empty one has no fit and no curve", () =>
    expect(sweepResults(sweep([]), riding, pack)).toEqual({
      spots: [],
      fit: null,
      curves: [],
      problems: [],
    }));
  test("the throttle is a drive of its own", () => {
    expect(drivenBy("throttle")).toBe("throttle");
    expect(drivenBy("eco")).toBe("pedal");
  });
  test.each([
    [{ ampsLow: 7, ampsHigh: 6 }, "Amps run from the low to the high: type 5.5-6.5."],
    [{ speedMps: 0 }, "Type the speed held, for example 15 mph or 24 km/h."],
  ])("a row of %p is refused with what to type", (over, sentence) => {
    const parsed = sweepSchema.safeParse({ title: "s", day: "2026-10-18", rows: [row(over)] });
    expect(parsed.error?.issues[0]?.message).toBe(sentence);
  });
});

describe("a sweep as a day of the desk", () => {
  const mount = { bikeId: "b", setUp: null };
  const dayOf = (cdA: number) => {
    const swept = sweep([10, 15, 20].flatMap((mph) => both(mph, cdA)));
    return dayOfRows({
      id: "s",
      mount,
      riderId: null,
      rows: sweepRows(swept, riding, sweepSpots(swept, pack).spots),
    });
  };
  test("tells the bike's drag, in units of what is assumed", () => {
    const z = (cdA: number) => deskPosterior([dayOf(cdA)!]).valueOf("drag:b/upright");
    expect(z(0.7)).toBeGreaterThan(0.3);
    expect(z(0.42)).toBeLessThan(-0.3);
  });
  test("narrows what the desk believes of the bike", () => {
    const before = parametersOf(deskPosterior([]), mount, riding);
    const after = parametersOf(deskPosterior([dayOf(0.7)!]), mount, riding);
    const drag = after.find(({ name }) => name.startsWith("drag"))!;
    expect(before.every(({ left }) => Math.abs(left - 1) < 1e-9)).toBe(true);
    expect(drag.left).toBeLessThan(0.9);
    expect(drag.value.mean).toBeGreaterThan(drag.assumed.mean);
  });
  test("without rows it is no day", () =>
    expect(dayOfRows({ id: "s", mount, riderId: null, rows: [] })).toBeNull());
});

describe("a climb", () => {
  const climb = (over: Partial<ClimbRecord> = {}) =>
    climbSchema.parse({
      hill: "tower",
      day: "2026-10-18",
      lengthM: 0.62 * METRES_PER_MILE,
      gainM: 47,
      timeS: 184,
      energyWh: 31,
      ...over,
    });
  const figures = (over: Partial<ClimbRecord> = {}) => {
    const found = climbFigures(climb(over), riding, pack);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  };
  test("is what the worked case says, with its error", () => {
    const found = figures();
    expect(found.whPerVerticalM!.mean).toBeCloseTo(0.65957, 5);
    expect(found.gradient).toBeCloseTo(0.047104, 6);
    expect(found.verticalMPerHour).toBeCloseTo(919.57, 2);
    expect(found.whPerVerticalM!.sd).toBeGreaterThan(0);
    expect(found.by).toBe("counter");
    expect(found.batteryW).toBeCloseTo((31 * 3600) / 184, 9);
  });
  test("timed alone it has its speed and its metres an hour, and tells the road load nothing", () => {
    const timed = { energyWh: undefined, timeS: 204 };
    const found = figures(timed);
    expect(found).toMatchObject({
      by: "time",
      energyWh: null,
      whPerVerticalM: null,
      onCommonM: null,
      batteryW: null,
    });
    expect(found.verticalMPerHour).toBeCloseTo((47 * 3600) / 204, 6);
    expect(climbRow(climb(timed), riding, found)).toBeNull();
  });
  test("a percent at one end alone is asked for at the other", () =>
    expect(
      climbSchema.safeParse({ ...climb(), energyWh: undefined, startPercent: 80 }).error?.issues[0],
    ).toMatchObject({
      path: ["endPercent"],
      message: expect.stringContaining("or neither"),
    }));
  test("on a common pack it climbs as high as its rate lets it", () => {
    const { onCommonM, whPerVerticalM } = figures();
    expect(onCommonM!.mean).toBeCloseTo(CLIMB_PACK_WH / whPerVerticalM!.mean, 9);
    expect(onCommonM!.sd / onCommonM!.mean).toBeCloseTo(whPerVerticalM!.sd / whPerVerticalM!.mean, 9);
  });
  test("by whole percents is far less sure", () => {
    const found = figures({ energyWh: undefined, startPercent: 80, endPercent: 75 });
    expect(found.by).toBe("percent");
    expect(found.whPerVerticalM!.sd).toBeGreaterThan(4 * figures().whPerVerticalM!.sd);
  });
  test("speed brought along at the foot counts as energy for the fit", () => {
    const at = (entrySpeedMps: number) =>
      climbRow(climb({ entrySpeedMps }), riding, figures({ entrySpeedMps }))!.measured.mean;
    expect(at(9)).toBeGreaterThan(at(5.4));
    expect(at(0)).toBeLessThan(at(5.4));
  });
  test("feeds the fit of its bike", () => {
    const found = fitRoad([climbRow(climb(), riding, figures())!]);
    expect(found.ok && found.value.rows).toHaveLength(1);
  });
  test.each([
    [
      { energyWh: undefined, startPercent: 70, endPercent: 70 },
      "At the top the percent is below that at the foot: on so short a hill use a counter.",
    ],
    [{ gainM: 2000 }, "A hill rises less than it is long: check both, and their units."],
  ])("of %p is refused with what to type", (over, sentence) => {
    const parsed = climbSchema.safeParse({ ...climb(), ...over });
    expect(parsed.error?.issues.map(({ message }) => message)).toContain(sentence);
  });
});
