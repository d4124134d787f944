import { describe, expect, test } from "@jest/globals";
import { auditClaim, auditGuesses, fadeOnset, runningCost } from "#core/analysis/projection";
import { MPS_PER_MPH } from "#core/base";
import { conditionsFor, courseEnergy, REFERENCES } from "#core/bike";

const house = conditionsFor(REFERENCES[0]!, 26);
const audit = (claimMi: number, rest: { bike?: object; lambda?: number } = {}) => {
  const found = auditClaim(612, claimMi, 14.2, house, rest.bike, rest.lambda);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};

describe("what a claim needs", () => {
  test("the rider's power meets it, and so does the speed", () => {
    const { impliedWhPerMi, riderW, speedMph } = audit(65);
    expect(courseEnergy({ ...house, riderW: riderW! })).toBeCloseTo(impliedWhPerMi, 6);
    expect(courseEnergy({ ...house, speedMps: speedMph! * MPS_PER_MPH })).toBeCloseTo(impliedWhPerMi, 6);
  });
  test("one that holds without pedalling needs nothing of the rider", () =>
    expect(audit(20)).toMatchObject({ riderW: 0, ratio: expect.closeTo(14.2 / 30.6, 6) }));
  test("one that no rider meets says so", () =>
    expect(audit(65, { lambda: 40 })).toMatchObject({ riderW: null, speedMph: null }));
  test("a bike that takes more than its road load needs more of the rider, and less speed", () => {
    const [plain, thirsty] = [audit(65), audit(65, { lambda: 1.1 })];
    expect(thirsty.riderW!).toBeGreaterThan(plain.riderW!);
    expect(thirsty.speedMph!).toBeLessThan(plain.speedMph!);
  });
  test("above the speed where the motor rests nothing counts as frugal", () => {
    const bike = { assistToMps: 15.5 * MPS_PER_MPH };
    expect(audit(65, { bike }).speedMph).toBeCloseTo(audit(65).speedMph!, 6);
    expect(audit(20, { bike }).speedMph).toBeLessThanOrEqual(15.5);
  });
});

describe("the onset of fade", () => {
  const miles = Array.from({ length: 12 }, (_, i) => 2 * i);
  const fade = (held: readonly number[]) => {
    const found = fadeOnset(miles, held, 0.1);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  };
  test("is found where the line bends, between readings too", () => {
    const found = fade(miles.map((mile) => 20 - 0.5 * Math.max(0, mile - 13)));
    expect(found.onset).toBeCloseTo(13, 6);
    expect(found).toMatchObject({ accepted: true, slopeAfter: expect.closeTo(-0.5, 6) });
  });
  test("is not seen in a steady speed, nor in a steady fall", () => {
    expect(fade(miles.map((_, i) => 20 + (i % 2 ? 0.04 : -0.04))).accepted).toBe(false);
    expect(fade(miles.map((mile) => 20 - 0.1 * mile)).accepted).toBe(false);
  });
  test("is never a bend upward", () =>
    expect(fade(miles.map((mile) => 18 + 0.5 * Math.max(0, mile - 12))).accepted).toBe(false));
  test("does not depend on the unit of distance", () => {
    const held = miles.map((mile) => 20 - 0.4 * Math.max(0, mile - 11) + 0.1 * Math.sin(mile));
    const inKm = fadeOnset(
      miles.map((mile) => mile * 1.609344),
      held,
      0.1,
    );
    expect(inKm.ok && inKm.value.onset / 1.609344).toBeCloseTo(fade(held).onset, 6);
    expect(inKm.ok && inKm.value.bicDrop).toBeCloseTo(fade(held).bicDrop, 6);
  });
  test.each([
    ["too few", [0, 1, 2], [20, 20, 20], "too-few"],
    ["not as many", miles, [20], "lengths"],
    ["not rising", [0, 1, 2, 2, 3, 4], [1, 1, 1, 1, 1, 1], "not-rising"],
  ])("%s are refused", (_what, distances, held, code) =>
    expect(fadeOnset(distances, held, 0.1)).toMatchObject({ problems: [{ code }] }),
  );
});

describe("the display's own guesses", () => {
  const seen = [
    { distanceM: 5, guessM: 20 },
    { distanceM: 15, guessM: 12 },
  ];
  test("are off by their bias, and worst somewhere", () => {
    const audit = auditGuesses(seen, { mean: 24, sd: 1 });
    expect(audit).toMatchObject({ ok: true, value: { biasM: 2, worst: { distanceM: 15, offM: 3 } } });
  });
  test("a guess that falls as the miles do is never off", () => {
    const exact = [0, 5, 10, 20].map((distanceM) => ({ distanceM, guessM: 24 - distanceM }));
    const audit = auditGuesses(exact, { mean: 24, sd: 0 });
    expect(audit.ok && audit.value.guesses.every(({ offM }) => offM === 0)).toBe(true);
  });
  test("none noted says what to type", () =>
    expect(auditGuesses([], { mean: 24, sd: 1 })).toMatchObject({ problems: [{ code: "no-guesses" }] }));
});

describe("what the current costs", () => {
  test("energy over the charger's efficiency, by the tariff, with the doubt of both", () => {
    const cost = runningCost({ mean: 14, sd: 0.7 }, 30, { mean: 0.86, sd: 0.0172 });
    expect(cost.mean).toBeCloseTo((14 / 0.86) * 0.03, 9);
    expect(cost.sd / cost.mean).toBeCloseTo(Math.hypot(0.05, 0.02), 9);
  });
});
