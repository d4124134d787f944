import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { answerLedger, ledgerInputSchema } from "#core/estimation";
import type { Entry, EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, renderUnits } from "#core/base";
import { testRecordSchema, type TestRecord } from "#core/records";
import { readingText } from "#core/battery/readings";
import { analyseTest, type TestResults } from "#core/analysis";

const id = (n: number) => `019a0000-0000-7000-8000-${n.toString(16).padStart(12, "0")}`;
const mi = (miles: number) => miles * METRES_PER_MILE;
const entries = (bodies: readonly EntryBody[]): Entry[] =>
  bodies.map((body, seq) => ({ id: id(seq), seq, at: null, body, supersedes: null }));

function record(bodies: readonly EntryBody[], rest: Partial<TestRecord> = {}): TestRecord {
  return testRecordSchema.parse({
    test: { title: "t", day: "2026-10-18", airTempC: 20, firstLevel: "steady" },
    bike: { name: "b", levels: ["steady", "brisk"], percentStep: 1, bars: 5 },
    pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13 },
    rides: [{ name: "r", entries: entries(bodies) }],
    ...rest,
  });
}
const reckon = (bodies: readonly EntryBody[], rest: Partial<TestRecord> = {}): TestResults => {
  const result = analyseTest(record(bodies, rest));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};

test("a figure past any bike is asked about, and no steep or cold one is", () => {
  const few = (metres: number): readonly EntryBody[] => [
    { kind: "start", distanceM: 0, percent: 99, chargerDone: true },
    { kind: "checkIn", distanceM: metres, percent: 70 },
    { kind: "end", reason: "byChoice", distanceM: 2 * metres, percent: 40 },
  ];
  // Miles that were taken as metres.
  expect(reckon(few(12)).notices.map((each) => renderUnits(each, "imperial"))).toEqual([
    expect.stringMatching(/^[\d,]+ Wh\/mi is more than any bike takes\. Check the unit/),
  ]);
  expect(reckon(few(1500)).notices).toEqual([]);
});

const start: EntryBody = { kind: "start", distanceM: 0, percent: 99, chargerDone: true };
const checkIn = (miles: number, percent: number, rest: object = {}): EntryBody => ({
  kind: "checkIn",
  distanceM: mi(miles),
  percent,
  ...rest,
});
const partCharge: readonly EntryBody[] = [
  start,
  checkIn(5, 88),
  checkIn(10, 76),
  checkIn(15, 66),
  { kind: "end", reason: "byChoice", distanceM: mi(19.2), percent: 56 },
];
const runDown: readonly EntryBody[] = [
  start,
  checkIn(10, 77),
  checkIn(20, 52),
  checkIn(30, 27),
  { kind: "lowPower", distanceM: mi(37) },
  { kind: "end", reason: "cutOff", distanceM: mi(40) },
];

describe("a part charge from the log to the ledger", () => {
  const results = reckon(partCharge);
  const worked = answerLedger(
    ledgerInputSchema.parse({
      pack: { chemistry: "NMC", labelWh: 612, seriesCells: 13, packTempC: 20 },
      gauge: { percentStep: 1 },
      cells: ["steady"],
      legs: [5, 5, 5, 4.2].map((miles) => ({ miles: { steady: miles } })),
      readings: [
        { kind: "fullStart", mark: 0 },
        ...[99, 88, 76, 66, 56].map((percent, mark) => ({ kind: "percent", mark, percent })),
      ],
    }),
  );
  if (!worked.ok) throw new Error("not answered");
  const [[whPerMi, sd]] = worked.value.headline as [readonly [number, number]];
  test("gives the worked ledger, with the distance error added", () => {
    expect(results.best.value.mean * METRES_PER_MILE).toBeCloseTo(whPerMi, 6);
    expect(results.best.value.sd * METRES_PER_MILE).toBeCloseTo(Math.hypot(sd, whPerMi * 0.005), 6);
    expect(results.energy.value.mean).toBeCloseTo(worked.value.energyWh[0]!, 6);
  });
  test("has its plain answer beside it, and says why they differ", () => {
    expect(results.plain!.whPerM * METRES_PER_MILE).toBeCloseTo((0.43 * 612) / 19.2, 9);
    expect(results.plain!.because).toBe("99 to 56 % of the label's 612 Wh");
    expect(results.difference).toMatch(/Plain/);
  });
  test("projects its range in pencil; the reserve takes a fifth", () => {
    expect(results.rangeTotal).toMatchObject({ pencil: true });
    expect(results.rangeWithReserve!.value.mean).toBeCloseTo(0.8 * results.rangeTotal!.value.mean, -3);
    expect(results.rangeTotal!.value.mean).toBeCloseTo(
      mi(19.2) * (worked.value.capacityWh / worked.value.energyWh[0]!),
      -3,
    );
  });
  test("says what it rests on", () =>
    expect(results.best.because).toBe("from 5 percent readings and a full start"));
  test("energy of the stretches adds to the whole", () => {
    const sum = results.stretches.reduce((wh, { fromM, toM, whPerM }) => wh + whPerM.mean * (toM - fromM), 0);
    expect(sum).toBeCloseTo(results.energy.value.mean, 6);
  });
  test("the curve falls from the start to the end", () => {
    const used = results.curve.map(({ used: { mean } }) => mean);
    expect(used.every((value, i) => i === 0 || value > used[i - 1]!)).toBe(true);
  });
});

