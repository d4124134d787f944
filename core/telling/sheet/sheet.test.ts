import { beforeAll, describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { analyseTest, type TestResults } from "#core/analysis";
import { formatUncertain, renderUnits } from "#core/base";
import { makeStandin } from "#core/simulator";
import type { TestRecord } from "#core/records";
import {
  CAVEAT_RULES,
  caveatsOf,
  changesSince,
  customerSheet,
  figuresOf,
  hoursText,
  METHOD_RULES,
  methodOf,
  remarksByTopic,
  remarksOf,
  sheetMarkdown,
  sheetOptionsSchema,
  testSheet,
  topicOf,
  type SheetOptions,
} from "#core/telling";

/** A stand-in's test with its results; whoever needs another changes the record. */
function ridden(seed: number, change: (record: TestRecord) => TestRecord = (record) => record) {
  const record = change(makeStandin(seed, { what: "sheet", untilEmpty: seed % 2 === 0 }).record);
  const results = analyseTest(record);
  if (!results.ok) throw new Error(results.problems[0]?.sentence);
  return { record, results: results.value };
}

const options = (given: Partial<SheetOptions> = {}): SheetOptions =>
  sheetOptionsSchema.parse({ kind: "test", title: "The levee", ...given });
const pageOf = (
  { record, results }: { record: TestRecord; results: TestResults | null },
  given: Partial<SheetOptions> = {},
) =>
  testSheet(
    { record, results, problems: [], claims: [], photographs: [], system: "imperial" },
    options(given),
  );

let whole: ReturnType<typeof ridden>;
let part: ReturnType<typeof ridden>;
beforeAll(() => {
  whole = ridden(8);
  part = ridden(9);
});

describe("how it was measured, sentence by sentence", () => {
  const said = (key: string, facts: { record: TestRecord; results: TestResults }) =>
    METHOD_RULES.find((rule) => rule.key === key)!.says(facts);
  test("what ended it is what the log says ended it", () => {
    expect(said("protocol", whole)).toContain(whole.results.end.reason!);
    expect(part.results.end.closed).toBe(false);
    expect(said("protocol", part)).toContain(
      `${Math.round(100 * part.results.end.used.mean)} % of the pack's energy used on the way`,
    );
  });
  test("a full start is told only where it is a reading that counts", () => {
    for (const facts of [whole, part]) {
      const full = facts.results.readings.some(({ kind, struck }) => kind === "fullStart" && !struck);
      expect(/from a full charge/.test(said("protocol", facts)!)).toBe(full);
    }
  });
  test("it counts the readings that count", () => {
    const percents = part.results.readings.filter(({ kind, struck }) => kind === "percent" && !struck).length;
    expect(percents).toBeGreaterThan(1);
    expect(said("evidence", part)).toContain(`${percents} percent readings`);
  });
  test("several rides are on one charge only where none was charged in between", () => {
    const { record, results } = part;
    const twice = { ...record, rides: [...record.rides, ...record.rides] };
    expect(said("rides", { record, results })).toBeNull();
    expect(said("rides", { record: twice, results })).toBe("Two rides on one charge.");
    const [first, ...rest] = results.course.marks;
    const charged = { ...first!.entries[0]!, body: { kind: "refill" as const, toFull: true } };
    const course = {
      ...results.course,
      marks: [{ ...first!, entries: [...first!.entries, charged] }, ...rest],
    };
    const between = { record: twice, results: { ...results, course } };
    expect(said("rides", between)).toBe("Two rides.");
    expect(said("protocol", between)).toContain("with one charge in between");
  });
  test("throttle and levels exclude each other", () => {
    const throttle = {
      ...part,
      record: { ...part.record, test: { ...part.record.test, drive: "throttle" as const } },
    };
    expect([said("throttle", throttle) !== null, said("levels", throttle)]).toEqual([true, null]);
    const pedalled = {
      ...part,
      record: { ...part.record, test: { ...part.record.test, drive: "pedal" as const } },
    };
    expect(said("throttle", pedalled)).toBeNull();
  });
  test("nobody measured the pack, or somebody did, never both", () => {
    for (const facts of [whole, part]) {
      const both = [said("capacity measured", facts), said("capacity assumed", facts)];
      expect(both.filter((each) => each !== null)).toHaveLength(1);
      expect(both[1] !== null).toBe(facts.results.capacity.pencil);
    }
  });
  test("every quantity in it can be read in both systems", () => {
    for (const sentence of [...methodOf(whole), ...caveatsOf(part)])
      for (const system of ["imperial", "metric"] as const)
        expect(renderUnits(sentence, system)).not.toMatch(/[‹›]|NaN|undefined/);
  });
});

describe("what to know of it", () => {
  const keysOf = (facts: { record: TestRecord; results: TestResults }) =>
    CAVEAT_RULES.filter(({ says }) => says(facts) !== null).map(({ key }) => key);
  const withResults = (change: Partial<TestResults>) => ({
    ...part,
    results: { ...part.results, ...change },
  });
  test("nothing was set aside, so nothing is said of it; one that was is named with its place and what it would do", () => {
    expect(keysOf(part)).not.toContain("set aside");
    const [first, ...rest] = part.results.readings.filter(({ kind }) => kind === "percent");
    const struck = withResults({
      readings: [{ ...first!, struck: true }, ...rest],
      bestWithStruck: { mean: 0.01, sd: 0.001 },
    });
    const sentence = caveatsOf(struck).find((each) => each.includes("set aside"))!;
    expect(renderUnits(sentence, "metric")).toContain(first!.text);
    expect(renderUnits(sentence, "metric")).toContain(
      formatUncertain({ mean: 0.01, sd: 0.001 }, "energyPerDistance", "metric"),
    );
  });
  test("a widened span says so from a tenth on", () => {
    expect(keysOf(withResults({ widened: 1.05 }))).not.toContain("disagree");
    expect(keysOf(withResults({ widened: 1.9 }))).toContain("disagree");
  });
  test("so little of a charge is a sketch, unless the pack ended it", () => {
    const used = { mean: 0.2, sd: 0.01 };
    expect(keysOf(withResults({ end: { ...part.results.end, used, closed: false } }))).toContain(
      "small part",
    );
    expect(keysOf(withResults({ end: { ...part.results.end, used, closed: true } }))).not.toContain(
      "small part",
    );
  });
  test("what it says was used is the energy over what the pack holds, wherever the ride began", () => {
    const short = ridden(9, (record) => ({
      ...record,
      rides: record.rides.map((ride) => ({
        ...ride,
        // What is left of a charge: the start and the first looks are not there.
        entries: ride.entries.filter(({ body }, i) => body.kind !== "start" && i > 2).slice(0, 4),
      })),
    }));
    const { energy, capacity, end, curve } = short.results;
    expect(curve[0]!.left.mean).toBeLessThan(0.97);
    expect(end.used.mean).toBeCloseTo(energy.value.mean / capacity.value.mean, 2);
    const said = caveatsOf(short).find((sentence) => sentence.startsWith("Only"))!;
    expect(said).toContain(
      `Only ${Math.round((100 * energy.value.mean) / capacity.value.mean)} % of the energy`,
    );
  });
  test("effort and air are asked for only where nobody noted them", () => {
    const { effort: _e, riderW: _w, bpm: _b, airTempC: _a, packTempC: _p, ...rest } = part.record.test;
    const bare = { ...part, record: { ...part.record, test: { ...rest, drive: "pedal" as const } } };
    expect(keysOf(bare)).toEqual(expect.arrayContaining(["effort not noted", "air not noted"]));
    const noted = {
      ...part,
      record: {
        ...part.record,
        test: { ...rest, drive: "pedal" as const, effort: "easy" as const, airTempC: 12 },
      },
    };
    expect(keysOf(noted)).not.toContain("effort not noted");
    expect(keysOf(noted)).not.toContain("air not noted");
  });
  test("a slip in the log is told on its page", () => {
    const slipped = ridden(9, (record) => ({
      ...record,
      rides: record.rides.map((ride) => {
        const at = ride.entries.filter(
          ({ body }) => body.kind === "checkIn" && body.percent !== undefined,
        )[3]!;
        return {
          ...ride,
          entries: ride.entries.map((each) =>
            each === at ? { ...each, body: { ...each.body, percent: 96 } as typeof each.body } : each,
          ),
        };
      }),
    }));
    expect(slipped.results.flags.length).toBeGreaterThan(0);
    expect(caveatsOf(slipped).join(" ")).toContain("in question");
  });
});

describe("remarks", () => {
  test.each([
    ["brakes even, no fade", "brakes"],
    ["seat post creaks", "comfort"],
    ["rattles over the sluice", "noise"],
    ["wobbles in corners", "handling"],
    ["last bar blinks, still strong", "power"],
    ["met a heron", "other"],
    ["", "other"],
  ])("“%s” is about %s", (text, topic) => expect(topicOf(text)).toBe(topic));
  const remarks = [
    { rootId: "a", distanceM: 1000, text: "brakes even", topic: "brakes" as const },
    { rootId: "b", distanceM: 2000, text: "hums", topic: "noise" as const },
  ];
  test("a tester moves one, and leaves one out", () => {
    const moved = remarksByTopic(remarks, { a: "noise", b: "left out" });
    expect(moved.map(({ topic, remarks: own }) => [topic, own.map(({ text }) => text)])).toEqual([
      ["noise", ["brakes even"]],
    ]);
  });
  test("every note of a log is a remark at its place", () => {
    const notes = whole.results.course.marks.flatMap(({ entries }) =>
      entries.flatMap(({ body }) => ("note" in body && body.note ? [body.note.trim()] : [])),
    );
    expect(remarksOf(whole.results.course).map(({ text }) => text)).toEqual(notes);
  });
});

describe("a page", () => {
  test("shows what is switched on, in its order, and nothing else", () =>
    fc.assert(
      fc.property(
        fc.subarray(["headline", "method", "strip", "parts", "remarks", "caveats", "change", "readings"]),
        (off) => {
          const keys = pageOf(part, { off }).sections.map(({ key }) => key);
          expect(keys.filter((key) => off.includes(key))).toEqual([]);
          const all = pageOf(part, { off: [] }).sections.map(({ key }) => key);
          expect(keys).toEqual(all.filter((key) => !off.includes(key)));
        },
      ),
    ));
  test("its figures are the ledger's", () => {
    const use = figuresOf(pageOf(part)).find(({ key }) => key === "use")!;
    expect(use.value).toEqual(part.results.best.value);
  });
  test("without a figure it says so and prints the log, whatever is switched off", () => {
    const problems = [{ code: "few", path: "", sentence: "One check-in is no ride." }];
    const page = testSheet(
      { record: part.record, results: null, problems, claims: [], photographs: [], system: "metric" },
      options({ off: ["readings", "method"] }),
    );
    expect(page.sections.map(({ key }) => key)).toEqual(["headline", "readings"]);
    expect(sheetMarkdown(page, "metric")).toContain("One check-in is no ride.");
    const [table] = page.sections.at(-1)!.blocks;
    expect(table?.kind === "table" && table.rows.length).toBeGreaterThan(3);
  });
  test("as Markdown each table has its caption, unless its heading says it", () => {
    const table = { kind: "table", caption: "Readings, by place", headings: ["a"], rows: [["1"]] } as const;
    const page = (heading: string) =>
      sheetMarkdown(
        { kind: "test", title: "t", line: "l", sections: [{ key: "k", heading, blocks: [table] }] },
        "metric",
      );
    expect(page("Readings")).toContain("**Readings, by place**\n\n| a |");
    expect(page("Readings, by place").match(/Readings, by place/g)).toHaveLength(1);
  });
  test("as Markdown it keeps its tables whole, whatever the words hold", () => {
    const page = pageOf(part, { off: [], title: "Pipes | and\nlines", words: "Own *words*" });
    const text = sheetMarkdown(page, "metric");
    expect(text).toContain("Own *words*");
    const widths = text
      .split("\n")
      .filter((line) => line.startsWith("|"))
      .map((line) => line.replace(/\\\|/g, "").split("|").length);
    expect(new Set(widths).size).toBeLessThanOrEqual(2);
  });
  test("nothing has changed since it was published, until something has", () => {
    const now = pageOf(part);
    expect(changesSince(now, pageOf(part))).toEqual([]);
    const { mean, sd } = part.results.best.value;
    const moved = pageOf({
      ...part,
      results: { ...part.results, best: { ...part.results.best, value: { mean: 1.2 * mean, sd } } },
    });
    const sentences = changesSince(now, moved).map((each) => renderUnits(each, "imperial"));
    expect(sentences[0]).toContain(
      `${formatUncertain({ mean, sd }, "energyPerDistance", "imperial")} is ${formatUncertain({ mean: 1.2 * mean, sd }, "energyPerDistance", "imperial")} now`,
    );
    expect(changesSince(now, pageOf(part, { words: "More." }))).toEqual(["Said now: More."]);
  });
});

describe("a pack's page, for its owner", () => {
  const pack = {
    name: "Frame pack",
    chemistry: "NMC" as const,
    labelWh: 600,
    measuredBefore: [],
    learned: [],
    pencil: [],
    storage: "",
    firstUsedOn: "2024-03-01",
  };
  const bench = {
    ...{
      on: "2026-02-20",
      fromFull: true as const,
      hours: 2.783,
      wh: 520,
      startTempC: 12,
      instrument: "bench tester",
      by: "Idris",
      note: "",
    },
    ...{
      customer: "Tove",
      serial: "FP-1",
      software: "1.14",
      madeOn: "week 9 of 2024",
      cyclesShown: 211.4,
      errors: "E07 twice\nE21",
    },
    ...{ shownWh: 511, shownPercent: 85, endVolts: 38.9 },
  };
  const page = customerSheet(
    { bikeName: "Hauler", pack, bench, cautions: ["Never open a pack."], photographs: [] },
    options({ kind: "customer" }),
  );
  const text = sheetMarkdown(page, "metric");
  test("the tester's own reading comes first, as it was shown", () => {
    expect(page.sections[0]!.key).toBe("shown");
    expect(text).toMatch(/The tester showed\*\*: 511 Wh[\s\S]+85 %/);
  });
  test("a cold pack is brought to 25 C, and so holds more than it gave", () => {
    const [holds] = figuresOf(page);
    expect(holds!.value.mean).toBeGreaterThan(520);
  });
  test("hours as a clock has them, cycles with their decimals, every error a line", () => {
    expect(hoursText(2.783)).toBe("2:47");
    expect(hoursText(1.9999)).toBe("2:00");
    expect(text).toContain("2:47 h");
    expect(text).toContain("211.4");
    expect(text).toContain("- E07 twice\n- E21");
  });
  test("what nobody noted is not there; no errors are said to be none", () => {
    const bare = {
      ...bench,
      customer: "",
      serial: "",
      errors: "",
      shownPercent: undefined,
      cyclesShown: undefined,
    };
    const plain = sheetMarkdown(
      customerSheet(
        { bikeName: "Hauler", pack, bench: bare, cautions: [], photographs: [] },
        options({ kind: "customer" }),
      ),
      "metric",
    );
    expect(plain).not.toMatch(/Customer|Serial|undefined|NaN/);
    expect(plain).toContain("None was read.");
  });
});

describe("options", () => {
  test("an address is one, or none", () => {
    expect(sheetOptionsSchema.safeParse({ kind: "test", title: "x", address: "levee" }).success).toBe(false);
    expect(options({ address: "https://levee.example/s/1" }).address).toContain("levee");
  });
  test("a title is asked for in words", () =>
    expect(sheetOptionsSchema.safeParse({ kind: "test", title: " " }).error!.issues[0]!.message).toContain(
      "Type a title",
    ));
});
