import { describe, expect, test } from "@jest/globals";
import { answer } from "#core/calc";
import { differsFromPage } from "../../bench/methodPage";
import { DESK_KINDS } from "../../bench/desks";
import { KIND_NAMES } from "../../bench/kinds";
import { flat, pageText, tableRows } from "./pages";

const page = pageText("docs/method.md");
const worked = flat(page.slice(page.indexOf("## Worked by hand"), page.indexOf("## Tested against")));

const pack = { chemistry: "NMC", labelWh: 612, packTempC: 20 };
const percents = [99, 88, 76, 66, 56];

interface LedgerAnswer {
  readonly energyWh: readonly number[];
  readonly whPerMi: readonly number[];
  readonly whPerMiSd: readonly number[];
  readonly scatter: readonly (readonly [number, number])[];
  readonly budget: readonly (readonly [string, number])[];
  readonly slipLogOdds: readonly number[];
  readonly next: readonly {
    readonly measure: string;
    readonly minutes: number;
    readonly whPerMiSdLeft: number;
  }[];
}

const found = (calculation: string, input: unknown): never => {
  const given = answer({ calculation, input });
  if (!given.ok) throw new Error(`${calculation} has no answer`);
  return given.value as never;
};

describe("what is worked by hand on the page is what calc prints", () => {
  const usable: { meanWh: number; sdWh: number } = found("usableEnergy", pack);
  const plain: { energyWh: number; whPerMi: number } = found("plain", {
    startPercent: 99,
    endPercent: 56,
    labelWh: 612,
    distanceMi: 19.2,
  });
  const { f }: { f: number } = found("openCircuit", { chemistry: "NMC", q: 0.56 });
  const ledger: LedgerAnswer = found("ledger", {
    pack,
    gauge: { percentStep: 1, counts: "charge", bars: 0 },
    cells: ["ridden"],
    legs: [5, 5, 5, 4.2].map((miles) => ({ miles: { ridden: miles } })),
    readings: [
      { kind: "fullStart", mark: 0 },
      ...percents.map((percent, mark) => ({ kind: "percent", mark, percent })),
    ],
  });
  const source = (name: string) => ledger.budget.find(([each]) => each === name)![1].toFixed(3);
  const meter = ledger.next.find(({ measure }) => /refill|wall/i.test(measure))!;
  const scales = ledger.scatter.slice(0, 4);
  test.each([
    `${usable.meanWh.toFixed(1)} ± ${usable.sdWh.toFixed(1)} Wh (1 sd)`,
    `${plain.energyWh.toFixed(1)} Wh, ${plain.whPerMi.toFixed(2)} Wh/mi`,
    `56 % is f = ${f.toFixed(3)}: ${f.toFixed(3)} x ${usable.meanWh.toFixed(1)} = ${(f * usable.meanWh).toFixed(1)} Wh`,
    `${ledger.energyWh[0]!.toFixed(1)} Wh, **${ledger.whPerMi[0]!.toFixed(2)} Wh/mi**, sd ${ledger.whPerMiSd[0]!.toFixed(2)}`,
    `scales of ${scales
      .map(([scale]) => String(scale))
      .join(", ")
      .replace(/, ([^,]+)$/, " and $1")} have ${scales
      .map(([, chance]) => (100 * chance).toFixed(0))
      .join(", ")
      .replace(/, ([^,]+)$/, " and $1")} %`,
    `variance of ${(ledger.whPerMiSd[0]! ** 2).toFixed(3)} capacity accounts for ${source("capacity")}`,
    `the slow gauge error for ${source("gauge smooth")}`,
    `the gauge's scale for ${source("gauge scale")}`,
    `single looks for ${source("gauge look")}`,
    `the full start for ${source("full at start")}`,
    `76 % is a slip are ${ledger.slipLogOdds[3]!.toFixed(1)}`,
    `would leave an sd of ${meter.whPerMiSdLeft.toFixed(2)}`,
  ])("%s", (sentence) => expect(worked).toContain(sentence));
  test("and the shares of the variance are given as falls, which need not sum to it", () =>
    expect(page).not.toMatch(/shares? of the variance/i));
});

describe("the tables of the trial", () => {
  const rows = tableRows(page).map(([name = ""]) => name);
  test("every kind of test has its row", () =>
    expect(KIND_NAMES.filter((kind) => !rows.includes(kind))).toEqual([]));
  test("a figure that is not as printed is named, one that is, is not", () => {
    const typical = tableRows(page)
      .find(([name]) => name === "typical")!
      .slice(1)
      .map((cell) => Number(cell) / 100);
    const [covers, half, error, plainError, order, plainOrder, sure, sureRight] = typical as [number, number, number, number, number, number, number, number]; // prettier-ignore
    const line = {
      name: "typical",
      desks: 60,
      covers,
      half,
      error,
      plainError,
      order,
      plainOrder,
      sure,
      sureRight,
    };
    const found = { kinds: [], desks: [line], figures: [] };
    expect(differsFromPage(page, found)).toEqual([]);
    expect(differsFromPage(page, { ...found, desks: [{ ...line, half: half + 0.001 }] })).toHaveLength(1);
    expect(differsFromPage("", found)).toEqual(["docs/method.md has no row for typical."]);
  });
  test("every kind of desk has its row", () =>
    expect(Object.keys(DESK_KINDS).filter((kind) => !rows.includes(kind))).toEqual([]));
});
