import { describe, expect, test } from "@jest/globals";
import { foldLog, buildTimeline, type Entry, type EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const entriesOf = (bodies: readonly (EntryBody | readonly [number, EntryBody])[]): Entry[] =>
  bodies.map((each, seq) => {
    const [minute, body] = Array.isArray(each)
      ? (each as readonly [number, EntryBody])
      : [null, each as EntryBody];
    const at = minute === null ? null : new Date(Date.UTC(2026, 9, 18, 9, minute)).toISOString();
    return {
      id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
      seq,
      at,
      body,
      supersedes: null,
    };
  });
const lay = (bodies: Parameters<typeof entriesOf>[0]) =>
  buildTimeline([{ entries: foldLog(entriesOf(bodies)), track: null }], {
    knownFactor: null,
    meterStepV: 0.1,
    firstLevel: "low",
    firstGround: "asphalt",
  });
const start: EntryBody = { kind: "start", distanceM: 0, chargerDone: true };
const look = (distanceM: number | undefined, more: object = {}): EntryBody => ({
  kind: "checkIn",
  ...(distanceM === undefined ? {} : { distanceM }),
  ...more,
});
const placesOf = (bodies: Parameters<typeof entriesOf>[0]) =>
  lay(bodies).marks.map(({ distanceM }) => Number((distanceM / METRES_PER_MILE).toFixed(2)));

describe("a look without a distance", () => {
  test("lies by its time between its neighbours", () => {
    const course = lay([
      [0, start],
      [15, look(undefined, { percent: 93 })],
      [60, look(mi(12), { percent: 75 })],
    ]);
    expect(course.marks[1]!.distanceM).toBeCloseTo(mi(3), 6);
    expect(course.readings.find(({ reading }) => reading.kind === "percent")!.reading).toMatchObject({
      placeSdM: expect.closeTo(mi(1.2), 6),
    });
  });
  test("without a time lies anywhere between them, several of them evenly", () => {
    expect(placesOf([start, look(undefined, { percent: 90 }), look(mi(12))])).toEqual([0, 6, 12]);
    expect(
      placesOf([start, look(undefined, { percent: 90 }), look(undefined, { percent: 80 }), look(mi(12))]),
    ).toEqual([0, 4, 8, 12]);
  });
  test("after the last distance stays where the ride was, and one that has a distance has no such doubt", () => {
    const course = lay([start, look(mi(9), { percent: 70 }), look(undefined, { percent: 69 })]);
    expect(course.marks.at(-1)!.distanceM).toBeCloseTo(mi(9), 6);
    const [first] = course.readings.filter(({ reading }) => reading.kind === "percent");
    expect(first!.reading).not.toHaveProperty("placeSdM");
  });
});

describe("climb typed on the way", () => {
  const gains = (bodies: Parameters<typeof entriesOf>[0]) => lay(bodies).legs.map(({ gainM, lossM }) => [gainM, lossM].map(Math.round)); // prettier-ignore
  test("is what was climbed so far: each leg has its own, and comes down again", () =>
    expect(gains([start, look(mi(4), { climbM: 80 }), look(mi(10), { climbM: 300 })])).toEqual([
      [80, 80],
      [220, 220],
    ]));
  test("is spread by distance over looks that noted none", () =>
    expect(gains([start, look(mi(5)), look(mi(10), { climbM: 200 }), look(mi(15))])).toEqual([
      [100, 100],
      [100, 100],
      [0, 0],
    ]));
  test("a total that falls is left out", () =>
    expect(gains([start, look(mi(5), { climbM: 200 }), look(mi(10), { climbM: 20 })])).toEqual([
      [200, 200],
      [0, 0],
    ]));
});

describe("the end", () => {
  const said = (reason: "cutOff" | "cannotHoldSpeed" | "gaugeZero" | "lowPower" | "byChoice") =>
    lay([start, { kind: "end", reason, distanceM: mi(30) }]).readings.map(({ reading }) => reading.kind);
  test("is evidence where the pack is nearly or wholly empty, and none when stopped by choice", () => {
    expect(said("cutOff")).toContain("cutOff");
    expect(said("cannotHoldSpeed")).toContain("crawl");
    expect(said("gaugeZero")).toContain("gaugeZero");
    expect(said("byChoice")).toEqual(["fullStart"]);
    expect(said("lowPower")).toEqual(["fullStart"]);
  });
});
