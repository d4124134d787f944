import { describe, expect, test } from "@jest/globals";
import { spanOf } from "#core/base";
import {
  claimCard,
  comparisonSheet,
  rangesCard,
  sheetMarkdown,
  sheetOptionsSchema,
  standingsCard,
  type ComparisonSheetInput,
} from "#core/telling";

const place = (name: string, from: number, to: number, questions = 0) => ({
  ...{ name, from, to, questions, beyond: [] as string[], hollow: questions > 0 },
  value: { mean: 0.008 + from / 1000, sd: 0.0004 },
});
const input = (given: Partial<ComparisonSheetInput> = {}): ComparisonSheetInput => ({
  ...{ under: "under House", measure: "energyPerDistance", photographs: [], pair: null },
  ...{ places: [], left: [], claims: [], ranges: [], sweeps: [], hills: [] },
  ...given,
});
const textOf = (given: Partial<ComparisonSheetInput>) =>
  sheetMarkdown(
    comparisonSheet(input(given), sheetOptionsSchema.parse({ kind: "comparison", title: "All" })),
    "metric",
  );

describe("a comparison's page", () => {
  test("places that are not told apart stand as a span, and the page says what that means", () => {
    const text = textOf({ places: [place("Hauler", 1, 2), place("Fold", 1, 2), place("Fat", 3, 3)] });
    expect(text).toMatch(/\| 1 to 2 \| Hauler \|[\s\S]+\| 3 \| Fat \|/);
    expect(text).toContain("their order is no finding");
    expect(textOf({ places: [place("Fat", 1, 1)] })).not.toContain("no finding");
  });
  test("who is missing, and whose reading is in question, is told", () => {
    const text = textOf({
      places: [place("Fat", 1, 1, 2)],
      left: [{ name: "Step", why: "its pack is not known" }],
    });
    expect(text).toContain("Fat: two readings are in question and count by the odds that each is no slip.");
    expect(text).toContain("Step is not among them: Its pack is not known.");
  });
  test("a range that nothing tells is not told", () => {
    const seasons = (sd: number) => [{ name: "summer", tempC: 20, total: { mean: 60_000, sd } }];
    const ranges = [
      {
        bike: "Step",
        rows: [
          { level: "2", ground: "asphalt", seasons: seasons(50_000) },
          { level: "3", ground: "asphalt", seasons: seasons(3000) },
        ],
      },
    ];
    const text = textOf({ ranges });
    expect(text).toContain("not told yet");
    const { low, high } = spanOf({ mean: 60_000, sd: 3000 });
    expect(text).toContain(`${Math.round(low / 1000)} km to ${Math.round(high / 1000)} km`);
  });
  test("an empty desk says that there is no figure yet", () =>
    expect(textOf({})).toContain("No test has a figure under House yet."));
});

describe("cards", () => {
  test("keep the order of the standings, and draw hollow what the page draws hollow", () => {
    const { content } = standingsCard([place("Hauler", 1, 1), place("Fold", 2, 2, 1)], "as ridden");
    expect(content.kind === "rows" && content.rows.map(({ name, hollow }) => [name, hollow])).toEqual([
      ["Hauler", false],
      ["Fold", true],
    ]);
  });
  test("a claim's card sets each claim beside the range as ridden and under the reference", () => {
    const span = { mean: 50_000, sd: 3000 };
    const claims = [{ lowM: 70_000, highM: 80_000, mode: "low" }];
    const { content } = claimCard({
      bike: "Hauler",
      under: "under House",
      ridden: span,
      range: span,
      claims,
    });
    expect(content.kind === "rows" && content.rows).toMatchObject([
      {
        name: "as ridden, claim low",
        claimed: { low: 70_000, high: 80_000 },
        span: { low: expect.closeTo(44_120, 0), high: expect.closeTo(55_880, 0) },
      },
      { name: "under House, claim low", hollow: true },
    ]);
  });
  test("ranges that nothing tells have no row", () => {
    const rows = [
      {
        level: "2",
        ground: "asphalt",
        seasons: [
          { name: "summer", total: { mean: 1e5, sd: 9e4 } },
          { name: "frost", total: { mean: 5e4, sd: 2e3 } },
        ],
      },
    ];
    const { content } = rangesCard("Step", rows);
    expect(content.kind === "rows" && content.rows.map(({ name }) => name)).toEqual(["2, asphalt, frost"]);
  });
});
