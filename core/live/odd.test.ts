import { describe, expect, test } from "@jest/globals";
import { oddReadings } from "#core/live";
import { foldLog, type Entry, type EntryBody } from "#core/ride/log";
import { renderUnits } from "#core/base";

const id = (n: number) => `019a0000-0000-7000-8000-${n.toString(16).padStart(12, "0")}`;
const at = (minute: number) => new Date(Date.UTC(2026, 9, 18, 9, minute)).toISOString();
const log = (...bodies: readonly (EntryBody | [EntryBody, number])[]): readonly Entry[] =>
  bodies.map((each, n) => {
    const [body, minute] = Array.isArray(each) ? each : [each, n];
    return { id: id(n), seq: n, at: at(minute), body, supersedes: null };
  });
const checkIn = (percent: number, distanceM?: number): EntryBody => ({
  kind: "checkIn",
  percent,
  ...(distanceM !== undefined && { distanceM }),
});
const odd = (...bodies: readonly (EntryBody | [EntryBody, number])[]) => oddReadings(foldLog(log(...bodies)));

describe("a gauge that goes up", () => {
  test("is asked about, with an entry for each answer", () => {
    const [found] = odd(checkIn(58, 9000), checkIn(61, 9500));
    expect(found).toMatchObject({
      rootId: id(1),
      field: "percent",
      sentence: "61 % after 58 %? A rebound, a typing slip, or charged?",
      answers: [
        { words: "Rebound", body: { kind: "note", note: "Rebound: 61 % after 58 %" } },
        { words: "Typing slip", body: { kind: "strike", target: id(1), field: "percent" } },
        { words: "Charged", body: { kind: "refill", toFull: false, distanceM: 9000 } },
      ],
    });
  });
  test.each([0, 1, 2])("each answer settles it", (which) => {
    const bodies = [checkIn(58, 9000), checkIn(61, 9500)] as const;
    const { body, atS } = odd(...bodies)[0]!.answers[which]!;
    const time = atS === null ? at(9) : new Date(atS * 1000).toISOString();
    const answer: Entry = { id: id(9), seq: 9, at: time, body, supersedes: null };
    const settled = oddReadings(foldLog([...log(...bodies), answer]));
    expect(settled).toEqual([]);
  });
  test("a point of flicker, a fall and a charge noted in between are no question", () => {
    expect(odd(checkIn(58), checkIn(59), checkIn(40))).toEqual([]);
    expect(odd(checkIn(58), { kind: "refill", toFull: false }, checkIn(80))).toEqual([]);
  });
  test("bars do the same", () =>
    expect(odd({ kind: "checkIn", bars: 3 }, { kind: "checkIn", bars: 4 })[0]!.sentence).toContain(
      "4 bars after 3 bars?",
    ));
});

describe("a distance that runs back", () => {
  test("is asked about", () =>
    expect(renderUnits(odd(checkIn(80, 10_000), checkIn(78, 1100))[0]!.sentence, "metric")).toBe(
      "1.1 km after 10.0 km? A typing slip? Correct it below, or strike it.",
    ));
  test("is in order when its time says it was earlier, or it is struck", () => {
    expect(odd([checkIn(80, 10_000), 20], [checkIn(85, 6000), 10])).toEqual([]);
    expect(odd(checkIn(80, 10_000), checkIn(78, 1100), { kind: "strike", target: id(1) })).toEqual([]);
  });
});
