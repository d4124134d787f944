import { describe, expect, test } from "@jest/globals";
import { answerLedger, judgeReadings, ledgerInputSchema, rideFigure, solveLedger } from "#core/estimation";
import { assuming, METRES_PER_MILE } from "#core/base";

const TRUE_WH = 500;
const MILES = 25;
/** A ride from full to where the pack cuts off, with a counter read five times that shows so much of the truth. */
function rundown(
  shows: number,
  { pack = {}, meters = ["meter"] }: { pack?: object; meters?: string[] } = {},
) {
  const legs = Array.from({ length: 5 }, () => ({ miles: { a: MILES / 5 } }));
  const counts = meters.flatMap((meter, m) =>
    legs.map((_, i) => ({
      ...{ kind: "energyCounter", fromMark: 0, toMark: i + 1, meter },
      wh: Math.round(((m === 0 ? shows : 1) * TRUE_WH * (i + 1)) / 5),
    })),
  );
  return ledgerInputSchema.parse({
    pack: { chemistry: "NMC", labelWh: 560, seriesCells: 13, measuredWh: TRUE_WH, ...pack },
    cells: ["a"],
    legs,
    readings: [{ kind: "fullStart", mark: 0 }, ...counts, { kind: "cutOff", mark: 5 }],
  });
}

function answer(input: ReturnType<typeof rundown>) {
  const found = answerLedger(input);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const TRUTH = TRUE_WH / MILES;

describe("a meter that is far off", () => {
  test("is found against a pack whose energy was measured, and the figure is not its own", () => {
    const { headline, metersOff, flags } = answer(rundown(1.13));
    const [mean, sd] = headline[0]!;
    expect(metersOff["meter meter"]).toBeGreaterThan(0.5);
    expect(Math.abs(mean - TRUTH)).toBeLessThan(2 * sd);
    expect(flags).toEqual([]);
  });
  test("in silence where nobody doubts meters", () => {
    const { headline } = assuming({ meterOffPrior: 0 }, () => answer(rundown(1.13)));
    const [mean, sd] = headline[0]!;
    expect(Math.abs(mean - TRUTH)).toBeGreaterThan(3 * sd);
  });
  test("two that agree are believed; of two that differ the one that the pack speaks against is doubted", () => {
    const both = answer(rundown(1.13, { meters: ["blue", "red"] }));
    expect(both.metersOff["meter blue"]).toBeGreaterThan(0.9);
    expect(both.metersOff["meter red"] ?? 0).toBeLessThan(0.1);
    expect(both.headline[0]![0]).toBeCloseTo(TRUTH, 0);
  });
  test.each([0.985, 1, 1.015])("one that shows %s of the truth is in order", (shows) => {
    const { metersOff } = answer(rundown(shows));
    expect(Object.values(metersOff).every((chance) => chance < 0.05)).toBe(true);
  });
  test("a label says too little to doubt a meter by", () => {
    const { metersOff } = answer(rundown(1.05, { pack: { measuredWh: undefined } }));
    expect(metersOff["meter meter"] ?? 0).toBeLessThan(0.1);
  });
  test("the answer with the story is the mixture of both, told once", () => {
    const solved = solveLedger(rundown(1.08));
    if (!solved.ok) throw new Error("not solved");
    const sum = solved.value.parts.reduce((total, { weight }) => total + weight, 0);
    expect(sum).toBeCloseTo(1, 12);
    const { headline } = judgeReadings(solved.value);
    expect(rideFigure(headline, 0).mean * METRES_PER_MILE).toBeGreaterThan(0.9 * TRUTH);
  });
});
