import { FitBaseType, FitEncoder } from "fit-file-parser";

/** A moment of a recorder, for the writers below. Degrees, m, beats a minute, W. */
export interface RecordedMoment {
  /** ms since the epoch. */
  readonly atMs: number;
  readonly lat: number;
  readonly lon: number;
  readonly eleM: number;
  readonly bpm: number | null;
  readonly riderW: number | null;
}

const SEMICIRCLES = 2 ** 31 / 180;
const { Uint8, Uint16, Uint32, Sint32, Enum } = FitBaseType;
const NONE = { byte: 255, word: 65_535 };

/** What a session says of the whole. */
export interface RecordedWhole {
  /** By the format's own numbers: 2 is cycling, 1 running. */
  readonly sport: number;
  readonly movingS: number;
  readonly distanceM: number;
}

/** A FIT activity: file id, record messages, a session. */
export function writeFit(
  moments: readonly RecordedMoment[],
  { sport, movingS, distanceM }: RecordedWhole,
): Uint8Array {
  const encoder = new FitEncoder();
  encoder.writeMessage(0, [{ number: 0, size: 1, baseType: Enum, value: 4 }]);
  const stamp = (ms: number) => FitEncoder.toFitTimestamp(new Date(ms));
  for (const { atMs, lat, lon, eleM, bpm, riderW } of moments)
    encoder.writeMessage(20, [
      { number: 253, size: 4, baseType: Uint32, value: stamp(atMs) },
      { number: 0, size: 4, baseType: Sint32, value: Math.round(lat * SEMICIRCLES) },
      { number: 1, size: 4, baseType: Sint32, value: Math.round(lon * SEMICIRCLES) },
      { number: 2, size: 2, baseType: Uint16, value: Math.round((eleM + 500) * 5) },
      { number: 3, size: 1, baseType: Uint8, value: bpm ?? NONE.byte },
      { number: 4, size: 1, baseType: Uint8, value: 70 },
      { number: 7, size: 2, baseType: Uint16, value: riderW ?? NONE.word },
    ]);
  // Times in ms, distance in cm.
  encoder.writeMessage(18, [
    { number: 253, size: 4, baseType: Uint32, value: stamp(moments[0]?.atMs ?? 0) },
    { number: 5, size: 1, baseType: Enum, value: sport },
    { number: 8, size: 4, baseType: Uint32, value: Math.round(movingS * 1000) },
    { number: 9, size: 4, baseType: Uint32, value: Math.round(distanceM * 100) },
  ]);
  return encoder.close();
}

/** A TCX activity of two laps, the points in the second. */
export function writeTcx(
  moments: readonly RecordedMoment[],
  { movingS, distanceM }: RecordedWhole,
): Uint8Array {
  const points = moments.map(
    ({ atMs, lat, lon, eleM, bpm, riderW }) =>
      `<Trackpoint><Time>${new Date(atMs).toISOString()}</Time><Position><LatitudeDegrees>${lat}</LatitudeDegrees><LongitudeDegrees>${lon}</LongitudeDegrees></Position><AltitudeMeters>${eleM}</AltitudeMeters>${bpm === null ? "" : `<HeartRateBpm><Value>${bpm}</Value></HeartRateBpm>`}<Cadence>70</Cadence>${riderW === null ? "" : `<Extensions><ns3:TPX><ns3:Watts>${riderW}</ns3:Watts></ns3:TPX></Extensions>`}</Trackpoint>`,
  );
  const lap = (share: number) =>
    `<Lap><TotalTimeSeconds>${movingS * share}</TotalTimeSeconds><DistanceMeters>${distanceM * share}</DistanceMeters>`;
  return new TextEncoder().encode(
    `<?xml version="1.0"?>\n<TrainingCenterDatabase xmlns="http://www.garmin.com/xmlschemas/TrainingCenterDatabase/v2"><Activities><Activity Sport="Biking">${lap(0.75)}</Lap>${lap(0.25)}<Track>\n${points.join("\n")}\n</Track></Lap></Activity></Activities></TrainingCenterDatabase>`,
  );
}
