import { describe, expect, test } from "@jest/globals";
import {
  displayHealth,
  autoLog,
  autoLogFrom,
  sightingOf,
  startOf,
  UNWATCHED,
  watch,
  type DisplaySample,
} from "#core/ride/display";
import { courseSchema, buildRoute } from "#core/route";
import { PRIOR } from "#core/forecast";
import type { Entry, EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, MPS_PER_MPH, Z_95 } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";
import { debrief, displayOf, truthOf, type DisplayOptions, type Rehearsal } from "#core/simulator";

const mi = (miles: number) => miles * METRES_PER_MILE;
const START_MS = Date.UTC(2026, 9, 18, 9);
const rehearsal = (seed: number): Rehearsal => ({
  planId: "p",
  seed,
  startMs: START_MS,
  toM: mi(16),
  input: {
    way: buildRoute(
      courseSchema.parse({
        name: "levee",
        shape: "out and back",
        legs: [
          { distanceM: mi(3), ground: "asphalt", level: "mid", gainM: 20, lossM: 12 },
          { distanceM: mi(5), ground: "fine gravel", level: "low", gainM: 9, lossM: 20 },
        ],
      }),
    ),
    rig: {
      massKg: 118,
      massSdShare: 0.01,
      cdA: 0.55,
      crr: 0.007,
      etaD: 0.95,
      etaM: 0.8,
      assistToMps: 20 * MPS_PER_MPH,
      lightsOn: false,
      tempC: 12,
      altitudeM: 0,
      windMps: 2,
      windFromDeg: null,
      windSdMps: 1,
      stopsPerMi: 1,
      riderW: 60,
      riderSdShare: 0.25,
      riderBy: "word",
      speedSdShare: 0.08,
      level: "mid",
      speedMps: { low: 11 * MPS_PER_MPH, mid: 14 * MPS_PER_MPH },
      motorW: { low: 300, mid: 550 },
    },
    knowledge: PRIOR,
    pack: { chemistry: "NMC", labelWh: 400, seriesCells: 13, ampHours: 8.5, packTempC: 12 },
    display: { percentStep: 1, counts: "charge", bars: 5, meterStepV: 0.1 },
    startPercent: 100,
    reserve: 0.2,
  },
});
const momentsOf = (seed: number, options: DisplayOptions = {}, untilS = 6000) => {
  const moments = [];
  for (const moment of displayOf(rehearsal(seed), options)) {
    if (moment.atS > untilS) break;
    moments.push(moment);
  }
  return moments;
};
const shownOf = (seed: number, options: DisplayOptions = {}, untilS = 6000) =>
  momentsOf(seed, options, untilS).flatMap(({ shown }) => (shown ? [shown] : []));

/** A log that the display wrote by itself, from full to the course's end. */
function logOf(seed: number): readonly Entry[] {
  const rows = shownOf(seed, {}, 12_000);
  let state = autoLogFrom(rows[0]!);
  const bodies: { timeS: number; body: EntryBody }[] = [
    { ...startOf(rows[0]!), body: { ...startOf(rows[0]!).body, chargerDone: true } as EntryBody },
  ];
  for (const shown of rows.slice(1)) {
    const next = autoLog(state, shown);
    state = next.state;
    bodies.push(...next.entries);
  }
  const last = rows.at(-1)!;
  bodies.push({ timeS: last.timeS, body: { kind: "end", reason: "byChoice", ...sightingOf(last) } });
  return bodies.map(({ timeS, body }, seq) => ({
    id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
    seq,
    at: new Date(timeS * 1000).toISOString(),
    body,
    supersedes: null,
  }));
}

describe("the stand-in display", () => {
  const rows = shownOf(3);
  test("shows a moment a second, what a display shows and nothing of the truth", () => {
    expect(rows[0]).toMatchObject({ timeS: START_MS / 1000, distanceM: expect.any(Number), level: "mid" });
    expect(rows[600]!.timeS - rows[0]!.timeS).toBe(600);
    expect(Object.keys(rows[600]!).sort()).toEqual(
      "airTempC amps bars displayM distanceM level lowPower percent rangeGuessM speedMps timeS volts".split(
        " ",
      ),
    );
  });
  test("is the same again from the same seed, so that a broken stream can go on", () =>
    expect(shownOf(3, {}, 500)).toEqual(rows.slice(0, 501)));
  test("never shows its distance run backward", () =>
    expect(rows.every(({ distanceM }, i) => i === 0 || distanceM! >= rows[i - 1]!.distanceM!)).toBe(true));
  test("stands when it is told to, and its volts come up", () => {
    const moments = momentsOf(3, { stands: [{ fromS: 900, toS: 1600 }] });
    const standing = moments[1500]!;
    const riding = [...moments.slice(0, 900)].reverse().find(({ sample }) => sample.amps > 4)!;
    expect(standing.sample.speedMps).toBe(0);
    expect(standing.sample.amps).toBeLessThan(0.5);
    expect(standing.shown!.volts!).toBeGreaterThan(riding.shown!.volts!);
  });
  test("at its end it goes on showing the bike at rest", () => {
    const end = momentsOf(3, {}, 12_000).at(-1)!;
    expect(end.sample.distanceM).toBeGreaterThanOrEqual(mi(16) - 1);
    expect(end.shown).toMatchObject({ speedMps: 0, amps: 0 });
  });
});

