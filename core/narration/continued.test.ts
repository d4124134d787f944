import { describe, expect, test } from "@jest/globals";
import { foundIn } from "./found.fixture.ts";

const each = (cases: readonly (readonly [text: string, expected: string])[]) =>
  test.each(cases)("%s", (text, expected) => expect(foundIn(text)).toBe(expected));

/** A ride whose charge is told in percent, and what is said after it. */
const CHARGED = "10 miles, 90 percent. 14 miles, 84 percent.";
const READ = "distance 10, percent_left 90, distance 14, percent_left 84";

describe("charge said as a state, without its sign", () => {
  each([
    [`${CHARGED} The battery has gone to 78.`, `${READ}, percent_left 78`],
    [`${CHARGED} And I've got 66.`, `${READ}, percent_left 66`],
    [`${CHARGED} It's on 79 now.`, `${READ}, percent_left 79`],
    // The same again farther on was read again.
    [`${CHARGED} Then 16 miles, and still 84.`, `${READ}, distance 16, percent_left 84`],
  ]);
  each([
    // Higher than the last, or far below it, it is something else.
    [`${CHARGED} It says 97.`, READ],
    [`${CHARGED} And I've got 12.`, READ],
    // Of another measure, or one of a row.
    [`${CHARGED} My cadence is 70.`, READ],
    [`${CHARGED} That's 15, 25, 40 and 60.`, READ],
    [`${CHARGED} I've got 60 people to thank.`, READ],
  ]);
});

describe("bars said as a state, without the word", () => {
  const bars = "5 bars at 2 miles. 4 bars at 6 miles.";
  const read = "bars_left 5, distance 2, bars_left 4, distance 6";
  each([
    [`${bars} It's gone down to 3 at 9.1.`, `${read}, bars_left 3, distance 9.1`],
    [`${bars} 8.5 miles and I'm still on 4.`, `${read}, distance 8.5, bars_left 4`],
    [`${bars} I've gone up to level 3.`, `${read}, level 3`],
  ]);
});

describe("climb without its word", () => {
  const climbed = "300 metres climbed. 520 metres of climbing at kilometre 7.";
  const read = "climb_gain 300, climb_gain 520, distance 7";
  each([
    [`${climbed} 700 metres. 60 percent.`, `${read}, climb_gain 700, percent_left 60`],
    [`${climbed} It's another 200 metres to go.`, read],
    [`${climbed} The hut is at 1,640 metres above the sea.`, read],
  ]);
});

describe("charge that was used, without its sign", () => {
  each([
    [
      `${CHARGED} 18 miles, 79 percent, so it took five.`,
      `${READ}, distance 18, percent_left 79, percent_used 5`,
    ],
    [`${CHARGED} 18 miles, 79 percent. So five.`, `${READ}, distance 18, percent_left 79, percent_used 5`],
    // As much as nothing told.
    [`${CHARGED} 18 miles, 79 percent, so it took two.`, `${READ}, distance 18, percent_left 79`],
  ]);
});

describe("a round place in words of its own", () => {
  const way = (said: string) => `25 miles, 60 percent. ${said} 35 miles, 41 percent.`;
  const read = (more: string) => `distance 25, percent_left 60, ${more}distance 35, percent_left 41`;
  each([
    [way("Thirty, already."), read("distance 30, ")],
    [way("There's the thirty, on the nose."), read("distance 30, ")],
    [way("Thirty people waved."), read("")],
  ]);
});
