import { describe, expect, test } from "@jest/globals";
import type { TrackProfile } from "#core/ride/distance";
import type { EntryBody } from "./entry.ts";
import { foldLog } from "./fold.ts";
import { factorOf, placeEntries, type KnownFactor } from "./places.ts";

const T0 = Date.UTC(2026, 9, 18, 9) / 1000;
const at = (second: number) => new Date((T0 + second) * 1000).toISOString();

/** A log of bodies, each with its second or none. */
const log = (...lines: readonly (readonly [second: number | null, body: EntryBody])[]) =>
  foldLog(
    lines.map(([second, body], seq) => ({
      id: `019a0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
      seq,
      at: second === null ? null : at(second),
      body,
      supersedes: null,
    })),
  );

/** Ten metres a second for a thousand seconds, one metre of climb every ten. */
const steady: TrackProfile = {
  timeS: Array.from({ length: 101 }, (_, i) => T0 + i * 10),
  distanceM: Array.from({ length: 101 }, (_, i) => i * 100),
  gainM: Array.from({ length: 101 }, (_, i) => i),
  lossM: Array.from({ length: 101 }, () => 0),
  heightM: Array.from({ length: 101 }, (_, i) => i),
  movingS: 1000,
  totalM: 10_000,
  meanSpeedMps: 10,
  topSpeedMps: 10,
  gaps: 0,
  jumps: 0,
  hasHeights: true,
};

const place = (
  entries: ReturnType<typeof log>,
  track: TrackProfile | null = null,
  known: KnownFactor | null = null,
) => {
  const { placed, basis } = placeEntries(entries, track, known);
  return { at: placed.map(({ distanceM, source }) => [Math.round(distanceM), source]), basis };
};

const start: readonly [null, EntryBody] = [null, { kind: "start" }];

describe("where an entry lies", () => {
  test("the recorder's own figure comes first, even with a track", () => {
    expect(
      place(log([0, { kind: "start" }], [500, { kind: "checkIn", distanceM: 4800 }]), steady).at,
    ).toEqual([
      [0, "track"],
      [4800, "recorder"],
    ]);
  });
  test("then the track at its time", () => {
    expect(place(log([0, { kind: "start" }], [505, { kind: "checkIn", percent: 90 }]), steady).at[1]).toEqual(
      [5050, "track"],
    );
  });
  test("a time outside the track is no place on it", () => {
    const { at: places } = place(
      log(start, [400, { kind: "checkIn", distanceM: 4000 }], [5000, { kind: "checkIn", percent: 50 }]),
      steady,
    );
    expect(places).toEqual([
      [0, "recorder"],
      [4000, "recorder"],
      [4000, "between"],
    ]);
  });
  test("then the display's figure, by a factor known from elsewhere", () => {
    const entries = log(start, [null, { kind: "checkIn", displayM: 10_000 }]);
    const { at: places, basis } = place(entries, null, { k: 0.92, sd: 0.0046 });
    expect(places[1]).toEqual([9200, "display"]);
    expect(basis).toMatchObject({ source: "display", factor: null });
    expect(basis.relativeSd).toBeCloseTo(0.005, 9);
  });
  test("the ride's own factor beats a known one", () => {
    const entries = log(
      start,
      [null, { kind: "checkIn", distanceM: 9500, displayM: 10_000 }],
      [null, { kind: "checkIn", displayM: 20_000 }],
    );
    expect(place(entries, null, { k: 0.5, sd: 0.01 }).at[2]).toEqual([19_000, "display"]);
  });
  test("an entry before any place lies at the start; after the last, with it", () => {
    const entries = log(
      [null, { kind: "note", note: "fog" }],
      [null, { kind: "checkIn", distanceM: 3000 }],
      [null, { kind: "note", note: "sun" }],
    );
    expect(place(entries).at).toEqual([
      [0, "between"],
      [3000, "recorder"],
      [3000, "between"],
    ]);
  });
  test("a forgotten check-in added later stands where its distance says", () => {
    const entries = log(
      start,
      [null, { kind: "checkIn", distanceM: 9000 }],
      [null, { kind: "checkIn", distanceM: 4000 }],
    );
    expect(place(entries).at.map(([metres]) => metres)).toEqual([0, 4000, 9000]);
  });
});

describe("a start with a distance", () => {
  const at = (startM: number, ...distances: readonly number[]) =>
    place(
      log(
        [null, { kind: "start", distanceM: startM }],
        ...distances.map((distanceM) => [null, { kind: "checkIn", distanceM }] as [null, EntryBody]),
      ),
    ).at.map(([distanceM]) => distanceM);
  test("further on than all that follows is at nought: the whole mileage beside the trip", () =>
    expect(at(330_000, 19_000, 32_000)).toEqual([0, 19_000, 32_000]));
  test("stays where what follows goes on from it", () =>
    expect(at(330_000, 349_000, 362_000)).toEqual([330_000, 349_000, 362_000]));
  test("stays where it is alone", () => expect(at(500)).toEqual([500]));
});

describe("how sure the distance is", () => {
  test("a recorder by half a percent, an unchecked display by eight", () => {
    expect(place(log(start, [null, { kind: "checkIn", distanceM: 9000 }])).basis).toMatchObject({
      source: "recorder",
      relativeSd: 0.005,
    });
    expect(place(log(start, [null, { kind: "checkIn", displayM: 9000 }])).basis).toMatchObject({
      source: "display",
      relativeSd: 0.084,
    });
  });
  test("a track by half a percent", () => {
    expect(place(log([0, { kind: "start" }], [500, { kind: "checkIn" }]), steady).basis).toMatchObject({
      source: "track",
      relativeSd: 0.005,
    });
  });
});

describe("the display's factor", () => {
  test("comes from the intervals between check-ins that hold both", () => {
    const entries = log(
      start,
      ...[5000, 11_000, 16_000].map(
        (metres) => [null, { kind: "checkIn", distanceM: metres, displayM: metres * 1.08 }] as const,
      ),
    );
    expect(factorOf(entries, null, 2260)).toMatchObject({ warn: true });
    expect(factorOf(entries, null)!.k).toBeCloseTo(1 / 1.08, 9);
    expect(factorOf(entries, null, 2260)!.impliedCircumferenceMm).toBeCloseTo(2260 / 1.08, 6);
  });
  test("can come from a track and the display", () => {
    const entries = log(
      [0, { kind: "start" }],
      [300, { kind: "checkIn", displayM: 3300 }],
      [900, { kind: "checkIn", displayM: 9900 }],
    );
    expect(factorOf(entries, steady)!.k).toBeCloseTo(1 / 1.1, 9);
  });
  test("is unknown while no entry holds both", () => {
    expect(factorOf(log(start, [null, { kind: "checkIn", displayM: 3300 }]), null)).toBeNull();
  });
});

describe("a change without a distance", () => {
  const look = (miles: number): readonly [null, EntryBody] => [
    null,
    { kind: "checkIn", distanceM: miles * 1609.344, percent: 90 - miles },
  ];
  const placesOf = (...lines: readonly (readonly [number | null, EntryBody])[]) =>
    placeEntries(log(...lines), null, null).placed.map(({ entry, distanceM }) => [
      Math.round((distanceM / 1609.344) * 10) / 10,
      entry.body.kind === "checkIn" && "level" in entry.body ? entry.body.level : entry.body.kind,
    ]);
  const level = (name: string): readonly [null, EntryBody] => [null, { kind: "checkIn", level: name }];
  test("belongs to the place noted before it, and to the start", () => {
    expect(placesOf(start, level("5"), look(2.8), level("4"), look(12.4))).toEqual([
      [0, "start"],
      [0, "5"],
      [2.8, "checkIn"],
      [2.8, "4"],
      [12.4, "checkIn"],
    ]);
  });
  test("a stop and going on after it are both there; a ground beside a level too", () => {
    expect(
      placesOf(
        start,
        look(5),
        [null, { kind: "stop" }],
        [null, { kind: "go" }],
        [null, { kind: "checkIn", ground: "fine gravel" }],
        look(15),
      ).map(([miles]) => miles),
    ).toEqual([0, 5, 5, 5, 5, 15]);
  });
  test("a second of its kind was somewhere between; so was a look at the charge", () => {
    expect(placesOf(start, look(4), level("2"), level("3"), look(10)).map(([miles]) => miles)).toEqual([
      0, 4, 4, 8, 10,
    ]);
    expect(
      placesOf(start, look(4), [null, { kind: "checkIn", percent: 80 }], look(10)).map(([miles]) => miles),
    ).toEqual([0, 4, 7, 10]);
  });
  test("where the clock tells, it is there", () => {
    expect(
      placeEntries(
        log(
          [0, { kind: "start" }],
          [100, { kind: "checkIn", distanceM: 1000 }],
          [150, { kind: "checkIn", level: "4" }],
          [200, { kind: "checkIn", distanceM: 2000 }],
        ),
        null,
        null,
      ).placed.map(({ distanceM }) => distanceM),
    ).toEqual([0, 1000, 1500, 2000]);
  });
});
