import { describe, expect, test } from "@jest/globals";
import fc, { MANY } from "#tests/property";
import { FitBaseType, FitEncoder } from "fit-file-parser";
import { formatOf, readFit, readTcx } from "#core/io";
import { meanWhileMoving } from "#core/ride/distance";
import { writeFit, writeTcx, type RecordedMoment } from "../../tests/recordings.ts";
import type { FileAbout } from "./formats.ts";

const BEGUN = Date.parse("2026-10-18T09:30:00Z");
/** An invented ride along a levee, a point a second, 5 m/s to the east. */
const ride = (seconds: number): readonly RecordedMoment[] =>
  Array.from({ length: seconds }, (_, s) => ({
    ...{ atMs: BEGUN + 1000 * s, lat: 53.5, lon: 8 + (5 * s) / 66_000, eleM: 4 + s / 100 },
    bpm: s < 2 ? null : s % 2 ? 120 : 130,
    riderW: 80 + (s % 2) * 20,
  }));
const WHOLE = { sport: 2, movingS: 59, distanceM: 295 };
const tcx = (moments: readonly RecordedMoment[]) => writeTcx(moments, WHOLE);
const fit = (moments: readonly RecordedMoment[]) => writeFit(moments, WHOLE);
const bytes = (text: string) => new TextEncoder().encode(text);
const ABOUT: FileAbout = { name: "ride", logger: "", rideStartS: null, zone: "UTC" };

describe.each([
  ["TCX", "tcx", tcx],
  ["FIT", "fit", fit],
] as const)("a recording as %s", (_, id, write) => {
  const format = formatOf(write(ride(60)))!;
  test("is known by how it begins, and gives way, height, time and heart", () => {
    expect(format.id).toBe(id);
    const read = format.read(write(ride(60)), ABOUT);
    if (!read.ok) throw new Error(read.problems[0]!.sentence);
    const { track, sport } = read.value;
    expect(track!.name).toBe("ride");
    expect(track!.timeS).toHaveLength(60);
    expect(track!.timeS[0]).toBe(BEGUN / 1000);
    expect(track!.lat[30]).toBeCloseTo(53.5, 5);
    expect(track!.lon[59]).toBeCloseTo(8 + 295 / 66_000, 5);
    expect(track!.eleM[59]).toBeCloseTo(4.59, 0);
    expect(meanWhileMoving(track!, track!.bpm!)!.mean).toBeCloseTo(125, 0);
    expect(track!.bpm![0]).toBeNull();
    expect(meanWhileMoving(track!, track!.riderW!)!.mean).toBeCloseTo(90, 0);
    expect(track!.cadence!.every((turns) => turns === 70)).toBe(true);
    expect(track!.sums).toMatchObject({ distanceM: 295, movingS: 59 });
    expect(sport!.toLowerCase()).toMatch(/biking|cycling/);
  });
  test("beats and watts that cannot be are none", () => {
    const read = format.read(write(ride(20).map((sample) => ({ ...sample, bpm: 9 }))), ABOUT);
    expect(read.ok && read.value.track!.bpm).toBeUndefined();
  });
  test("without a heart says none", () => {
    const read = format.read(write(ride(60).map((sample) => ({ ...sample, bpm: null }))), ABOUT);
    expect(read.ok && read.value.track!.bpm).toBeUndefined();
  });
  test("of one point, or in disorder, is refused with what to do", () => {
    const [first, second, third] = ride(3);
    for (const samples of [[first!], [second!, first!, third!]]) {
      const read = format.read(write(samples), ABOUT);
      expect(!read.ok && read.problems[0]!.sentence.length > 30).toBe(true);
    }
  });
  test("however it is damaged, is read or refused", () => {
    const whole = write(ride(12));
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(8), fc.uint8Array({ maxLength: 6 }), (at, length, put) => {
        const damaged = new Uint8Array([...whole.subarray(0, at), ...put, ...whole.subarray(at + length)]);
        const read = format.read(damaged, ABOUT);
        if (!read.ok) expect(read.problems[0]!.sentence).toMatch(/[.:]/);
      }),
      { numRuns: MANY },
    );
  }, 120_000);
});

describe("recordings that hold no ride", () => {
  test.each([
    ["<TrainingCenterDatabase><Courses/></TrainingCenterDatabase>", "no-track"],
    ["<TrainingCenterDatabase><Activities>", "broken-xml"],
    ["<gpx></gpx>", "not-tcx"],
    ["<!DOCTYPE x><TrainingCenterDatabase/>", "xml-entities"],
    [
      "<TrainingCenterDatabase><Trackpoint><Time>2026-10-18T09:30:00Z</Time></Trackpoint><Trackpoint><Time>2026-10-18T09:31:00Z</Time></Trackpoint></TrainingCenterDatabase>",
      "no-places",
    ],
  ])("%s", (text, code) => expect(readTcx(text)).toMatchObject({ ok: false, problems: [{ code }] }));
  test("a FIT file of settings, one cut short, and none at all", () => {
    expect(
      readFit(
        new FitEncoder()
          .writeMessage(0, [{ number: 0, size: 1, baseType: FitBaseType.Enum, value: 2 }])
          .close(),
      ),
    ).toMatchObject({ ok: false });
    expect(readFit(fit(ride(20)).subarray(0, 9))).toMatchObject({
      ok: false,
      problems: [{ code: "broken-fit" }],
    });
    expect(readFit(new Uint8Array())).toMatchObject({ ok: false, problems: [{ code: "broken-fit" }] });
  });
  test("a GPX gives the heart of its extension", () => {
    const points = ride(30)
      .map(
        ({ atMs, lat, lon, bpm }) =>
          `<trkpt lat="${lat}" lon="${lon}"><time>${new Date(atMs).toISOString()}</time><extensions><x:TrackPointExtension><x:hr>${bpm ?? 0}</x:hr><x:cad>66</x:cad><x:atemp>21.5</x:atemp></x:TrackPointExtension><power>110</power></extensions></trkpt>`,
      )
      .join("");
    const text = `<gpx xmlns="http://www.topografix.com/GPX/1/1"><trk><type>cycling</type><trkseg>${points}</trkseg></trk></gpx>`;
    const read = formatOf(bytes(text))!.read(bytes(text), ABOUT);
    if (!read.ok) throw new Error(read.problems[0]!.sentence);
    const { track, sport } = read.value;
    expect(meanWhileMoving(track!, track!.bpm!)!.mean).toBeCloseTo(125, 0);
    expect([track!.riderW![3], track!.cadence![3], track!.tempC![3], sport]).toEqual([
      110,
      66,
      21.5,
      "cycling",
    ]);
  });
});
