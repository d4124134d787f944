import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { answerLedger, ledgerInputSchema } from "#core/estimation";
import { denseLedger, type DenseInput } from "./denseLedger";

/** The ledger against the same model written by itself, in plain matrices: worked rides and random ones. */
const worked = (
  JSON.parse(readFileSync("tests/fixtures/worked-cases.json", "utf8")) as {
    readonly id: string;
    readonly input: DenseInput & DenseInput["rides"][number];
  }[]
).filter(({ id }) => ["ledger-1", "ledger-2", "ledger-6"].includes(id));

function agree(input: DenseInput): void {
  const mine = answerLedger(ledgerInputSchema.parse(input));
  if (!mine.ok) throw new Error(mine.problems[0]!.sentence);
  const { whPerMi, whPerMiSd, scatter, differenceWhPerMi, differenceSdWhPerMi } = mine.value;
  const theirs = denseLedger(input);
  const near = (a: number, b: number, share = 2e-3) =>
    expect(Math.abs(a - b)).toBeLessThanOrEqual(share * Math.max(Math.abs(b), 0.05));
  theirs.whPerMi.forEach((each, i) => near(whPerMi[i]!, each));
  theirs.whPerMiSd.forEach((each, i) => near(whPerMiSd[i]!, each));
  theirs.weights.forEach((each, i) => near(scatter[i]![1], each));
  if (input.rides.length === 2) {
    near(differenceWhPerMi!, theirs.difference.mean);
    near(differenceSdWhPerMi!, theirs.difference.sd);
  }
}

describe("the ledger and the model written a second time agree", () => {
  test.each(worked.map(({ id, input }) => [id, input] as const))(
    "on %s",
    (_id, { legs, readings, ...rest }) => {
      const rides = (rest as Partial<DenseInput>).rides ?? [{ legs, readings }];
      agree({ ...rest, rides });
    },
  );
  test("on random rides, warm and cold, by percents, bars and volts", () => {
    const reading = fc.record({
      miles: fc.integer({ min: 5, max: 90 }),
      read: fc.constantFrom("percent", "percent", "percent", "restVolts", "none"),
      off: fc.integer({ min: -3, max: 3 }),
    });
    fc.assert(
      fc.property(
        fc.array(reading, { minLength: 2, maxLength: 8 }),
        fc.constantFrom(-8, 4, 20, 27),
        fc.boolean(),
        (stages, packTempC, isFull) => {
          let left = 97;
          const marks = stages.map(({ miles, read, off }, i) => {
            left = Math.max(15, left - miles / 9);
            const mark = i + 1;
            // Never the same figure twice, where the slow error's place is spread along the way.
            if (read === "percent")
              return [{ kind: "percent", mark, percent: Math.round(left) + off + i / 8 }];
            if (read === "restVolts")
              return [{ kind: "restVolts", mark, packVolts: 41 + left / 8 + i / 50, restMin: 12 }];
            return [];
          });
          agree({
            pack: { chemistry: "NMC", labelWh: 640, seriesCells: 13, packTempC },
            gauge: { percentStep: 1 },
            cells: ["low", "high"],
            rides: [
              {
                legs: stages.map(({ miles }, i) => ({
                  miles: (i % 2 ? { high: miles / 10 } : { low: miles / 10, high: 0.3 }) as Record<
                    string,
                    number
                  >,
                })),
                readings: [...(isFull ? [{ kind: "fullStart", mark: 0 }] : []), ...marks.flat()],
              },
            ],
          });
        },
      ),
      { numRuns: 40, seed: 20261127 },
    );
  });
  test("on bars seen and bars lost", () => {
    const legs = [4, 6, 3, 5, 7].map((miles) => ({ miles: { low: miles } }));
    const readings = [
      { kind: "fullStart", mark: 0 },
      { kind: "barLost", mark: 1, bar: 5 },
      { kind: "barLost", mark: 2, bar: 4 },
      { kind: "bars", mark: 5, bars: 2 },
    ];
    agree({
      pack: { chemistry: "NMC", labelWh: 480, seriesCells: 10, packTempC: 22 },
      gauge: { bars: 5 },
      cells: ["low"],
      rides: [{ legs, readings }],
    });
  });
});
