import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";

const START_S = Date.UTC(2026, 9, 18, 9) / 1000;
const SECONDS = 1200;

/** Metres of one degree along the equator. */
const DEGREE_M = (Math.PI * 6_371_008.8) / 180;

/** Twenty minutes by a logger: the speed at each second decides what is drawn. Its own speed, or a recorder's beside it by a clock that is off. */
function steadyOf(
  speedAt: (second: number) => number,
  wattsAt: (mps: number) => number,
  recorder: { readonly offS: number } | null = null,
) {
  const timeS = Array.from({ length: SECONDS + 1 }, (_, i) => START_S + i);
  const speedMps = timeS.map((_, i) => speedAt(i));
  const metres = speedMps.reduce((sum, each) => sum + each, 0);
  let sum = 0;
  const along = speedMps.map((mps, i) => (sum += i === 0 ? 0 : mps));
  const at = (second: number) => new Date((START_S + second) * 1000).toISOString();
  const entry = (seq: number, second: number, body: object) => ({
    id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
    seq,
    at: at(second),
    body,
  });
  const record = testRecordSchema.parse({
    test: { title: "t", day: "2026-10-18", firstLevel: "on" },
    bike: { name: "b", levels: ["on"] },
    pack: { name: "p", labelWh: 500, seriesCells: 13 },
    rides: [
      {
        entries: [
          entry(0, 0, { kind: "start", distanceM: 0, percent: 100 }),
          entry(1, SECONDS, { kind: "checkIn", distanceM: metres, percent: 80 }),
        ],
        telemetry: {
          timeS,
          volts: timeS.map(() => 50),
          amps: speedMps.map((mps) => wattsAt(mps) / 50),
          ...(recorder ? {} : { speedMps }),
        },
        ...(recorder && {
          track: {
            name: "recorder",
            timeS: timeS.map((at) => at + recorder.offS),
            lat: timeS.map(() => 0),
            lon: along.map((each) => each / DEGREE_M),
            eleM: timeS.map(() => null),
          },
        }),
      },
    ],
  });
  const found = analyseTest(record);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value.steady;
}

describe("speeds held, by a logger", () => {
  test("each is a row of its own, with what it took", () => {
    const rows = steadyOf(
      (i) => (i < 600 ? 5 : 7),
      (mps) => 20 * mps,
    );
    expect(rows.map(({ speedMps }) => Math.round(speedMps))).toEqual([5, 7]);
    for (const { whPerM, manyWays } of rows) {
      expect(whPerM.mean * METRES_PER_MILE).toBeCloseTo((20 / 3600) * METRES_PER_MILE, 6);
      expect(whPerM.sd / whPerM.mean).toBeCloseTo(0.02, 6);
      expect(manyWays).toBe(true);
    }
  });
  test("a speed that never settles gives none, nor does standing", () => {
    expect(
      steadyOf(
        (i) => 4 + 3 * Math.abs(Math.sin(i / 4)),
        () => 100,
      ),
    ).toEqual([]);
    expect(
      steadyOf(
        (i) => (i < 20 ? 5 : 0.1),
        () => 4,
      ),
    ).toEqual([]);
  });
});

describe("speeds held, by a recorder beside a meter that has none", () => {
  /** Two speeds, and half a minute at a stand between them. */
  const speedAt = (i: number) => (i < 580 ? 5 : i < 620 ? 0 : 7);
  const drawn = (mps: number) => (mps === 0 ? 2 : 20 * mps);
  test("are as by its own", () => {
    const [own, beside] = [steadyOf(speedAt, drawn), steadyOf(speedAt, drawn, { offS: 0 })];
    expect(beside.map(({ speedMps }) => Math.round(speedMps))).toEqual([5, 7]);
    beside.forEach(({ whPerM, speedMps }, i) => {
      expect(speedMps / own[i]!.speedMps).toBeCloseTo(1, 2);
      expect(whPerM.mean / own[i]!.whPerM.mean).toBeCloseTo(1, 2);
    });
  });
  test("are none where the clocks do not agree: it draws where the recorder stands", () =>
    expect(steadyOf(speedAt, drawn, { offS: 240 })).toEqual([]));
  test("are none of a ride without a stand, by which clocks could be told", () =>
    expect(steadyOf(() => 6, drawn, { offS: 0 })).toEqual([]));
});
