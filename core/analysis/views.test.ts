import { describe, expect, test } from "@jest/globals";
import type { EntryBody } from "#core/ride/log";
import { DEFAULTS, METRES_PER_MILE, unitToken, renderUnits } from "#core/base";
import { packRecordSchema, testRecordSchema, type TestRecord } from "#core/records";
import { packHistory, analyseTest, type TestResults } from "#core/analysis";
import { makeStandin } from "#core/simulator";

const mi = (miles: number) => miles * METRES_PER_MILE;
const T0 = Date.UTC(2026, 9, 18, 9);

function record(
  bodies: readonly (EntryBody | readonly [number, EntryBody])[],
  rest: object = {},
): TestRecord {
  const entries = bodies.map((each, seq) => {
    const [minute, body] = Array.isArray(each) ? (each as [number, EntryBody]) : [null, each as EntryBody];
    return {
      id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
      seq,
      at: minute === null ? null : new Date(T0 + minute * 60_000).toISOString(),
      body,
      supersedes: null,
    };
  });
  return testRecordSchema.parse({
    test: { title: "t", day: "2026-10-18", airTempC: 20, firstLevel: "steady" },
    bike: { name: "b", levels: ["steady", "brisk"], percentStep: 1, bars: 5 },
    pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13 },
    rides: [{ entries }],
    ...rest,
  });
}
const reckon = (...given: Parameters<typeof record>): TestResults => {
  const result = analyseTest(record(...given));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};
const start: EntryBody = { kind: "start", distanceM: 0, percent: 100, chargerDone: true };
const at = (miles: number, rest: object): EntryBody => ({ kind: "checkIn", distanceM: mi(miles), ...rest });
const whPerMi = (value: { mean: number }) => value.mean * METRES_PER_MILE;

describe("each kind of evidence alone", () => {
  const results = reckon([
    { ...start, packVolts: 54.3, restMin: 30 } as EntryBody,
    at(8, { percent: 82, counterWh: 118, meter: "m" }),
    at(16, { percent: 63, packVolts: 50.4, restMin: 12, counterWh: 236, meter: "m" }),
    at(22, { percent: 49, packVolts: 48.6, restMin: 12, counterWh: 326, meter: "m" }),
  ]);
  test("stands by name with where it comes from", () =>
    expect(results.alone.map(({ name, from }) => [name, from])).toEqual([
      ["percent", "4 percent readings"],
      ["volts, by the cell curve", "3 voltage readings at rest"],
      ["volts, by a straight line", "the first and last volts at rest"],
      ["counter", "3 energy counts"],
    ]));
  test("the counter alone says its Wh over the miles", () => {
    const counter = results.alone.find(({ kind }) => kind === "counter")!;
    expect(whPerMi(counter.whPerM)).toBeCloseTo(326 / 22, 1);
  });
  test("the straight line parts from the curve, and the sentence says by how much charge", () => {
    const sentence = renderUnits(results.aloneSentence!, "imperial");
    expect(sentence).toMatch(/alone says \d+\.\d Wh\/mi, .* alone \d+\.\d Wh\/mi: \d\.\d sd apart/);
    expect(sentence).toMatch(/At 48\.6 V a straight line leaves \d+ % of the charge, the cell curve \d+ %/);
  });
  test("two kinds that cannot both be right are said to have a fault", () => {
    const odd = reckon([
      start,
      at(10, { percent: 90, counterWh: 300 }),
      at(20, { percent: 80, counterWh: 600 }),
    ]);
    expect(odd.aloneSentence).toContain("more than their own errors allow");
  });
});

