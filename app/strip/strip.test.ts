import { describe, expect, test } from "@jest/globals";
import { analyseTest } from "#core/analysis";
import { makeStandin, type ScenarioName } from "#core/simulator";
import { bandOf, layOutStrip } from "#app/ui/charts/stripTracks/layout";
import { entryForm, entryTexts } from "./entryForm";
import { clockOf, momentOf } from "./moment";
import { minutesText } from "./tabs/doubt";
import { lighter, stripResults } from "#app/services/strip/view";

const results = (scenario: ScenarioName) => {
  const result = analyseTest(makeStandin(6, scenario).record);
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return stripResults(result.value);
};

describe("what the page needs of the results", () => {
  const days = results("two-days");
  test("marks know their ride and how far along it they lie", () => {
    const second = days.marks.filter(({ ride }) => ride === 1);
    expect(second[0]!.alongM).toBe(0);
    expect(second.at(-1)!.alongM).toBeCloseTo(second.at(-1)!.distanceM - second[0]!.distanceM, 6);
  });
  test("every entry has its place, and the log itself is not in it", () => {
    expect(Object.keys(days.places).length).toBeGreaterThan(10);
    expect("course" in days).toBe(false);
  });
  test("lighter keeps seven digits, whole numbers, words and gaps", () => {
    expect(lighter({ a: 1 / 3, b: [12_345_678_901, null, "2.00000000001"], c: { d: true } })).toEqual({
      a: 0.3333333,
      b: [12_345_678_901, null, "2.00000000001"],
      c: { d: true },
    });
  });
});

describe("the strip's layout", () => {
  const layout = layOutStrip(results("logged"), 800, "imperial");
  test("miles run from left to right inside the axes", () => {
    const { curve } = results("logged");
    const places = curve.map(({ distanceM }) => layout.x(distanceM));
    expect(places[0]!).toBeGreaterThan(layout.left);
    expect(places.at(-1)!).toBeLessThan(layout.right);
    places.forEach((x, i) => expect(i === 0 || x >= places[i - 1]!).toBe(true));
  });
  test("energy left falls downward, use grows upward, both inside their tracks", () => {
    expect(layout.yOfUsed(0.9)).toBeGreaterThan(layout.yOfUsed(0.1));
    expect(layout.yOfUse(0.01)).toBeLessThan(layout.yOfUse(0.005));
    expect(layout.yOfUse(1e9)).toBe(layout.use.top);
    expect(layout.yOfUse(-1)).toBe(layout.use.top + layout.use.height);
  });
  test("tracks do not overlap; one with nothing to draw takes no room", () => {
    const { ground, level, energy, logged, use, axis } = layout;
    const tops = [ground, level, energy, logged!, use].map(({ top, height }) => [top, top + height]);
    tops.slice(1).forEach(([top], i) => expect(top!).toBeGreaterThan(tops[i]![1]!));
    expect(axis).toBeGreaterThan(use.top + use.height);
    const plain = layOutStrip(results("clean"), 800, "imperial");
    expect([plain.logged, plain.profile]).toEqual([null, null]);
    expect(plain.height).toBeLessThan(layout.height);
    expect(layOutStrip(results("hills"), 800, "metric").profile).not.toBeNull();
  });
  test("a stretch of a few yards does not set the scale of use", () => {
    const clean = results("clean");
    const start = clean.curve[0]!.distanceM;
    const wild = { ...clean.stretches[0]!, fromM: start, toM: start + 5, whPerM: { mean: 0.4, sd: 0.2 } };
    const scale = (stretches: typeof clean.stretches) =>
      layOutStrip({ ...clean, stretches }, 800, "imperial").useSteps;
    expect(scale([wild, ...clean.stretches])).toEqual(scale(clean.stretches));
  });
  test("levels are drawn by their order; throttle is full and hatched; an unknown one half", () => {
    expect(bandOf("mid", ["low", "mid", "high"])).toEqual({ share: 2 / 3, throttle: false });
    expect(bandOf("throttle", ["low"])).toEqual({ share: 1, throttle: true });
    expect(bandOf("other", ["low"]).share).toBe(0.5);
  });
});

describe("times of the ride's own clock", () => {
  test.each(["+00:00", "+01:00", "-05:30"])("10:41 at %s comes back as 10:41", (offset) => {
    const at = momentOf("2026-10-18", "10:41", offset, null)!;
    expect(clockOf(Date.parse(at) / 1000, offset)).toBe("10:41");
  });
  test("no time is no moment; nonsense is none either", () => {
    expect(momentOf("2026-10-18", "", "+00:00", null)).toBeNull();
    expect(momentOf("2026-10-18", "25:99", "+00:00", null)).toBeNull();
    expect(clockOf(null, "+00:00")).toBe("");
  });
});

test("time a person needs, in minutes or hours", () =>
  expect([4, 12.4, 99, 150].map(minutesText)).toEqual(["4 min", "12 min", "99 min", "2.5 h"]));

describe("charges, counters and hand marks as typed", () => {
  const read = (typed: Record<string, string>) => entryForm("imperial").safeParse(typed);
  test("a charge to full needs no distance, and takes kWh", () => {
    const parsed = read({ what: "refill", wallWh: "0.41 kWh", toFull: "on", charger: "shed" });
    expect(parsed.success && parsed.data.body).toEqual({
      kind: "refill",
      wallWh: 410,
      toFull: true,
      charger: "shed",
    });
  });
  test("counters are read with their units", () => {
    const parsed = read({
      what: "checkIn",
      distanceM: "8 mi",
      counterWh: "104",
      counterAh: "2,1 Ah",
      meter: "clip",
    });
    expect(parsed.success && parsed.data.body).toMatchObject({
      counterWh: 104,
      counterAh: 2.1,
      meter: "clip",
    });
  });
  test("full power's end asks for its place", () => {
    const parsed = read({ what: "fullPowerEnd" });
    expect(!parsed.success && parsed.error.issues[0]!.path).toEqual(["distanceM"]);
  });
  test("what was typed comes back for a correction", () => {
    const parsed = read({ what: "checkIn", distanceM: "8 mi", counterWh: "104" });
    if (!parsed.success) throw new Error("not read");
    const live = {
      rootId: "",
      id: "",
      seq: 0,
      timeS: null,
      body: parsed.data.body,
      struck: false,
      struckFields: [],
      was: [],
    };
    expect(entryTexts(live as never, "", "imperial")).toMatchObject({
      counterWh: "104 Wh",
      distanceM: "8 mi",
    });
  });
});
