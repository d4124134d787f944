import { describe, expect, test } from "@jest/globals";
import { family, readPlain } from "./found.fixture.ts";

/** Two who tell of both their bikes. */
const TWO =
  "We're both at 100 percent. Mine's on the slicks, what's yours on? Mine's got the knobblies, and hers has the slicks. Mine is heavier. ";

family("charges of two who ride together, one after the other at one place", [
  [
    `${TWO}5 kilometres. 99 for me. 98. 12 kilometres. 92 for me. 93.`,
    "percent_left 100, distance 5, percent_left 99, percent_left 98, distance 12, percent_left 92, percent_left 93",
  ],
  [
    `${TWO}That's 20 kilometres. I'm at 88 percent. And I'm at 90.`,
    "percent_left 100, distance 20, percent_left 88, percent_left 90",
  ],
]);
family("no pair", [
  // Too far from one another for two bikes that ride together.
  [`${TWO}5 kilometres. 99 percent. 45.`, "percent_left 100, distance 5, percent_left 99"],
  // Nobody rides along.
  ["I'm at 100 percent. 12 kilometres. 92 for me. 93.", "percent_left 100, distance 12, percent_left 93"],
  // At no place.
  [
    `${TWO}99 percent it says, and I have had a lot of things to say about gauges that say so, as you all know by now. 98 for me. 97.`,
    "percent_left 100, percent_left 99, percent_left 97",
  ],
]);

describe("whose a charge is", () => {
  test("the first is the one's who tells the ride, and the second asks whose log it is", () => {
    const { items, questions } = readPlain(`${TWO}12 kilometres. 92 for me. 93.`);
    expect(items.filter(({ kind }) => kind === "percent_left").map(({ of }) => of)).toEqual([
      null,
      "mine",
      "yours",
    ]);
    expect(questions.map(({ kind }) => kind)).toEqual(["two riders"]);
    expect(questions[0]!.effects.map(({ drops }) => drops.map((at) => items[at]!.value))).toEqual([
      [93],
      [92],
    ]);
  });
  test("each keeps its own order: the other's may be higher than the one's before it", () => {
    const { items, left } = readPlain(`${TWO}12 kilometres. 92 for me. 94. 20 kilometres. 93 for me. 91.`);
    expect(items.filter(({ kind }) => kind === "percent_left").length).toBeGreaterThan(3);
    expect(left.map(({ words }) => words)).not.toContain("94");
  });
});
