import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  checkEntry,
  entryBodySchema,
  entrySchema,
  foldLog,
  buildTimeline,
  type Entry,
  type EntryBody,
  type LiveEntry,
} from "#core/ride/log";
import { settingOf } from "#core/estimation";
import { profileOf } from "#core/ride/distance";

const id = (n: number) => `019a0000-0000-7000-8000-${n.toString(16).padStart(12, "0")}`;
const at = (minutes: number) => new Date(Date.UTC(2026, 9, 18, 9, minutes)).toISOString();
const line = (n: number, body: EntryBody, rest: Partial<Entry> = {}): Entry => ({
  id: id(n),
  seq: n,
  at: null,
  body,
  supersedes: null,
  ...rest,
});
const checkIn = (distanceM: number, percent: number, rest: object = {}): EntryBody => ({
  kind: "checkIn",
  distanceM,
  percent,
  ...rest,
});

const log: readonly Entry[] = [
  line(0, { kind: "start", distanceM: 0, percent: 100, chargerDone: true, level: "low", ground: "asphalt" }),
  line(1, checkIn(5000, 91)),
  line(2, checkIn(9000, 84, { level: "high" })),
  line(3, { kind: "strike", target: id(1), field: "percent" }),
  line(4, checkIn(9000, 82, { level: "high" }), { supersedes: id(2) }),
  line(5, { kind: "end", reason: "byChoice", distanceM: 14_000, percent: 70 }),
];

const setting = { knownFactor: null, meterStepV: 0.1, firstLevel: "low", firstGround: "asphalt" as const };
const lay = (entries: readonly Entry[]) =>
  buildTimeline([{ entries: foldLog(entries), track: null }], setting);

describe("folding the append-only log", () => {
  const live = foldLog(log);
  test("a correction stands at the place of what it corrects, which stays visible", () => {
    expect(live.find(({ rootId }) => rootId === id(2))).toMatchObject({
      id: id(4),
      seq: 2,
      body: { percent: 82 },
      was: [{ percent: 84 }],
    });
  });
  test("a struck reading stays, marked", () =>
    expect(live.find(({ rootId }) => rootId === id(1))).toMatchObject({
      struck: false,
      struckFields: ["percent"],
    }));
  test("a time is put right by its clock's offset; a correction without a time keeps it", () => {
    const wrong = line(1, checkIn(5000, 91), { at: at(10), clockOffsetS: 3600, device: "a1b2" });
    const corrected = line(2, checkIn(5200, 91), { supersedes: id(1) });
    const [found] = foldLog([wrong, corrected]);
    expect(found).toMatchObject({ timeS: Date.parse(at(70)) / 1000, device: "a1b2" });
    const retimed = line(3, checkIn(5200, 91), { supersedes: id(2), at: at(12) });
    expect(foldLog([wrong, corrected, retimed])[0]!.timeS).toBe(Date.parse(at(12)) / 1000);
  });
  test("restoring brings it back", () => {
    const restored = foldLog([...log, line(6, { kind: "restore", target: id(1), field: "percent" })]);
    expect(restored.find(({ rootId }) => rootId === id(1))!.struckFields).toEqual([]);
  });
  test("striking a correction strikes the entry it corrects", () => {
    const struck = foldLog([...log, line(6, { kind: "strike", target: id(4) })]);
    expect(struck.find(({ rootId }) => rootId === id(2))!.struck).toBe(true);
  });
  test("the order of arrival and repeated sends change nothing", () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray([...log], { minLength: log.length }),
        fc.array(fc.nat(log.length - 1)),
        (shuffled, repeats) => {
          expect(foldLog([...shuffled, ...repeats.map((i) => log[i]!)])).toEqual(live);
          expect(lay([...shuffled])).toEqual(lay(log));
        },
      ),
    );
  });
  test("a correction of a correction wins; a circle of them does not hang", () => {
    const twice = foldLog([...log, line(7, checkIn(9000, 81), { supersedes: id(4) })]);
    expect(twice.find(({ rootId }) => rootId === id(2))!.body).toMatchObject({ percent: 81 });
    expect(
      foldLog([line(1, checkIn(1, 1), { supersedes: id(2) }), line(2, checkIn(2, 2), { supersedes: id(1) })])
        .length,
    ).toBeGreaterThan(0);
  });
});

