import { describe, expect, test } from "@jest/globals";
import {
  addSample,
  CHUNK,
  noSamples,
  recordOf,
  autoLog,
  autoLogFrom,
  sightingOf,
  startOf,
  type DisplaySample,
} from "#core/ride/display";
import { METRES_PER_MILE } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const shown = (rest: Partial<DisplaySample> = {}): DisplaySample => ({ timeS: 1000, ...rest });
/** Kinds a log writes over moments, from the first on. */
const written = (...moments: readonly Partial<DisplaySample>[]) => {
  let state = autoLogFrom(shown(moments[0]));
  return moments.slice(1).flatMap((moment) => {
    const next = autoLog(state, shown(moment));
    state = next.state;
    return next.entries.map(({ body }) => body);
  });
};

describe("a moment as an entry", () => {
  test("volts are under load while the motor pulls, and at rest when the bike stands", () => {
    expect(sightingOf(shown({ volts: 48, amps: 9, speedMps: 6 }))).toMatchObject({ underLoad: true });
    expect(sightingOf(shown({ volts: 50, amps: 0, speedMps: 0 }))).toMatchObject({ underLoad: false });
  });
  test("what a device does not show is left out", () => expect(sightingOf(shown())).toEqual({}));
  test("a start says nothing of the charger", () => {
    const { body, timeS } = startOf(shown({ distanceM: 0, percent: 100, level: "mid" }));
    expect(timeS).toBe(1000);
    expect(body).toEqual({ kind: "start", distanceM: 0, percent: 100, level: "mid" });
  });
});

describe("a log that writes itself", () => {
  test("checks in once a mile, by the display where there is no recorder", () => {
    const at = (key: "distanceM" | "displayM") =>
      written(...[0, 0.5, 1.1, 1.5, 2.2].map((miles) => ({ [key]: mi(miles) })));
    expect(at("distanceM")).toHaveLength(2);
    expect(at("displayM")).toHaveLength(2);
  });
  test("notes a change of level where it is, and goes on by the mile", () => {
    const found = written(
      { distanceM: 0, level: "low" },
      { distanceM: mi(0.4), level: "high" },
      { distanceM: mi(0.9), level: "high" },
      { distanceM: mi(1.1), level: "high" },
    );
    expect(found).toMatchObject([{ level: "high" }, { level: "high" }]);
  });
  test("notes each bar once, though it comes back at rest and goes again", () => {
    const found = written({ bars: 5 }, { bars: 3 }, { bars: 4 }, { bars: 3 }, { bars: 2 });
    expect(found.map((body) => (body as { bar: number }).bar)).toEqual([5, 4, 3]);
  });
  test("notes low-power mode where it begins, once", () =>
    expect(written({ lowPower: false }, { lowPower: true }, { lowPower: true })).toEqual([
      { kind: "lowPower" },
    ]));
});

describe("samples in rows", () => {
  test("leave out moments without volts or amps, and those that do not come after the last", () => {
    const samples = noSamples();
    for (const timeS of [1, 2, 2, 1, 3]) addSample(samples, { timeS, volts: 50, amps: 3 });
    addSample(samples, { timeS: 4, volts: 50 });
    expect(recordOf(samples, "box")).toEqual({
      logger: "box",
      timeS: [1, 2, 3],
      volts: [50, 50, 50],
      amps: [3, 3, 3],
      speedMps: [0, 0, 0],
      distanceM: [0, 0, 0],
    });
  });
  test("say when a row is full", () => {
    const samples = noSamples();
    const full = Array.from({ length: CHUNK }, (_, timeS) =>
      addSample(samples, { timeS, volts: 50, amps: 3 }),
    );
    expect(full.indexOf(true)).toBe(CHUNK - 1);
  });
});
