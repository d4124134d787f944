import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { budgetOf, flagSentence, ledgerInputSchema, rideFigure, solveLedger } from "#core/estimation";
import { METRES_PER_MILE, renderUnits } from "#core/base";
import { readingText, type Reading } from "#core/battery/readings";
import { sourceWords } from "#core/analysis";
import { differenceSentence, evidenceWords, listed } from "./words.ts";

const percent = (value: number): Reading => ({ kind: "percent", mark: 0, percent: value });

describe("what a figure rests on", () => {
  test("counts, most first", () => {
    expect(
      evidenceWords([{ kind: "fullStart", mark: 0 }, percent(90), percent(80), { kind: "cutOff", mark: 3 }]),
    ).toBe("from 2 percent readings, a full start and the cut-off");
  });
  test("one of a kind", () => expect(evidenceWords([percent(90)])).toBe("from one percent reading"));
  test("nothing", () => expect(evidenceWords([])).toContain("no reading yet"));
  test.each([
    [[], ""],
    [["a"], "a"],
    [["a", "b"], "a and b"],
    [["a", "b", "c"], "a, b and c"],
  ])("%j is listed as %p", (words, text) => expect(listed(words)).toBe(text));
});

describe("why plain and best part", () => {
  const perM = (whPerMi: number) => whPerMi / METRES_PER_MILE;
  test("they agree within their doubt", () => {
    expect(differenceSentence(perM(14.1), perM(14), perM(0.5), 600, 570)).toContain("agree");
  });
  test("the label is trusted", () => {
    expect(renderUnits(differenceSentence(perM(19.9), perM(17.7), perM(0.7), 672, 612), "imperial")).toBe(
      "Plain is 2.2 Wh/mi more because it trusts the label's 672 Wh; best puts usable energy at 612 Wh.",
    );
  });
  test("plain leans on two readings", () => {
    expect(renderUnits(differenceSentence(perM(9.2), perM(11.4), perM(0.5), 480, 440), "imperial")).toBe(
      "Plain is 2.2 Wh/mi less because it rests on the first and last reading alone; best weighs every reading by its error.",
    );
  });
});

const sure = (standing: number) => ({ standing, logOdds: 9, meant: null });

describe("a reading in question", () => {
  test("a percent too high stands above, one too low below", () => {
    const sentence = (standing: number) =>
      renderUnits(flagSentence(percent(62), 9.4 * METRES_PER_MILE, sure(standing)), "imperial");
    expect(sentence(-4.1)).toBe("62 % at 9.4 mi is far too high for the other readings: a typing slip?");
    expect(sentence(4.1)).toContain("too low");
  });
  test("volts ask about the load, bars about the mile", () => {
    const volts: Reading = { kind: "restVolts", mark: 0, packVolts: 48, restMin: 3, meterStepV: 0.1 };
    expect(flagSentence(volts, 0, sure(5))).toContain("was the load off?");
    expect(flagSentence({ kind: "barLost", mark: 0, bar: 3 }, 0, sure(5))).toContain("the wrong mile?");
  });
  test("what would fit is said; where the odds are even both stories are told", () => {
    const told = (logOdds: number, times: number) =>
      renderUnits(
        flagSentence(
          percent(80),
          10_300,
          { standing: -5.2, logOdds, meant: "70 %" },
          { distanceM: 6.4 * METRES_PER_MILE, times },
        ),
        "imperial",
      );
    expect(told(9, 0.3)).toBe(
      "80 % at 6.4 mi is far too high for the other readings: a typing slip? 70 % would fit.",
    );
    expect(told(2, 0.31)).toContain(
      "Either it is a slip, of 70 %, or 6.4 mi beside it took 31 % of the usual.",
    );
    expect(told(2, 0.1)).toContain("took next to nothing of the usual");
    expect(told(2, 2.44)).toContain("took 2.4 times the usual");
  });
  test("distances are in the reader's units", () => {
    expect(renderUnits(flagSentence(percent(62), 20_000, sure(4)), "metric")).toContain("at 20.0 km");
  });
});

test("every kind of reading has its words", () => {
  const readings: readonly Reading[] = [
    { kind: "fullStart", mark: 0 },
    { kind: "loadedVolts", mark: 0, packVolts: 47, amps: 6, meterStepV: 0.1 },
    { kind: "bars", mark: 0, bars: 3 },
    { kind: "lastBarBlinking", mark: 0 },
    { kind: "lowPower", mark: 0 },
    { kind: "cutOff", mark: 0 },
    { kind: "energyCounter", fromMark: 0, toMark: 1, wh: 120, stepWh: 1, meter: "m" },
    { kind: "telemetry", fromMark: 0, toMark: 1, wh: 120, sdWh: 1, logger: "l" },
    { kind: "chargeCounter", fromMark: 0, toMark: 1, ah: 2, stepAh: 0.1, meter: "m" },
    { kind: "wallRefill", mark: 1, wallWh: 300, stepWh: 1, charger: "c" },
    { kind: "wallCharge", fromMark: 0, toMark: 1, wallWh: 120, stepWh: 1, charger: "c" },
  ];
  expect(readings.map(readingText)).toEqual([
    "charger done",
    "47 V at 6 A",
    "3 bars",
    "last bar blinking",
    "low-power mode",
    "cut-off",
    "120 Wh counted",
    "120 Wh logged",
    "2 Ah counted",
    "300 Wh at the wall",
    "120 Wh charged at the wall",
  ]);
});

test("every error source of the worked ledgers has plain words", () => {
  const cases = JSON.parse(readFileSync("tests/fixtures/worked-cases.json", "utf8")) as {
    calculation: string;
    input: unknown;
  }[];
  const sources = cases
    .filter(({ calculation }) => calculation === "ledger")
    .flatMap(({ input }) => {
      const solved = solveLedger(ledgerInputSchema.parse(input));
      if (!solved.ok) throw new Error("not solved");
      return budgetOf(solved.value, rideFigure(solved.value, 0)).map(({ source }) => source);
    });
  expect(new Set(sources).size).toBeGreaterThan(10);
  const wordless = [...new Set(sources)].filter((source) => sourceWords(source) === source);
  expect(wordless).toEqual([]);
});
