import { expect, test } from "@jest/globals";
import { readNarration } from "#core/narration";
import { isChangeable, itemText, typedValue, valueText } from "./itemText";

/** What is shown of each thing that is found in a text. */
const shown = (text: string) => {
  const found = readNarration(text, { format: "plain" });
  if (!found.ok) throw new Error("not read");
  return [...found.value.items, ...found.value.setUp].map((item) => itemText(item));
};

test.each([
  ["We're at 12.4 miles, 62 percent left.", ["12.4 mi", "62 % left"]],
  ["Nearly 63 miles done.", ["under 63 mi"]],
  ["It flickers between 9.4 and 11.6 amps.", ["≈ 9.4 to 11.6 A"]],
  ["Been riding one hour 52 minutes.", ["1:52:00 in motion"]],
  ["There's a wind in my face.", ["wind against"]],
  ["Minus two up here.", ["-2 degrees"]],
  ["The average speed was 14 miles an hour.", ["average 14 mph"]],
  ["I've dropped it to eco mode.", ["level eco"]],
  ["It just cut out.", ["cut off"]],
  ["Standing here it says 49.4 volts.", ["49.4 V, at rest"]],
  [
    "12 miles, 48 percent. I plugged it in and it went from 48 to 71.",
    ["12 mi", "48 % left", "71 % left, after a charge"],
  ],
  ["I weigh 190 pounds.", ["rider 190 lb"]],
])("%s", (text, texts) => expect(shown(text)).toEqual(texts));

test("another value stands in the place of what was heard", () => {
  const found = readNarration("We're at 12.4 miles.", { format: "plain" });
  expect(found.ok && itemText(found.value.items[0]!, 12.6)).toBe("12.6 mi");
});

test.each([
  ["12.6", 12.4, 12.6],
  ["12,6", 12.4, 12.6],
  ["9 to 11", 10, [9, 11]],
  ["9-11", 10, [9, 11]],
  [" trail ", "tour", "trail"],
  ["", 12, null],
  ["soon", 12, null],
  ["", "tour", null],
] as const)("%p typed instead of %p is %p", (typed, before, value) =>
  expect(typedValue(typed, before)).toEqual(value),
);

test("a value is shown as it is typed, and an event has none", () => {
  expect([valueText(12.5), valueText([9, 11]), valueText("eco")]).toEqual(["12.5", "9 to 11", "eco"]);
  const found = readNarration("It just cut out at 31.4 miles.", { format: "plain" });
  expect(found.ok && found.value.items.map(isChangeable)).toEqual([false, true]);
});
