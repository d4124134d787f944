import { describe, expect, test } from "@jest/globals";
import { foldLog, type Entry, type EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { bikeSchema } from "#core/records";
import { entryText, hasLine, heldIn, stateOf } from "./state";

const bike = bikeSchema.parse({ name: "Reed", levels: ["low", "high"], bars: 5, throttle: true });
const setting = { levels: bike.levels, throttle: true };
const first = { level: "low", ground: "asphalt" };
let seq = 0;
const line = (body: EntryBody): Entry => ({
  id: `019a0000-0000-7000-8000-${(seq + 1).toString(16).padStart(12, "0")}`,
  seq: seq++,
  at: null,
  body,
  supersedes: null,
});
const state = (...bodies: readonly EntryBody[]) =>
  stateOf(foldLog(bodies.map(line)), bike, first, "imperial");

describe("where a ride's log stands", () => {
  test("before the start nothing is known but what the test says", () =>
    expect(state()).toMatchObject({ started: false, level: "low", ground: "asphalt", nextBar: 5, last: {} }));
  test("level and ground hold from the entry that named them", () =>
    expect(
      state({ kind: "start" }, { kind: "checkIn", level: "throttle" }, { kind: "checkIn", ground: "brick" }),
    ).toMatchObject({ started: true, level: "throttle", ground: "brick" }));
  test("the next bar counts those lost", () =>
    expect(state({ kind: "start" }, { kind: "barLost", bar: 5 }, { kind: "barLost", bar: 4 }).nextBar).toBe(
      3,
    ));
  test("standing until riding on", () => {
    expect(state({ kind: "stop" }).standing).toBe(true);
    expect(state({ kind: "stop" }, { kind: "go" }).standing).toBe(false);
  });
  test("last values are offered as they were typed", () =>
    expect(
      state(
        { kind: "checkIn", distanceM: 12.4 * METRES_PER_MILE, percent: 61 },
        { kind: "checkIn", percent: 58 },
      ).last,
    ).toEqual({ distanceM: "12.4", percent: "58" }));
  test("what is struck no longer counts", () => {
    const lost = line({ kind: "barLost", bar: 5 });
    const log = [lost, line({ kind: "strike", target: lost.id })];
    expect(stateOf(foldLog(log), bike, first, "imperial").nextBar).toBe(5);
  });
  test("an end ends it; newest stand first", () => {
    const found = state({ kind: "start" }, { kind: "end", reason: "byChoice" });
    expect(found.ended).toBe(true);
    expect(found.newest[0]!.body.kind).toBe("end");
    expect(entryText(found.newest[0]!, setting, "imperial")).toBe("end: stopped by choice");
  });
  test("an end shows its figures, and is corrected through the line where it has words for it", () => {
    const [end, start] = state(
      { kind: "start", percent: 100 },
      { kind: "end", reason: "cutOff", distanceM: 20 * METRES_PER_MILE, percent: 0 },
    ).newest;
    expect(entryText(end!, setting, "imperial")).toBe("end: the pack cut off 20mi 0%");
    expect(hasLine(end!, setting, "imperial")).toBe(true);
    const held = { ...end!, body: { kind: "end", reason: "lowPower" } as const };
    expect(hasLine(held, setting, "imperial")).toBe(true);
    expect(hasLine(start!, setting, "imperial")).toBe(true);
  });
  test("ticks of the held list are read off the log's notes, struck ones not", () => {
    const tick = line({ kind: "note", note: "Held: Load" });
    const log = [
      tick,
      line({ kind: "note", note: "Held: Speed" }),
      line({ kind: "strike", target: tick.id }),
    ];
    expect([...heldIn(foldLog(log))]).toEqual(["Speed"]);
  });
});