describe("marks and legs", () => {
  test("level and ground hold from the entry on", () => {
    expect(lay(log).legs.map(({ distanceM, level, ground }) => [distanceM, level, ground])).toEqual([
      [5000, "low", "asphalt"],
      [4000, "low", "asphalt"],
      [5000, "high", "asphalt"],
    ]);
  });
  test("readings name their mark, entry and field", () => {
    const readings = lay(log).readings.map(({ reading, field, struck }) => [
      reading.kind,
      "mark" in reading ? reading.mark : null,
      field,
      struck,
    ]);
    expect(readings).toEqual([
      ["fullStart", 0, null, false],
      ["percent", 0, "percent", false],
      ["percent", 1, "percent", true],
      ["percent", 2, "percent", false],
      ["percent", 3, "percent", false],
    ]);
  });
  test("entries at one place make one mark", () => {
    expect(lay([...log, line(6, { kind: "barLost", bar: 4, distanceM: 5000.4 })]).marks).toHaveLength(4);
  });
  test("volts under load without amps say nothing; with amps they are corrected", () => {
    const kinds = (rest: object) =>
      lay([
        line(0, { kind: "start", distanceM: 0 }),
        line(1, { kind: "checkIn", distanceM: 10, packVolts: 47, underLoad: true, ...rest } as EntryBody),
      ]).readings.map(({ reading }) => reading.kind);
    expect(kinds({})).toEqual([]);
    expect(kinds({ amps: 6 })).toEqual(["loadedVolts"]);
  });
  test("an entry without a distance lies between its neighbours by time", () => {
    const course = lay([
      line(0, { kind: "start", distanceM: 0 }, { at: at(0) }),
      line(1, { kind: "checkIn", percent: 95 }, { at: at(10) }),
      line(2, checkIn(8000, 80), { at: at(40) }),
    ]);
    expect(course.marks[1]).toMatchObject({ distanceM: 2000, source: "between" });
  });
  test("two rides on one charge run on, the second from its own zero", () => {
    const ride = (n: number) =>
      foldLog([line(n, { kind: "start", distanceM: 0 }), line(n + 1, checkIn(3000, 90))]);
    const course = buildTimeline(
      [
        { entries: ride(0), track: null },
        { entries: ride(10), track: null },
      ],
      setting,
    );
    expect(course.marks.map(({ distanceM, ride: of }) => [distanceM, of])).toEqual([[0, 0], [3000, 0], [3000, 1], [6000, 1]]); // prettier-ignore
    expect(course.legs.map(({ distanceM }) => distanceM)).toEqual([3000, 0, 3000]);
  });
  test("a display that reads 8 % more is found out and corrected where it stands alone", () => {
    const course = lay([
      line(0, { kind: "start", distanceM: 0, displayM: 0 }),
      line(1, { kind: "checkIn", distanceM: 5000, displayM: 5400 }),
      line(2, { kind: "checkIn", distanceM: 10_000, displayM: 10_800 }),
      line(3, { kind: "checkIn", displayM: 16_200 }),
    ]);
    expect(course.bases[0]!.factor).toMatchObject({ warn: true });
    expect(course.marks[3]).toMatchObject({ source: "display" });
    expect(course.marks[3]!.distanceM).toBeCloseTo(15_000, 3);
  });
  test("a track gives distance by time, and climb", () => {
    const minutes = Array.from({ length: 61 }, (_, i) => i);
    const track = profileOf({
      timeS: minutes.map((m) => Date.parse(at(0)) / 1000 + m * 10),
      lat: minutes.map(() => 0),
      lon: minutes.map((m) => m * 0.0005),
      eleM: minutes.map((m) => m * 2),
    });
    const course = buildTimeline(
      [
        {
          entries: foldLog([
            line(0, { kind: "start" }, { at: at(0) }),
            line(1, { kind: "checkIn", percent: 90 }, { at: at(5) }),
          ]),
          track,
        },
      ],
      setting,
    );
    expect(course.marks[1]!.source).toBe("track");
    expect(course.marks[1]!.distanceM).toBeCloseTo(30 * 0.0005 * 111_195, -1);
    expect(course.legs[0]!.gainM).toBeGreaterThan(50);
  });
});

