import { describe, expect, test } from "@jest/globals";
import { entryBodySchema } from "#core/ride/log";
import { levelOn, readNarration, saidEntries } from "./index.ts";

const BIKE = { levels: ["eco", "tour", "boost"], bars: 5 };
const linesOf = (text: string) => {
  const read = readNarration(text);
  return read.ok ? saidEntries(read.value.items, BIKE) : [];
};

describe("lines of the log that speech makes", () => {
  test("are one for what belongs together, in SI, with the words and their place in the film", () => {
    const [line, ...more] = linesOf(
      "[4:02] Trip meter reads 10 miles, 85 percent left, level two, 9 degrees Celsius.",
    );
    expect(more).toEqual([]);
    expect(line!.body).toEqual({
      kind: "checkIn",
      distanceM: 16093.44,
      percent: 85,
      level: "tour",
      airTempC: 9,
    });
    expect(line!.source).toMatchObject({ kind: "narration", filmS: 242 });
    expect(line!.source.words).toContain("10 miles");
  });
  test("number the bars that go, and carry what is said with them", () => {
    const bodies = linesOf(
      "[0:10] It's fully charged.\n[2:00] There goes my first bar, at 6 miles.\n[5:00] Another bar gone at 11 miles.\n[9:00] Last bar is blinking, 21 miles.\n[10:00] It died at 23 miles.",
    ).map(({ body }) => body);
    expect(bodies).toMatchObject([
      { kind: "start", chargerDone: true },
      { kind: "barLost", bar: 5 },
      { kind: "barLost", bar: 4 },
      { kind: "lastBar" },
      { kind: "end", reason: "cutOff" },
    ]);
  });
  test("begin anew where a kind is said again", () => {
    const bodies = linesOf(
      "[1:00] Assist one, 8.9 miles an hour, 1.6 amps. Assist two, 10.8 miles an hour, 2.9 amps.",
    ).map(({ body }) => body);
    expect(bodies).toMatchObject([
      { level: "eco", amps: 1.6 },
      { level: "tour", amps: 2.9 },
    ]);
  });
  test("keep as a note what the log has no field for", () => {
    const [line] = linesOf("[1:00] We turned round at 12 miles, with the wind in the face.");
    expect(line!.body).toMatchObject({ kind: "checkIn", note: "turned round; wind against" });
  });
  test("are lines that a log takes", () => {
    for (const { body } of linesOf(
      "[1:00] 12 miles, 15 to 16 amps, 44 volts under load, 60 percent, gravel, 61 degrees. I'm on level nine.",
    ))
      expect(entryBodySchema.safeParse(body).success).toBe(true);
  });
  test("a level is one of the bike's, by its name or its number, or none", () => {
    expect([levelOn(BIKE, "Tour"), levelOn(BIKE, 3), levelOn(BIKE, 9), levelOn(BIKE, "trail")]).toEqual([
      "tour",
      "boost",
      null,
      null,
    ]);
  });
});
