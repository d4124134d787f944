import { describe, expect, test } from "@jest/globals";
import { foundIn as found, readPlain as read } from "./found.fixture.ts";

/** Why a text's only figure is left out. */
const why = (text: string) => {
  expect(found(text)).toBe("");
  return [...new Set(read(text).left.map(({ because }) => because))].join(", ");
};

describe("what the course of the ride leaves one place for", () => {
  test.each([
    // Between the place before and the one after, by its decimals alone.
    ["10 miles in. 14.8 and still rolling. 20 miles in.", "distance 10, distance 14.8, distance 20"],
    // A charge between two charges, beside a place.
    [
      "10 miles in, 90 percent left. Friday 15.2 at the office 84. 20 miles in, 78 percent left.",
      "distance 10, percent_left 90, distance 15.2, percent_left 84, distance 20, percent_left 78",
    ],
    // What the used part leaves of the whole, and what a difference leaves.
    ["we used 8 percent so we're showing 92", "percent_used 8, percent_left 92"],
    [
      "okay we're at 96 percent left here and at the top 95 so it took one percent",
      "percent_left 96, percent_left 95, percent_used 1",
    ],
    // Figure after figure of one measure.
    ["11 miles an hour 10 9 8 it's bogging down", "speed 11, speed 10, speed 9, speed 8"],
    // A report stands whatever was said before it.
    [
      "so 12 miles in 77 percent and 20 miles 60 percent now the display says 31 left which we'll see 30 miles 42 percent",
      "distance 12, percent_left 77, distance 20, percent_left 60, range_guess 31, distance 30, percent_left 42",
    ],
    // As much as went between two charges is used, and what it is held against is not.
    [
      "started at 100 percent, 6.5 miles and 93 percent left. So 7 percent versus 9 percent.",
      "percent_left 100, distance 6.5, percent_left 93, percent_used 7",
    ],
  ])("%s", (text, expected) => {
    expect(found(text)).toBe(expected);
  });
  test.each([
    [
      "a figure past the next place is none of it",
      "10 miles in. 34.8 and still rolling. 20 miles in.",
      "34.8",
    ],
    [
      "a figure before the last place is none of it",
      "10 miles in. 4.8 and still rolling. 20 miles in.",
      "4.8",
    ],
    ["a charge above the last one is none", "10 miles in, 70 percent left. 12.2 at the office 84.", "84"],
  ])("%s", (_, text, figure) => {
    const { items, left } = read(text);
    expect(items.map(({ words }) => words)).not.toContain(figure);
    expect(left.map(({ words }) => words)).toContain(figure);
  });
  test("what was found by its course may find another's", () => {
    expect(found("10 miles in. 14.8 easy. 20 miles one hour 41 minutes. 24.1 gone. 30 miles in.")).toContain(
      "distance 14.8, distance 20, elapsed_time 6060",
    );
  });
});

describe("raw speech has no stops", () => {
  test.each([
    // A statement begins where a figure stands behind a word that governs none.
    ["that might be the top speed for the day 15 miles and 80 percent", "distance 15, percent_left 80"],
    ["i'm not happy 16.7 miles 84 percent at work", "distance 16.7, percent_left 84"],
    ["51 percent left my wife's bike would've been dead", "percent_left 51"],
    ["it's about 58 degrees by the way if you wanna know 3.2 miles in", "temperature 58, distance 3.2"],
    ["i could feel it getting weaker", "low_power low power"],
    // The names of measures before and behind their figures.
    ["the volts came back up to 51", "volts 51"],
    ["we're on 49.6 on the volts", "volts 49.6"],
    ["heart rate's only 109", "heart_rate 109"],
    ["temperature wise 81", "temperature 81"],
    ["the range now says 51", "range_guess 51"],
    ["me i'm 212 so that's me", "weight_rider 212"],
    ["21 20 miles an hour", "speed 20-21"],
    ["15 and a half 16 miles an hour", "speed 15.5-16"],
    ["we just lost a bar there goes another one 17.8", "bar_lost 1, bar_lost 1, distance 17.8"],
    ["i was at two bars to one bar", "bar_lost 1, bars_left 1"],
    ["average speed 14.5 max 31.2", "avg_speed 14.5, top_speed 31.2"],
    ["ride until it quits", ""],
    ["i'm turning the motor off", "pedalling_no_power no power"],
  ])("%s", (text, expected) => {
    expect(found(text)).toBe(expected);
  });
  test.each([
    ["my wife's bike has a small one it's only got a 10 amp hour battery", "another bike, pack or rider"],
    ["if i had kept going i would have made 40 miles", "a what-if"],
    ["it'll go down to 30 percent", "a plan"],
  ])("%s: left out", (text, because) => {
    expect(why(text)).toContain(because);
  });
});