describe("what an entry cannot be", () => {
  const bike = settingOf(
    {
      packs: { p: { chemistry: "NMC", labelWh: 612, seriesCells: 13 } },
      gauges: { g: { percentStep: 1, counts: "charge", bars: 5 } },
    },
    { pack: "p", gauge: "g" },
  );
  const now = Date.parse(at(0)) / 1000 + 86_400;
  const others = foldLog(log) as LiveEntry[];
  const check = (body: EntryBody, timeS: number | null = null) =>
    checkEntry(body, timeS, others, bike, now, "metric").map(({ code, path }) => `${code} at ${path}`);
  test("a good one passes", () => expect(check(checkIn(15_000, 66))).toEqual([]));
  test("a distance behind an earlier one", () =>
    expect(check(checkIn(8000, 66))).toContain("backward at distanceM"));
  test("volts impossible for the cells", () =>
    expect(check({ kind: "checkIn", distanceM: 15_000, packVolts: 12 })).toEqual([
      "volts-range at packVolts",
    ]));
  test("bars over the count", () =>
    expect(check({ kind: "checkIn", distanceM: 15_000, bars: 7 })).toEqual(["bars-range at bars"]));
  test("a time in the future", () =>
    expect(check(checkIn(15_000, 66), now + 7200)).toEqual(["future at time"]));
  test("an earlier time makes room for a forgotten check-in", () => {
    const timed = foldLog([
      line(0, { kind: "start", distanceM: 0 }, { at: at(0) }),
      line(1, checkIn(9000, 80), { at: at(40) }),
    ]);
    expect(checkEntry(checkIn(4000, 92), Date.parse(at(20)) / 1000, timed, bike, now, "metric")).toEqual([]);
    expect(
      checkEntry(checkIn(11_000, 92), Date.parse(at(20)) / 1000, timed, bike, now, "metric"),
    ).toHaveLength(1);
  });
  test("the whole conflict is named at once, with both ways out", () => {
    const noted = foldLog([20_000, 25_000, 30_000].map((metres, i) => line(90 + i, checkIn(metres, 60 - i))));
    const says = (metres: number, timeS: number | null, log: readonly LiveEntry[]) =>
      checkEntry(checkIn(metres, 50), timeS, log, bike, now, "metric").map(({ sentence }) => sentence);
    expect(says(22_000, null, noted)).toEqual([
      "22.0 km by recorder lies behind 30.0 km and 1 more noted before it: type 30.0 km or more, or give the time it was read at, if that was earlier.",
    ]);
    const timed = noted.map((each, i) => ({ ...each, timeS: 1000 * (i + 1) }));
    expect(says(35_000, 1500, timed)).toEqual([
      "35.0 km by recorder lies beyond 25.0 km and 1 more noted after it: type 25.0 km or less, or give another time.",
    ]);
    expect(says(25_000, 2500, timed)).toEqual([]);
  });
  test.each([
    [{ kind: "checkIn", distanceM: -3 }, "Distance cannot be negative: type the miles since the start."],
    [{ kind: "checkIn", percent: 101 }, "Percent runs from 0 to 100."],
    [{ kind: "checkIn", bars: 2.5 }, "Bars are whole: type 3, not 3.5."],
    [{ kind: "note", note: " " }, "Type the note."],
  ])("%j is refused by the schema", (body, sentence) => {
    const parsed = entryBodySchema.safeParse(body);
    expect(!parsed.success && parsed.error.issues[0]!.message).toBe(sentence);
  });
  test("an id that is no UUID is refused", () =>
    expect(entrySchema.safeParse({ ...line(0, checkIn(1, 1)), id: "7" }).success).toBe(false));
});
