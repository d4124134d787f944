import { describe, expect, test } from "@jest/globals";
import type { EntryBody } from "./entry.ts";
import { foldLog } from "./fold.ts";
import { unnotedCharges } from "./unnoted.ts";
import { analyseTest } from "#core/analysis";
import { METRES_PER_MILE } from "#core/base";
import { KINDS, type KindName } from "#core/world";
import { worldTest } from "#tests/world";

const entriesOf = (bodies: readonly EntryBody[]) =>
  foldLog(
    bodies.map((body, seq) => ({
      ...{ id: `019a0000-0000-7000-8000-${String(seq).padStart(12, "0")}`, seq, at: null, supersedes: null },
      body,
    })),
  );
const percents = (...values: readonly number[]): EntryBody[] =>
  values.map((percent) => ({ kind: "checkIn", percent }));
const charged = (...rides: readonly (readonly EntryBody[])[]) =>
  unnotedCharges(
    rides.map((bodies) => entriesOf(bodies).map((entry) => [entry])),
    (group) => group.some(({ body }) => body.kind === "refill"),
  ).map((places) => [...places]);

describe("a charge that nobody noted", () => {
  test("lies before a later ride that begins full, or with far more than the one before ended with", () => {
    expect(charged(percents(100, 70, 40), [{ kind: "start", chargerDone: true }, ...percents(80)])).toEqual([
      [],
      [0],
    ]);
    expect(charged(percents(100, 70, 40), percents(95, 80))).toEqual([[], [0]]);
    expect(charged(percents(100, 70, 40), percents(43, 30))).toEqual([[], []]);
  });
  test("lies on the way where the gauge rises and stays", () => {
    expect(charged(percents(100, 60, 40, 85, 70))).toEqual([[3]]);
    expect(charged([5, 3, 2, 5, 4].map((bars) => ({ kind: "checkIn", bars })))).toEqual([[3]]);
  });
  test("is none where one look is a slip, up or down, or a rest gave some back", () => {
    expect(charged(percents(100, 80, 60, 95, 50))).toEqual([[]]);
    expect(charged(percents(100, 80, 35, 61, 50))).toEqual([[]]);
    expect(charged(percents(100, 60, 20, 29, 22))).toEqual([[]]);
    expect(charged(percents(100, 60, 40, 85))).toEqual([[]]);
  });
  test("is none where it was noted", () =>
    expect(charged([...percents(100, 40), { kind: "refill", toFull: true }, ...percents(100, 80)])).toEqual([
      [],
    ]));
  test("is found in no honest log of the world", () => {
    for (const kind of Object.keys(KINDS) as KindName[]) {
      const found = analyseTest(worldTest(1, kind).record);
      const notices = found.ok ? found.value.notices.filter((each) => each.includes("was noted")) : [];
      expect([kind, notices]).toEqual([kind, []]);
    }
  });
  test("does not make the figure a third of what it is", () => {
    const { record, truth } = worldTest(3, "part charge");
    const [ride] = record.rides;
    const again = ride!.entries.map((entry, i) => ({
      ...entry,
      ...{ id: `019b0000-0000-7000-8000-${String(i).padStart(12, "0")}` },
      at: entry.at && new Date(Date.parse(entry.at) + 86_400_000).toISOString(),
    }));
    const whPerMi = (entries: typeof again) => {
      const twice = { ...record, rides: [ride!, { ...ride!, name: "day 2", entries }] };
      const found = analyseTest(twice);
      if (!found.ok) throw new Error("no figure");
      return { ...found.value, value: found.value.best.value.mean * METRES_PER_MILE };
    };
    const found = whPerMi(again);
    expect(Math.abs(found.value / truth.whPerMi - 1)).toBeLessThan(0.15);
    expect(found.flags).toEqual([]);
    expect(found.notices.join(" ")).toContain("taken as charged in between, or as another pack");
  });
});
