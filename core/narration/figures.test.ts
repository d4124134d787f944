import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { bordersOf } from "./statements.ts";
import { figuresOf } from "./figures.ts";
import { quantitiesOf } from "./quantities.ts";
import { tokensOf } from "./tokens.ts";
import { unitAt } from "./units.ts";

const tokens = (text: string) => tokensOf([{ atS: null, text }]);
const figures = (text: string) =>
  figuresOf(tokens(text)).map(({ value, approx, side }) => [value, ...(approx ? [side ?? "about"] : [])]);
const quantities = (text: string) => {
  const words = tokens(text);
  return quantitiesOf(words, figuresOf(words)).map(({ value, high, unit }) =>
    [value, ...(high === null ? [] : [`to ${high}`]), ...(unit === null ? [] : [unit])].join(" "),
  );
};

describe("figures", () => {
  test.each([
    ["57", [57]],
    ["fifty seven", [57]],
    ["one twenty", [120]],
    ["one hundred and four", [104]],
    ["two thousand three hundred", [2300]],
    ["46 000", [46_000]],
    ["1,899", [1899]],
    ["62.61", [62.61]],
    ["sixty two point six one", [62.61]],
    ["24 point 1", [24.1]],
    ["46 and a half", [46.5]],
    ["six and a quarter", [6.25]],
    ["½", [0.5]],
    ["minus two", [-2]],
    ["a couple of", [2]],
  ] as const)("%s", (text, [value]) => expect(figures(text)).toEqual([[value]]));
  test.each([
    ["about 57", [57, "about"]],
    ["just under 57", [57, "below"]],
    ["almost 57", [57, "below"]],
    ["a little over 57", [57, "above"]],
    ["57 or so", [57, "about"]],
    ["57 ish", [57, "about"]],
    ["like 57", [57, "about"]],
  ] as const)("hedged: %s", (text, expected) => expect(figures(text)).toEqual([expected]));
  test("“one” is a figure only where it counts", () => {
    expect(figures("this one is good")).toEqual([]);
    expect(figures("level one")).toEqual([[1]]);
    expect(figures("level: one.")).toEqual([[1]]);
    expect(figures("one mile")).toEqual([[1]]);
    expect(figures("the other one")).toEqual([]);
  });
  test("any text of words gives figures in their order, none over another", () => {
    const word = fc.constantFrom(
      ..."57 62.6 one two twenty hundred and a half point miles percent an hour to or about .4 minus 1:52 k's".split(
        " ",
      ),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 30 }), (said) => {
        const words = tokens(said.join(" "));
        const all = quantitiesOf(words, figuresOf(words));
        all.forEach(({ from, to, value }, i) => {
          expect(Number.isFinite(value)).toBe(true);
          expect(to).toBeGreaterThan(from);
          expect(to).toBeLessThanOrEqual(words.length);
          if (i > 0) expect(from).toBeGreaterThanOrEqual(all[i - 1]!.to);
        });
      }),
    );
  });
});

describe("units", () => {
  test.each([
    ["miles an hour", "mph", 3],
    ["mile an hour", "mph", 3],
    ["miles", "mi", 1],
    ["k an hour", "km/h", 3],
    ["kilometres per hour", "km/h", 3],
    ["k's", "km", 1],
    ["kays", "km", 1],
    ["amp hours", "Ah", 2],
    ["amps", "A", 1],
    ["watt hours per mile", "use", 4],
    ["watt hours", "Wh", 2],
    ["newton metres", "Nm", 2],
    ["beats per minute", "bpm", 3],
    ["per cent", "%", 2],
    ["degrees fahrenheit", "F", 2],
    ["green lights", "bar", 2],
    ["segments", "bar", 1],
    ["foot two", "thing", 2],
  ] as const)("%s, the longest first", (text, unit, to) =>
    expect(unitAt(tokens(text), 0)).toEqual({ unit, to }),
  );
  test.each(["is", "and", "bridge", "my"])("%s is none", (text) =>
    expect(unitAt(tokens(text), 0)).toBeNull(),
  );
  test("a unit does not go on over a pause", () =>
    expect(unitAt(tokens("miles, an hour"), 0)).toEqual({ unit: "mi", to: 1 }));
});

describe("figures with their units", () => {
  test.each([
    ["9 to 11 amps", ["9 to 11 A"]],
    ["between 9 and 11 amps", ["9 to 11 A"]],
    ["15 and a half 16 miles an hour", ["15.5 to 16 mph"]],
    ["21 20 miles an hour", ["20 to 21 mph"]],
    ["11.9 13 amps", ["11.9", "13 A"]],
    ["level 3 4 amps", ["3", "4 A"]],
    ["one hour 52 minutes", ["6720 s"]],
    ["an hour and a half", ["1.5 h"]],
    ["9 minutes 49", ["589 s"]],
    ["52 minutes", ["52 min"]],
    ["46 amps, no, 44", ["44 A"]],
    ["36 more miles", ["36 mi"]],
    ["87 kilos.3", ["87.3 kg"]],
    ["a mile and a half", ["1.5 mi"]],
    ["on 63. 4 kilometres", ["63.4 km"]],
    ["the battery is at 74. 5 km on", ["74", "5 km"]],
    ["we're on level 3. 5 km on", ["3", "5 km"]],
    ["it's at 100. 5 km on", ["100", "5 km"]],
    ["one mile and three quarters", ["1.75 mi"]],
  ] as const)("%s", (text, expected) => expect(quantities(text)).toEqual(expected));
  test("two figures far apart are no correction, however exact the second", () =>
    expect(quantities("you'd get 40 but who does that 15 miles exactly")).toEqual(["40", "15 mi"]));
});

describe("statements of speech without stops", () => {
  const borders = (text: string) => {
    const words = tokens(text);
    const its = bordersOf(words, quantitiesOf(words, figuresOf(words)));
    return words.flatMap(({ word }, at) => (its.begins(at, 2) ? [word] : []));
  };
  test.each([
    ["that might be the top speed for the day 15 miles and we go on", ["15"]],
    ["i think so okay we're at ten", ["okay", "we're"]],
    ["which we'll see thirty miles", ["thirty"]],
    ["so far it's good", ["it's"]],
    ["the range now says 51", []],
    ["if it's ten miles", []],
  ])("%s", (text, expected) => expect(borders(text)).toEqual(expect.arrayContaining(expected)));
  test("somebody else ends what was said of this bike", () => {
    const words = tokens("51 percent my wife's bike would be dead");
    const its = bordersOf(words, quantitiesOf(words, figuresOf(words)));
    expect(its.ends(2, 0)).toBe(true);
    expect(its.ends(1, 1)).toBe(false);
  });
});