describe("a figure explains itself", () => {
  const results = reckon([start, at(8, { percent: 82 }), at(16, { percent: 63 }), at(22, { percent: 49 })]);
  test("in lines with its own numbers", () => {
    const lines = results.best.how.map((line) => renderUnits(line, "metric")).join(" ");
    expect(lines).toContain(`${results.energy.value.mean.toFixed(0)} Wh over 35.4 km is`);
    expect(lines).toContain("they err by themselves");
  });
  test("and in rows: each reading's say, the answer there, and its share", () => {
    const rows = results.readings.map(({ row }) => row!);
    expect(rows.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    const last = results.readings.at(-1)!;
    expect(last.row!.says).toBeCloseTo(last.says!.mean, 9);
    expect(Math.abs(last.row!.answer - last.row!.says)).toBeLessThan(0.03);
  });
});

describe("the end", () => {
  const ridden = (more: readonly EntryBody[]) =>
    reckon([start, at(20, { percent: 50 }), ...more, { kind: "end", reason: "cutOff", distanceM: mi(40) }]);
  test("full power's end is where low-power mode began, else where a hand put it", () => {
    expect(ridden([]).end.fullPower).toBeNull();
    expect(ridden([{ kind: "lowPower", distanceM: mi(36) }]).end.fullPower).toMatchObject({
      by: "low-power mode",
    });
    const hand = ridden([{ kind: "fullPowerEnd", distanceM: mi(34) }]);
    expect(hand.end.fullPower).toMatchObject({ by: "hand", distanceM: mi(34) });
    expect(hand.rangeFullPower).toMatchObject({ pencil: false, value: { mean: mi(34) } });
  });
  test("of a choice leaves a projection", () => {
    const results = reckon([start, { kind: "end", reason: "byChoice", distanceM: mi(20), percent: 52 }]);
    expect(results.end).toMatchObject({ closed: false, reason: "stopped by choice" });
    expect(results.rangeTotal!.pencil).toBe(true);
  });
});

describe("loaded volts", () => {
  test("are put back to rest by the resistance that a pair within two minutes shows", () => {
    const pair = (ohm: number) =>
      reckon([
        [0, start],
        [60, at(15, { packVolts: 50, restMin: 12 })],
        [61, at(15, { packVolts: 50 - 10 * ohm, underLoad: true, amps: 10 })],
        [90, at(22, { packVolts: 47.2, underLoad: true, amps: 10 })],
      ]).curve.at(-1)!.used.mean;
    expect(pair(0.2)).toBeLessThan(pair(0.05));
  });
});

describe("a set-aside reading", () => {
  test("leaves both answers in view", () => {
    const bodies = [start, at(10, { percent: 78 }), at(15, { percent: 75 }), at(20, { percent: 56 })];
    const strike: EntryBody = {
      kind: "strike",
      target: record(bodies).rides[0]!.entries[2]!.id,
      field: "percent",
    };
    const [whole, less] = [reckon(bodies), reckon([...bodies, strike])];
    expect(whole.bestWithStruck).toBeNull();
    expect(less.bestWithStruck!.mean).toBeCloseTo(whole.best.value.mean, 12);
    expect(less.best.value.mean).not.toBeCloseTo(whole.best.value.mean, 6);
  });
});

describe("odd rides", () => {
  test("one reading only is answered, widely", () => {
    const { best } = reckon([{ kind: "start", distanceM: 0 }, at(12, { percent: 70 })]);
    expect(whPerMi({ mean: best.value.sd })).toBeGreaterThan(3);
  });
  test("no distance is a sentence", () => {
    const result = analyseTest(record([start, { kind: "checkIn", distanceM: 0, percent: 99 }]));
    expect(!result.ok && result.problems[0]!.sentence).toContain("Two check-ins at different distances");
  });
  test("all readings at one mark say hardly more than what is assumed", () => {
    const { best, rangeTotal } = reckon([start, at(0, { percent: 99 }), at(12, {})]);
    expect(whPerMi({ mean: best.value.sd })).toBeGreaterThan(5);
    expect(rangeTotal === null || rangeTotal.value.sd > 0.3 * rangeTotal.value.mean).toBe(true);
  });
  test("contradictory evidence is questioned, and the figure lies between what its kinds allow", () => {
    const { flags, best, alone } = reckon([
      start,
      at(10, { percent: 80, packVolts: 42, restMin: 20 }),
      at(20, { percent: 60, packVolts: 41, restMin: 20 }),
    ]);
    expect(flags.length).toBeGreaterThan(0);
    const edges = alone.flatMap(({ whPerM: { mean, sd } }) => [mean - 3 * sd, mean + 3 * sd]);
    expect(best.value.mean).toBeGreaterThan(Math.min(...edges));
    expect(best.value.mean).toBeLessThan(Math.max(...edges));
  });
  test("zero bars mean all is used; a display without bars is left out with a sentence", () => {
    const dead = reckon([start, at(20, { bars: 0 })]);
    expect(dead.curve.at(-1)!.used.mean).toBeGreaterThan(0.85);
    const none = reckon([start, at(20, { bars: 2, percent: 60 })], {
      bike: { name: "b", levels: ["steady"], percentStep: 1, bars: 0 },
    });
    expect(none.notices.join()).toContain("2 bars is left out. This bike's display has no bars");
  });
  test("duplicated times and places are one mark", () => {
    const { course } = reckon([[0, start], [30, at(6, { percent: 90 })], [30, at(6, { packVolts: 52.8, restMin: 12 })]]); // prettier-ignore
    expect(course.marks).toHaveLength(2);
    expect(course.readings).toHaveLength(4);
  });
  test("a long descent that gives energy back has a stretch below zero", () => {
    const { stretches } = reckon([
      start,
      at(5, { counterWh: 120 }),
      at(7, { counterWh: 104 }),
      at(12, { counterWh: 190, percent: 70 }),
    ]);
    expect(stretches[1]!.whPerM.mean).toBeLessThan(0);
  });
  test("5,000 check-ins are reckoned", () => {
    const bodies = Array.from({ length: 5000 }, (_, i) =>
      i === 0 ? start : at(i * 0.01, { percent: Math.round(100 - i * 0.017) }),
    );
    const results = reckon(bodies);
    expect(results.curve).toHaveLength(5000);
    expect(Math.abs(whPerMi(results.best.value) / ((0.87 * 572) / 50) - 1)).toBeLessThan(0.05);
  });
  test("an iron-phosphate pack on volts alone is known to be poorly known", () => {
    const lfp = { pack: { name: "p", chemistry: "LFP", labelWh: 612, seriesCells: 15 } };
    const flat = reckon(
      [at(0, { packVolts: 49.9, restMin: 20 }), at(20, { packVolts: 49.4, restMin: 20 })],
      lfp,
    );
    expect(flat.best.value.sd / flat.best.value.mean).toBeGreaterThan(0.2);
  });
});

describe("what is drawn along the way", () => {
  test("a logger's speed and amps, thinned, at their miles", () => {
    const result = analyseTest(makeStandin(3, "logged").record);
    const series = result.ok ? result.value.series! : null;
    expect(series!.distanceM.length).toBeLessThanOrEqual(400);
    expect(
      series!.ampsHigh.every(
        (high, i) => high! >= series!.amps[i]! - 1e-9 && series!.ampsLow[i]! <= series!.amps[i]! + 1e-9,
      ),
    ).toBe(true);
    expect(series!.distanceM.every((metres, i) => i === 0 || metres >= series!.distanceM[i - 1]!)).toBe(true);
    expect(Math.max(...series!.amps.map((amps) => amps ?? 0))).toBeGreaterThan(3);
  });
  test("heights of a track", () => {
    const result = analyseTest(makeStandin(3, "hills").record);
    const profile = result.ok ? result.value.profile! : null;
    expect(profile!.heightM).toHaveLength(profile!.distanceM.length);
    expect(Math.max(...profile!.heightM) - Math.min(...profile!.heightM)).toBeGreaterThan(5);
  });
});

describe("a pack's history", () => {
  const pack = packRecordSchema.parse({
    name: "p",
    labelWh: 600,
    firstUsedOn: "2024-05-01",
    cycles: 100,
    measuredWh: 540,
    measuredOn: "2025-05-01",
  });
  const ride = (mean: number, learned: boolean) => ({
    day: "2026-05-01",
    learned: { before: { mean: 570, sd: 22 }, after: { mean, sd: 9 }, own: { mean, sd: 10 }, learned },
  });
  test("holds the bench and the rides that measured it, oldest first, with a verdict and its assumption", () => {
    const history = packHistory(pack, [ride(528, true), ride(500, false)], "2026-11-01")!;
    expect(history.points.map(({ from, wh }) => [from, wh.mean])).toEqual([["bench", 540], ["ride", 528 / DEFAULTS.benchToRide]]); // prettier-ignore
    expect(history.sentence).toMatch(
      /^542 of 600 Wh, 90 %: inside what 2\.0 years and 100 cycles let expect/,
    );
    expect(history.points[0]!.share.mean).toBeCloseTo(0.9, 12);
    expect(history.sentence).toContain("(assumed)");
    expect(history.expected.at(-1)!.share.mean).toBeLessThan(history.expected[0]!.share.mean);
  });
  test("never measured says what would tell; without an age asks for it", () => {
    const fresh = packRecordSchema.parse({ name: "p", labelWh: 600 });
    expect(packHistory(fresh, [], "2026-11-01")!.sentence).toContain("Never measured");
    expect(packHistory(fresh, [ride(528, true)], "2026-11-01")!.sentence).toContain(
      "Type when it was first used",
    );
  });
});

describe("sentences in either system of units", () => {
  test("a token is written out, with decimals if asked", () => {
    const sentence = `at ${unitToken(15_000, "distance")} it took ${unitToken(0.0093, "energyPerDistance", 2)}`;
    expect(renderUnits(sentence, "metric")).toBe("at 15.0 km it took 9.30 Wh/km");
    expect(renderUnits(sentence, "imperial")).toBe("at 9.3 mi it took 14.97 Wh/mi");
  });
  test("plain words pass as they are", () =>
    expect(renderUnits("no figure ‹here›", "metric")).toBe("no figure ‹here›"));
});
