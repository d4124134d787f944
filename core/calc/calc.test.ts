import { describe, expect, test } from "@jest/globals";
import { REFERENCES } from "#core/bike";
import { answer, answerText } from "#core/calc";
import { worldDesk } from "#tests/world";

const plain = {
  calculation: "plain",
  input: { startPercent: 96, endPercent: 31, labelWh: 612, distanceMi: 27.4 },
};
const lines = (text: string) =>
  answerText(text).map(({ ok, value }) => [
    ok,
    ok ? value : (value as { error: { path: string } }).error.path,
  ]);

describe("one calculation, an array, or JSON lines", () => {
  test("one", () =>
    expect(answerText(JSON.stringify(plain, null, 2))).toMatchObject([
      { ok: true, value: { energyWh: 397.8 } },
    ]));
  test("an array is answered in order", () =>
    expect(lines(JSON.stringify([plain, { calculation: "x" }, plain])).map(([ok]) => ok)).toEqual([
      true,
      false,
      true,
    ]));
  test("a bad line does not stop the others", () => {
    expect(lines(`${JSON.stringify(plain)}\n{broken\n\n${JSON.stringify(plain)}\n`)).toMatchObject([[true, {}], [false, "line 2"], [true, {}]]); // prettier-ignore
  });
  test("one line of an array's kind in JSON lines", () => expect(lines(`${JSON.stringify(plain)}\n3`)).toMatchObject([[true, {}], [false, ""]])); // prettier-ignore
  test.each(["", "  \n"])("nothing at all (%j)", (text) =>
    expect(answerText(text)).toMatchObject([{ ok: false, value: { error: { code: "empty" } } }]),
  );
  test("not JSON", () =>
    expect(answerText("hello there")).toMatchObject([{ ok: false, value: { error: { code: "not-json" } } }]));
});

describe("assume", () => {
  const usable = (assume: object) =>
    answer({ calculation: "usableEnergy", input: { chemistry: "NMC", labelWh: 600, assume } });
  test("sets defaults for one calculation, and for none after it", () => {
    const before = usable({});
    expect(usable({ labelDerate: 1 })).not.toEqual(before);
    expect(usable({})).toEqual(before);
  });
  test("sets a meter's gain", () => {
    const sdOf = (assume: object) => {
      const { value } = answer({
        calculation: "ledger",
        input: {
          assume,
          pack: { chemistry: "NMC", labelWh: 600 },
          cells: ["a"],
          legs: [{ miles: { a: 20 } }],
          readings: [
            { kind: "fullStart", mark: 0 },
            { kind: "energyCounter", fromMark: 0, toMark: 1, wh: 280, meter: "m" },
          ],
        },
      });
      return (value as { whPerMiSd: readonly number[] }).whPerMiSd[0]!;
    };
    expect(sdOf({ energyGainSd: 0.05 })).toBeGreaterThan(2 * sdOf({}));
  });
});

describe("errors have a path and a sentence", () => {
  test.each([
    [{ calculation: "fly", input: {} }, "calculation"],
    [{ calculation: "toString", input: {} }, "calculation"],
    [{ input: {} }, "calculation"],
    [{ calculation: "plain" }, "input"],
    [{ calculation: "plain", input: { ...plain.input, startPercent: 140 } }, "input.startPercent"],
    [{ calculation: "plain", input: { ...plain.input, distanceMi: 0 } }, "input.distanceMi"],
    [{ calculation: "plain", input: { ...plain.input, endPercent: 96 } }, "input.endPercent"],
    [{ calculation: "usableEnergy", input: { chemistry: "NMC" } }, "input.labelWh"],
    [{ calculation: "openCircuit", input: { chemistry: "NMC", q: 2 } }, "input.q"],
    [
      { calculation: "usableEnergy", input: { chemistry: "NMC", labelWh: 600, assume: { fade: 1 } } },
      "input.assume",
    ],
    [
      { calculation: "usableEnergy", input: { chemistry: "NMC", labelWh: 600, assume: null } },
      "input.assume",
    ],
    [{ calculation: "openCircuit", input: { chemistry: "tin", cellVolts: 3 } }, "input.chemistry"],
    [
      {
        calculation: "ledger",
        input: {
          pack: { chemistry: "NMC", labelWh: 600 },
          cells: ["a"],
          legs: [{ miles: { a: -3 } }],
          readings: [],
        },
      },
      "input.legs.0.miles.a",
    ],
    [
      { calculation: "ledger", input: { pack: { chemistry: "NMC", labelWh: 600 }, cells: ["a"], rides: [] } },
      "input.rides",
    ],
    [{ calculation: "odometerFactor", input: { gpsMi: [1, 2], odoMi: [1] } }, "input.odoMi"],
    [
      {
        calculation: "ledger",
        input: {
          pack: { chemistry: "NMC", labelWh: 600 },
          cells: ["a"],
          legs: [{ miles: { a: 3 } }],
          readings: [{ kind: "percent", mark: 4, percent: 50 }],
        },
      },
      "input.readings.0.mark",
    ],
  ])("%j at %s", (request, path) => {
    const { ok, value } = answer(request);
    expect(ok).toBe(false);
    expect((value as { error: { path: string; sentence: string } }).error).toMatchObject({
      path,
      sentence: expect.stringMatching(/\.$|:/),
    });
  });
  test.each([null, 3, "x", [1]])("%j is not a request", (request) => expect(answer(request).ok).toBe(false));
});

