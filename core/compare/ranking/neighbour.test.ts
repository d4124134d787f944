import { describe, expect, test } from "@jest/globals";
import { neighbourOf, type ErrorComponents } from "#core/compare";

const of = (id: string, mean: number, sd: number): { id: string; figure: ErrorComponents } => ({
  id,
  figure: { mean, effects: { [id]: sd, road: 1 } },
});

describe("the place that is least sure", () => {
  const own = of("own", 10, 1);
  test("is the likeliest to be the other way round, not the nearest", () => {
    const found = neighbourOf(own.figure, [of("near", 10.5, 0.1), of("wide", 9, 8), of("far", 30, 1)])!;
    expect(found).toMatchObject({ row: { id: "wide" }, before: true, place: 2 });
    expect(found.chance).toBeGreaterThan(0.44);
    expect(found.difference.effects["road"]).toBe(0);
  });
  test("of one alone is none", () => expect(neighbourOf(own.figure, [])).toBeNull());
});
