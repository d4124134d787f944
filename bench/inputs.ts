import { type TestRecord, testRecordSchema } from "#core/records";
import { METRES_PER_MILE } from "#core/base";

/** A made ride of many check-ins, percents falling evenly, levels changing every tenth mark. */
export function longRide(marks: number): TestRecord {
  const entries = Array.from({ length: marks }, (_, i) => ({
    id: `019a0000-0000-7000-8000-${i.toString(16).padStart(12, "0")}`,
    seq: i,
    body: {
      kind: i === 0 ? "start" : "checkIn",
      distanceM: (i * 60 * METRES_PER_MILE) / marks,
      percent: Math.round(100 - (i * 92) / marks),
      ...(i === 0 && { chargerDone: true }),
      ...(i % 10 === 0 && { level: (i / 10) % 2 ? "high" : "low" }),
    },
  }));
  return testRecordSchema.parse({
    test: { title: `${marks} marks`, day: "2026-10-18", airTempC: 20 },
    bike: { name: "bench", levels: ["low", "high"] },
    pack: { name: "p", chemistry: "NMC", labelWh: 1000, seriesCells: 13 },
    rides: [{ entries }],
  });
}

/** A ledger of many marks as calc takes it: percents everywhere, and with a meter counts and rest volts besides. */
export function longLedger(marks: number, metered: boolean) {
  const every = (step: number) =>
    Array.from({ length: Math.floor((marks - 1) / step) }, (_, i) => (i + 1) * step);
  return {
    pack: { chemistry: "NMC", labelWh: 1000, seriesCells: 13 },
    cells: ["low", "high"],
    legs: Array.from({ length: marks - 1 }, (_, i) => ({
      miles: { [i % 20 < 10 ? "low" : "high"]: 60 / marks },
    })),
    readings: [
      { kind: "fullStart", mark: 0 },
      ...[0, ...every(1)].map((mark) => ({
        kind: "percent",
        mark,
        percent: Math.round(100 - (92 * mark) / marks),
      })),
      ...(metered
        ? [
            ...every(3).map((mark) => ({
              kind: "energyCounter",
              fromMark: 0,
              toMark: mark,
              wh: Math.round((890 * mark) / marks),
              meter: "m",
            })),
            ...every(10).map((mark) => ({
              kind: "restVolts",
              mark,
              packVolts: 53.5 - (12 * mark) / marks,
              restMin: 12,
            })),
          ]
        : []),
    ],
  };
}

/** A small ledger as calc takes it. */
export const SMALL_LEDGER = {
  calculation: "ledger",
  input: {
    pack: { chemistry: "NMC", labelWh: 612, seriesCells: 13, packTempC: 20 },
    gauge: { percentStep: 1, counts: "charge" },
    cells: ["steady"],
    legs: [
      { miles: { steady: 5 } },
      { miles: { steady: 5 } },
      { miles: { steady: 5 } },
      { miles: { steady: 4.2 } },
    ],
    readings: [
      { kind: "fullStart", mark: 0 },
      ...[99, 88, 76, 66, 56].map((percent, mark) => ({ kind: "percent", mark, percent })),
    ],
  },
};

/** A track round a hundred miles of hills, at a point a second, as GPX. */
export function longTrack(count: number): string {
  const points = Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * i) / count;
    const [lat, lon] = [0.4 + 0.23 * Math.sin(angle), 0.4 + 0.23 * (1 - Math.cos(angle))];
    const time = new Date(Date.UTC(2026, 9, 18, 8) + i * 1000).toISOString();
    return `<trkpt lat="${lat.toFixed(6)}" lon="${lon.toFixed(6)}"><ele>${(30 + 25 * Math.sin(i / 160)).toFixed(1)}</ele><time>${time}</time></trkpt>`;
  });
  return `<?xml version="1.0"?><gpx version="1.1"><trk><name>Grand round</name><trkseg>${points.join("")}</trkseg></trk></gpx>`;
}