describe("a run-down", () => {
  const results = reckon(runDown);
  test("closes the range in ink", () => {
    expect(results.rangeTotal).toMatchObject({ pencil: false, value: { mean: mi(40) } });
    expect(results.rangeFullPower).toMatchObject({ pencil: false, value: { mean: mi(37) } });
  });
  test("plain takes the label from full to cut-off", () =>
    expect(results.plain!.energyWh).toBeCloseTo(612, 6));
});

describe("readings in question", () => {
  const slip = partCharge.map((body, i) => (i === 2 ? checkIn(10, 96) : body));
  const results = reckon(slip);
  test("the slip, and only the slip, is flagged, with a sentence that names it", () => {
    expect(results.flags).toHaveLength(1);
    expect(results.flags[0]).toMatchObject({ rootId: id(2), field: "percent" });
    expect(renderUnits(results.flags[0]!.sentence, "imperial")).toMatch(
      /^96 % at 10\.0 mi is far too high for the other readings\. Either it is a slip, or 5\.0 mi beside it took next to nothing of the usual\.$/,
    );
  });
  test("both answers are there, and the headline holds the slip by its odds", () => {
    expect(results.flags[0]!.logOdds).toBeGreaterThan(3);
    const apart = Math.abs(results.bestWithoutFlags!.mean - results.best.value.mean);
    expect(apart).toBeLessThan(0.02 * results.best.value.mean);
  });
  test("the table beside the readings says the same of it as the ledger", () =>
    expect(results.readings.find(({ rootId }) => rootId === id(2))!.row!.without).toEqual(
      results.bestWithoutFlags,
    ));
  test("setting it aside leaves it drawn, and the answer as without it", () => {
    const struck = record(slip);
    const strike: Entry = {
      id: id(90),
      seq: 90,
      at: null,
      body: { kind: "strike", target: id(2), field: "percent" },
      supersedes: null,
    };
    const after = analyseTest({
      ...struck,
      rides: [{ ...struck.rides[0]!, entries: [...struck.rides[0]!.entries, strike] }],
    });
    if (!after.ok) throw new Error("not reckoned");
    expect(after.value.flags).toEqual([]);
    expect(after.value.best.value.mean / results.bestWithoutFlags!.mean).toBeCloseTo(1, 3);
    expect(after.value.readings.find(({ rootId }) => rootId === id(2))).toMatchObject({
      struck: true,
      standing: null,
    });
  });
});

describe("set aside by a person", () => {
  const aside = (bodies: readonly EntryBody[], which: number) => {
    const whole = record(bodies);
    const strike: Entry = {
      id: id(90),
      seq: 90,
      at: null,
      body: { kind: "strike", target: id(which), field: "percent" },
      supersedes: null,
    };
    const after = analyseTest({
      ...whole,
      rides: [{ ...whole.rides[0]!, entries: [...whole.rides[0]!.entries, strike] }],
    });
    if (!after.ok) throw new Error("not reckoned");
    return after.value;
  };
  test("a reading nobody else doubts counts half: the answer is no surer for it, and both are in view", () => {
    const [before, after] = [reckon(partCharge), aside(partCharge, 2)];
    const [all, without] = [after.bestWithStruck!, after.bestWithoutFlags!];
    expect(all.mean / before.best.value.mean).toBeCloseTo(1, 6);
    expect(after.best.value.mean).toBeCloseTo((all.mean + without.mean) / 2, 9);
    expect(after.best.value.sd).toBeGreaterThanOrEqual(Math.min(all.sd, without.sd));
    expect(after.flags).toEqual([]);
  });
  test("with nothing left to read there is no figure, in words", () => {
    const bodies: readonly EntryBody[] = [
      { kind: "start", distanceM: 0, chargerDone: true },
      { kind: "checkIn", distanceM: 16_000, percent: 60 },
    ];
    expect(() => aside(bodies, 1)).toThrow("not reckoned");
  });
});

