import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { FitBaseType, FitEncoder } from "fit-file-parser";
import { formatOf, readFit, readTcx } from "#core/io";
import { meanWhileMoving } from "#core/ride/distance";
import type { FileAbout } from "./formats.ts";

/** A sample of an invented ride along a levee, one a second, 5 m/s to the east. */
interface Sample {
  readonly s: number;
  readonly lat: number;
  readonly lon: number;
  readonly eleM: number;
  readonly bpm: number | null;
}
const BEGUN = Date.parse("2026-10-18T09:30:00Z");
const ride = (seconds: number): readonly Sample[] =>
  Array.from({ length: seconds }, (_, s) => ({
    ...{ s, lat: 53.5, lon: 8 + (5 * s) / 66_000, eleM: 4 + s / 100 },
    bpm: s < 2 ? null : s % 2 ? 120 : 130,
  }));

const tcx = (samples: readonly Sample[]) => `<?xml version="1.0"?>
<TrainingCenterDatabase xmlns="http://www.garmin.com/xmlschemas/TrainingCenterDatabase/v2"><Activities><Activity Sport="Biking"><Lap><TotalTimeSeconds>40</TotalTimeSeconds><DistanceMeters>200.5</DistanceMeters></Lap><Lap><TotalTimeSeconds>19</TotalTimeSeconds><DistanceMeters>94.5</DistanceMeters><Track>
${samples
  .map(
    ({ s, lat, lon, eleM, bpm }) =>
      `<Trackpoint><Time>${new Date(BEGUN + 1000 * s).toISOString()}</Time><Position><LatitudeDegrees>${lat}</LatitudeDegrees><LongitudeDegrees>${lon}</LongitudeDegrees></Position><AltitudeMeters>${eleM}</AltitudeMeters>${bpm === null ? "" : `<HeartRateBpm><Value>${bpm}</Value></HeartRateBpm>`}<Cadence>70</Cadence><Extensions><ns3:TPX><ns3:Watts>${80 + (s % 2) * 20}</ns3:Watts></ns3:TPX></Extensions></Trackpoint>`,
  )
  .join("\n")}
</Track></Lap></Activity></Activities></TrainingCenterDatabase>`;

const SEMICIRCLES = 2 ** 31 / 180;
function fit(samples: readonly Sample[]): Uint8Array {
  const encoder = new FitEncoder();
  encoder.writeMessage(0, [{ number: 0, size: 1, baseType: FitBaseType.Enum, value: 4 }]);
  for (const { s, lat, lon, eleM, bpm } of samples)
    encoder.writeMessage(20, [
      {
        number: 253,
        size: 4,
        baseType: FitBaseType.Uint32,
        value: FitEncoder.toFitTimestamp(new Date(BEGUN + 1000 * s)),
      },
      { number: 0, size: 4, baseType: FitBaseType.Sint32, value: Math.round(lat * SEMICIRCLES) },
      { number: 1, size: 4, baseType: FitBaseType.Sint32, value: Math.round(lon * SEMICIRCLES) },
      { number: 2, size: 2, baseType: FitBaseType.Uint16, value: Math.round((eleM + 500) * 5) },
      { number: 3, size: 1, baseType: FitBaseType.Uint8, value: bpm ?? 255 },
      { number: 4, size: 1, baseType: FitBaseType.Uint8, value: 70 },
      { number: 7, size: 2, baseType: FitBaseType.Uint16, value: 80 + (s % 2) * 20 },
    ]);
  // The session: sport, times in ms, distance in cm.
  encoder.writeMessage(18, [
    { number: 253, size: 4, baseType: FitBaseType.Uint32, value: FitEncoder.toFitTimestamp(new Date(BEGUN)) },
    { number: 5, size: 1, baseType: FitBaseType.Enum, value: 2 },
    { number: 8, size: 4, baseType: FitBaseType.Uint32, value: 59_000 },
    { number: 9, size: 4, baseType: FitBaseType.Uint32, value: 29_500 },
  ]);
  return encoder.close();
}
const bytes = (text: string) => new TextEncoder().encode(text);
const ABOUT: FileAbout = { name: "ride", logger: "", rideStartS: null, zone: "UTC" };

describe.each([
  ["TCX", "tcx", (samples: readonly Sample[]) => bytes(tcx(samples))],
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
      { numRuns: 10_000 },
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
        ({ s, lat, lon, bpm }) =>
          `<trkpt lat="${lat}" lon="${lon}"><time>${new Date(BEGUN + 1000 * s).toISOString()}</time><extensions><x:TrackPointExtension><x:hr>${bpm ?? 0}</x:hr><x:cad>66</x:cad><x:atemp>21.5</x:atemp></x:TrackPointExtension><power>110</power></extensions></trkpt>`,
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