describe("a display gone wrong", () => {
  const watched = (rows: readonly DisplaySample[], quietMs = 0) =>
    displayHealth(rows.reduce(watch, UNWATCHED), quietMs);
  test("dropping out is silence", () => {
    const rows = shownOf(3, { fault: "drops out", faultFromS: 300 }, 420);
    expect(rows.some(({ timeS }) => timeS === START_MS / 1000 + 330)).toBe(false);
    expect(watched(rows, 9000)).toMatchObject({ health: "silent" });
    expect(watched(rows, 500)).toMatchObject({ health: "fine" });
  });
  test("freezing is seen by its figures while it moves", () => {
    const at = momentsOf(3).find(({ atS, shown }) => atS > 300 && shown!.speedMps! > 3)!.atS;
    expect(watched(shownOf(3, { fault: "freezes", faultFromS: at }, at + 60))).toMatchObject({
      health: "frozen",
    });
    expect(watched(shownOf(3, {}, at + 60))).toMatchObject({ health: "fine" });
  });
  test("a wrong wheel setting shows against the recorder", () => {
    const found = watched(shownOf(3, { fault: "wrong wheel" }, 2000));
    expect(found).toMatchObject({ health: "odd" });
    expect(found.sentence).toMatch(/[678] % over the recorder's/);
  });
  test("a stuck gauge stands still at the bottom, wrong amps read high", () => {
    const [stuck, sound] = [shownOf(5, { fault: "stuck gauge" }), shownOf(5)].map((rows) =>
      Math.min(...rows.map(({ percent }) => percent!)),
    );
    expect(stuck).toBe(Math.max(25, sound!));
    const amps = (rows: readonly DisplaySample[]) => rows.reduce((sum, row) => sum + row.amps!, 0);
    expect(amps(shownOf(5, { fault: "wrong amps" })) / amps(shownOf(5))).toBeCloseTo(1.1, 1);
  });
});

describe("a log that writes itself, and its debrief", () => {
  const log = logOf(3);
  const kinds = (kind: string) => log.filter(({ body }) => body.kind === kind);
  test("checks in each mile and at each change of level, and notes bars as they go", () => {
    expect(kinds("checkIn").length).toBeGreaterThanOrEqual(16);
    expect(kinds("checkIn").length).toBeLessThanOrEqual(20);
    expect(kinds("barLost").map(({ body }) => (body as { bar: number }).bar)).toEqual(
      [5, 4, 3, 2].slice(0, kinds("barLost").length),
    );
    expect(log.some(({ body }) => "level" in body && body.level === "low")).toBe(true);
  });
  const reckoned = (seed: number) => {
    const own = logOf(seed);
    const { input } = rehearsal(seed);
    const record = testRecordSchema.parse({
      test: { title: "t", day: "2026-10-18", airTempC: 12, firstLevel: "mid" },
      bike: { name: "b", levels: ["low", "mid"], percentStep: 1, bars: 5 },
      pack: { name: "p", ...input.pack, packTempC: undefined },
      rides: [{ name: "r", entries: own }],
    });
    const results = analyseTest(record);
    if (!results.ok) throw new Error(results.problems[0]!.sentence);
    const endS = Date.parse(own.at(-1)!.at!) / 1000 - START_MS / 1000;
    return { own, results: results.value, truth: truthOf(rehearsal(seed), endS, []) };
  };
  test("the truth of the seed lies within the reckoning as often as it says", () => {
    const seeds = Array.from({ length: 8 }, (_, i) => i + 1);
    const inside = seeds.filter((seed) => {
      const { results, truth } = reckoned(seed);
      const { mean, sd } = results.best.value;
      return Math.abs(mean - truth.whPerM) <= Z_95 * sd;
    });
    expect(inside.length).toBeGreaterThanOrEqual(7);
  });
  test("the debrief says what was missed", () => {
    const { own, results, truth } = reckoned(3);
    const whole = debrief(results, truth, own);
    expect(whole.rows.map(({ what }) => what)).toEqual([
      "energy per distance",
      "distance",
      "pack's energy",
      "charge used",
    ]);
    expect(whole.remarks.join(" ")).toContain("All 2 changes of level were noted");
    const deaf = own.map((entry) => {
      const { level: _level, ...body } = entry.body as EntryBody & { level?: string };
      return entry.body.kind === "start" ? entry : { ...entry, body: body as EntryBody };
    });
    expect(debrief(results, truth, deaf, "wrong wheel").remarks.join(" ")).toMatch(
      /2 of 2 changes of level were not noted .* wheel setting is 8 % too large/,
    );
  });
});