describe("plain by other means", () => {
  const bare = (bodies: readonly EntryBody[]) => reckon(bodies).plain;
  test("rest volts on the curve", () => {
    const plain = bare([
      { kind: "start", distanceM: 0, packVolts: 53.6, restMin: 20 },
      { kind: "end", reason: "byChoice", distanceM: mi(24.8), packVolts: 46.3, restMin: 20 },
    ]);
    expect(plain!.whPerM * METRES_PER_MILE).toBeCloseTo(16.92166, 4);
  });
  test("whole bars", () => {
    const plain = bare([
      { kind: "start", distanceM: 0, chargerDone: true },
      { kind: "barLost", bar: 5, distanceM: mi(6) },
      { kind: "barLost", bar: 4, distanceM: mi(12) },
    ]);
    expect(plain).toMatchObject({ because: "5 to 3 of 5 bars, as if equal, of the label's 612 Wh" });
    expect(plain!.energyWh).toBeCloseTo(0.4 * 612, 6);
  });
  test("nothing to go by is said", () => {
    const results = reckon([start, { kind: "checkIn", distanceM: mi(5), note: "windy" }]);
    expect(results.plain).toBeNull();
    expect(results.plainMissing).toContain("Paper needs");
  });
});

describe("what cannot be reckoned, or only in part", () => {
  test("one mark only", () =>
    expect(analyseTest(record([start]))).toMatchObject({ ok: false, problems: [{ code: "no-distance" }] }));
  test("no log at all", () => expect(analyseTest(record([]))).toMatchObject({ ok: false }));
  test("volts without cells are left out with a notice", () => {
    const results = reckon([start, checkIn(5, 88, { packVolts: 50 }), checkIn(9, 80)], {
      pack: {
        name: "p",
        chemistry: "NMC",
        labelWh: 612,
        measuredBefore: [],
        learned: [],
        storage: "",
        pencil: [],
      },
    });
    expect(results.notices[0]).toContain("series cells");
    expect(results.readings.map(({ kind }) => kind)).not.toContain("restVolts");
  });
  test("two levels ridden always together are not told apart", () => {
    const results = reckon([
      start,
      { kind: "checkIn", distanceM: mi(1), level: "brisk" },
      { kind: "checkIn", distanceM: mi(2), percent: 95 },
    ]);
    expect(results.parts.map(({ whPerM }) => whPerM)).toEqual([null, null]);
  });
  test("a display never checked is a pencil distance with a wider error", () => {
    const results = reckon([
      { ...start, distanceM: undefined, displayM: 0 } as EntryBody,
      { kind: "checkIn", displayM: mi(10), percent: 76 },
    ]);
    expect(results.distance).toMatchObject({
      pencil: true,
      because: "by the display, never checked against a recorder",
    });
    expect(results.distance.value.sd / results.distance.value.mean).toBeCloseTo(0.084, 9);
  });
});

test("readings in words", () => {
  expect(readingText({ kind: "percent", mark: 0, percent: 62 })).toBe("62 %");
  expect(readingText({ kind: "restVolts", mark: 0, packVolts: 48.6, restMin: 9, meterStepV: 0.1 })).toBe(
    "48.6 V at rest",
  );
  expect(readingText({ kind: "barLost", mark: 0, bar: 4 })).toBe("bar 4 lost");
});

describe("the answer depends on the log alone", () => {
  const whole = record([
    start,
    checkIn(5, 88, { level: "brisk" }),
    checkIn(10, 76, { packVolts: 49.1, restMin: 15 }),
    { kind: "barLost", bar: 4, distanceM: mi(12) },
    checkIn(15, 66, { level: "steady" }),
    { kind: "end", reason: "byChoice", distanceM: mi(19.2), percent: 56 },
  ]);
  const log = [...whole.rides[0]!.entries];
  log.push({
    id: id(70),
    seq: 70,
    at: null,
    body: checkIn(10, 77, { packVolts: 49.1, restMin: 15 }),
    supersedes: id(2),
  });
  log.push({ id: id(71), seq: 71, at: null, body: { kind: "strike", target: id(3) }, supersedes: null });
  const answer = (entries: readonly Entry[]) => {
    const result = analyseTest({ ...whole, rides: [{ ...whole.rides[0]!, entries: [...entries] }] });
    if (!result.ok) throw new Error("not reckoned");
    return result.value;
  };
  const first = answer(log);
  test("not on the order its lines arrive in", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: log.length }), (shuffled) => {
        expect(answer(shuffled)).toEqual(first);
      }),
      { numRuns: 40 },
    );
  });
  test("not on lines that arrive twice", () => expect(answer([...log, ...log])).toEqual(first));
  test("a correction counts once, a struck line not at all", () => {
    const texts = first.readings.filter(({ struck }) => !struck).map(({ text }) => text);
    expect(texts).toContain("77 %");
    expect(texts).not.toContain("76 %");
    expect(texts).not.toContain("bar 4 lost");
    expect(first.readings.find(({ text }) => text === "bar 4 lost")).toMatchObject({ struck: true });
  });
});