describe("a bundle", () => {
  const entry = (n: number, body: object) => ({
    id: `019a0000-0000-7000-8000-00000000000${n}`,
    seq: n,
    body,
  });
  const one = (entries: object[]) => ({
    test: { title: "levee", day: "2026-10-18", airTempC: 20 },
    bike: { name: "b", levels: ["low"] },
    pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13 },
    rides: [{ entries }],
  });
  const good = one([
    entry(0, { kind: "start", distanceM: 0, chargerDone: true }),
    entry(1, { kind: "end", reason: "byChoice", distanceM: 20_000, percent: 61 }),
  ]);
  const bundle = (...tests: object[]) => ({ format: "barometron bundle", version: 1, tests });
  test("is answered test by test, without drawing data", () => {
    const { ok, value } = answer(bundle(good, good));
    expect(ok).toBe(true);
    const [first] = (value as { tests: Record<string, unknown>[] }).tests;
    expect(first).toMatchObject({ title: "levee", distance: { value: { mean: 20_000 } } });
    expect(Object.keys(first!)).not.toContain("curve");
  });
  test("a test that cannot be reckoned is named; the others still are", () => {
    const { ok, value } = answer(bundle(good, one([])));
    expect(ok).toBe(false);
    expect(value).toMatchObject({
      error: { path: "tests.1.rides" },
      tests: [{ title: "levee" }, { error: { code: "no-distance" } }],
    });
  });
});

describe("a bundle brought to a reference", () => {
  const { tests } = worldDesk(5, { bikes: 3, riders: 2, testsEach: 2, told: "typical" }, REFERENCES[0]!);
  const records = tests.map(({ record }) => record);
  const ask = (under: unknown, own: readonly unknown[] = records) =>
    answer({ format: "barometron bundle", version: 1, under, tests: own });
  const value = (under: unknown) =>
    ask(under).value as {
      readonly tests: readonly {
        readonly under: { readonly whPerM: { readonly mean: number; readonly low: number } };
      }[];
      readonly ranking: readonly {
        readonly place: number;
        readonly tests: readonly number[];
        readonly behindNext: number | null;
        readonly whPerM: { readonly mean: number };
      }[];
    };
  test("each test has its bike's figure, and each bike its place", () => {
    const { tests: answered, ranking } = value("House");
    expect(ranking.map(({ place }) => place)).toEqual(ranking.map((_, i) => i + 1));
    expect(ranking.flatMap((each) => each.tests).sort()).toEqual(records.map((_, i) => i));
    for (const { tests: own, whPerM } of ranking)
      for (const i of own) expect(answered[i]!.under.whPerM.mean).toBe(whPerM.mean);
    expect(answered.every(({ under }) => under.whPerM.low > 0)).toBe(true);
    expect(ranking.at(-1)!.behindNext).toBeNull();
    expect(ranking.slice(0, -1).every(({ behindNext }) => behindNext! >= 0 && behindNext! <= 0.5)).toBe(true);
  });
  test("a faster, hillier reference takes more, by a name in any case or by conditions", () => {
    const mean = (under: unknown) => value(under).ranking[0]!.whPerM.mean;
    expect(mean("house")).toBe(mean("House"));
    expect(mean({ speedMps: 8, gainMPerMi: 30 })).toBeGreaterThan(mean({ speedMps: 5 }));
    expect(mean({ speedMps: 6, massKg: 160 })).toBeGreaterThan(mean({ speedMps: 6, massKg: 100 }));
  });
  test.each([
    ["Hous", "under", "one of House"],
    [{}, "under.speedMps", "for example 6.7"],
    [7, "under", "Give a set's name"],
    [null, "under", "Give a set's name"],
    [{ speedMps: 300 }, "under.speedMps", "metres per second"],
  ])("%j is refused with what to give", (under, path, said) => {
    const { ok, value: refused } = ask(under);
    expect(ok).toBe(false);
    expect((refused as { error: { path: string; sentence: string } }).error).toMatchObject({
      path,
      sentence: expect.stringContaining(said),
    });
  });
});
