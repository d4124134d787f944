import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { METRES_PER_MILE } from "#core/base";
import type { EntryBody } from "#core/ride/log";
import { testRecordSchema } from "#core/records";
import { liveView } from "#core/live";
import { analyseTest } from "#core/analysis";

/**
 * Any log that can be typed, however little it says and in whatever order: it has a figure or a sentence, never an exception.
 * Readings come in any mix: a log whose only percent is its last, bars alone, a start in the middle, an end first.
 */
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined, freq: 2 });
const distanceM = fc.oneof(
  { weight: 4, arbitrary: fc.integer({ min: 0, max: 600 }).map((tenths) => (tenths / 10) * METRES_PER_MILE) },
  { weight: 1, arbitrary: fc.constantFrom(0, 1, 5000, 400_000) },
);
const compact = (record: object): object =>
  Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined));
const sighting = fc.record({
  distanceM: maybe(distanceM),
  percent: maybe(fc.integer({ min: 0, max: 100 })),
  bars: maybe(fc.integer({ min: 0, max: 5 })),
  packVolts: maybe(fc.integer({ min: 360, max: 548 }).map((tenths) => tenths / 10)),
  restMin: maybe(fc.constantFrom(0, 10, 45)),
  amps: maybe(fc.constantFrom(0, 2, 11)),
  speedMps: maybe(fc.constantFrom(0, 4, 9)),
  level: maybe(fc.constantFrom("eco", "turbo")),
  ground: maybe(fc.constantFrom("asphalt", "gravel")),
});
const body: fc.Arbitrary<EntryBody> = fc.oneof(
  { weight: 8, arbitrary: sighting.map((seen) => compact({ kind: "checkIn", ...seen }) as EntryBody) },
  { weight: 2, arbitrary: sighting.map((seen) => compact({ kind: "start", ...seen }) as EntryBody) },
  {
    weight: 1,
    arbitrary: fc
      .record({
        distanceM: maybe(distanceM),
        how: fc.constantFrom("cutOff", "byChoice", "crawl", "gaugeZero"),
      })
      .map((end) => compact({ kind: "end", ...end }) as EntryBody),
  },
  { weight: 1, arbitrary: fc.constant({ kind: "note", note: "on" } as EntryBody) },
);
const log = fc.array(fc.record({ body, minute: maybe(fc.integer({ min: 0, max: 600 })) }), { maxLength: 9 });

const record = (entries: readonly { readonly body: EntryBody; readonly minute: number | undefined }[]) =>
  testRecordSchema.safeParse({
    test: { title: "t", day: "2026-06-01" },
    bike: { name: "b", levels: ["eco", "turbo"], percentStep: 1, bars: 5 },
    pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13, ampHours: 13 },
    rides: [
      {
        name: "r",
        entries: entries.map(({ body: own, minute }, seq) => ({
          id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
          seq,
          at: minute === undefined ? null : new Date(Date.UTC(2026, 5, 1, 8, minute)).toISOString(),
          body: own,
          supersedes: null,
        })),
      },
    ],
  });

describe("any log that can be typed", () => {
  test("has a figure or a sentence, and never an exception", () => {
    let read = 0;
    fc.assert(
      fc.property(log, (entries) => {
        const parsed = record(entries);
        if (!parsed.success) return;
        read += 1;
        const found = analyseTest(parsed.data);
        if (found.ok) {
          expect(Number.isFinite(found.value.best.value.mean)).toBe(true);
          liveView(found.value);
        } else expect(found.problems[0]!.sentence).not.toBe("");
      }),
      { numRuns: Number(process.env["ANY_LOGS"] ?? 150) },
    );
    expect(read).toBeGreaterThan(10);
  });
  test("whose only percent is on the last of four distances", () => {
    const look = (miles: number, rest: object = {}) => ({
      body: { kind: "checkIn", distanceM: miles * METRES_PER_MILE, ...rest } as EntryBody,
      minute: undefined,
    });
    const found = analyseTest(record([look(0), look(5), look(10), look(15, { percent: 40 })]).data!);
    expect(found.ok || found.problems[0]!.code).not.toBe("fault");
  });
});
