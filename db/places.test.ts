import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import type { Entry } from "#core/ride/log";
import { placeEntries } from "./places.ts";

let made = 0;
const entry = (at: string | null, more: Partial<Entry> = {}): Entry => ({
  id: `019a0000-0000-7000-8000-${(made += 1).toString(16).padStart(12, "0")}`,
  seq: Number.MAX_SAFE_INTEGER,
  at,
  body: { kind: "note", note: "n" },
  supersedes: null,
  ...more,
});
const at = (minute: number) => new Date(Date.UTC(2026, 9, 18, 9, minute)).toISOString();
const placesOf = (entries: readonly Entry[], taken: readonly number[] = []) =>
  placeEntries(entries, taken).map(({ seq }) => seq);

describe("places in a log", () => {
  test("an entry with a time stands at its moment, put right by its clock", () => {
    const moment = Date.parse(at(3));
    expect(placesOf([entry(at(3)), entry(at(3), { clockOffsetS: 60 })])).toEqual([moment, moment + 60_000]);
  });
  test("one without a time follows the one sent before it; the first stands after all there is", () => {
    const moment = Date.parse(at(3));
    expect(placesOf([entry(at(3)), entry(null)], [5])).toEqual([moment, moment + 1]);
    expect(placesOf([entry(null)], [5, 9])).toEqual([10]);
  });
  test("a correction and a judgement stand after all there is, whatever their time", () => {
    const [first] = placeEntries([entry(at(30))], []);
    const correction = entry(at(3), { supersedes: first!.id });
    const strike = entry(null, { body: { kind: "strike", target: first!.id } });
    expect(placesOf([correction, strike], [first!.seq])).toEqual([first!.seq + 1, first!.seq + 2]);
  });
  test("a stored place beyond all reading pushes no other there", () =>
    expect(placesOf([entry(null)], [3, 2 ** 53])).toEqual([4]));
  test("no two share a place, and what was sent in order stays in order", () => {
    const times = fc.array(fc.option(fc.integer({ min: 0, max: 5 })), { maxLength: 12 });
    fc.assert(
      fc.property(times, fc.array(fc.integer({ min: 0, max: 20 }), { maxLength: 5 }), (minutes, taken) => {
        const seqs = placesOf(
          minutes.map((minute) => entry(minute === null ? null : at(minute))),
          taken,
        );
        const all = [...new Set(taken), ...seqs];
        expect(new Set(all).size).toBe(all.length);
        minutes.forEach((minute, i) => {
          if (i > 0 && minute === null && minutes[i - 1] !== null)
            expect(seqs[i]!).toBeGreaterThan(seqs[i - 1]!);
        });
      }),
    );
  });
});
