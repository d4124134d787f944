import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { GROUNDS } from "#core/fields";
import { MPS_PER_MPH } from "#core/base";
import { conditionsFor, courseEnergy, normalise, REFERENCES, type CourseConditions } from "#core/bike";

const mph = (speed: number) => speed * MPS_PER_MPH;
const named = (name: string) => REFERENCES.find((each) => each.name === name)!;

describe("reference sets", () => {
  test.each([
    ["House", 13.29],
    ["Throttle flat", 20.858],
    ["Hill day", 19.199],
    ["Freezing commute", 16.302],
  ])("%s of a 26 kg bike takes %s Wh/mi", (name, wh) =>
    expect(courseEnergy(conditionsFor(named(name), 26))).toBeCloseTo(wh, 2),
  );
  test("on the throttle nobody pedals", () =>
    expect(
      courseEnergy(conditionsFor(named("House"), 34, true), { cdA: 0.63, crr: 0.012, etaM: 0.78 }),
    ).toBeCloseTo(23.049, 2));
});

const conditions: fc.Arbitrary<CourseConditions> = fc.record({
  massKg: fc.double({ min: 80, max: 200, noNaN: true }),
  speedMps: fc.double({ min: mph(8), max: mph(19), noNaN: true }),
  ground: fc.constantFrom(...GROUNDS.slice(0, 4)),
  headwindMps: fc.double({ min: -1, max: 5, noNaN: true }),
  gainMPerMi: fc.double({ min: 0, max: 40, noNaN: true }),
  stopsPerMi: fc.double({ min: 0, max: 4, noNaN: true }),
  tempC: fc.double({ min: -10, max: 35, noNaN: true }),
  altitudeM: fc.double({ min: 0, max: 1500, noNaN: true }),
  lightsOn: fc.boolean(),
  riderW: fc.double({ min: 0, max: 60, noNaN: true }),
});

describe("bringing a figure to a reference", () => {
  test("the bars of the bridge sum to what it adds", () =>
    fc.assert(
      fc.property(conditions, conditions, fc.double({ min: 6, max: 40, noNaN: true }), (from, to, wh) => {
        const found = normalise(wh, from, to);
        if (!found.ok) return;
        const sum = Object.values(found.value.bridge).reduce((total, bar) => total + bar, 0);
        expect(sum).toBeCloseTo(found.value.normalised - wh, 9);
      }),
      { numRuns: 60 },
    ));
  test("at the test's own conditions nothing changes", () =>
    fc.assert(
      fc.property(conditions, fc.double({ min: 6, max: 40, noNaN: true }), (own, wh) => {
        const found = normalise(wh, own, { ...own });
        if (!found.ok) return;
        expect(found.value).toMatchObject({ bridge: {}, beyond: [] });
        expect(found.value.normalised).toBeCloseTo(wh, 12);
      }),
    ));
  test("there and back again is the measured figure, and the bars turn their signs", () =>
    fc.assert(
      fc.property(conditions, conditions, (from, to) => {
        const there = normalise(15, from, to);
        if (!there.ok) return;
        const back = normalise(there.value.normalised, to, from);
        if (!back.ok) return;
        expect(back.value.normalised).toBeCloseTo(15, 9);
        for (const [name, bar] of Object.entries(there.value.bridge))
          expect(back.value.bridge[name as "mass"]).toBeCloseTo(-bar, 9);
      }),
      { numRuns: 60 },
    ));
  const house = conditionsFor(named("House"), 26);
  test("a factor that changes much is named as beyond what was tested", () => {
    const found = normalise(16, house, { ...house, gainMPerMi: 60, tempC: 10 });
    expect(found).toMatchObject({ ok: true, value: { beyond: ["climb"] } });
  });
  test("what is left out is taken as assumed on both sides", () => {
    const found = normalise(
      16,
      { massKg: 126, speedMps: mph(15) },
      { massKg: 126, speedMps: mph(15), tempC: 20 },
    );
    expect(found).toMatchObject({ ok: true, value: { bridge: {} } });
  });
  test("a speed the motor does not reach is refused, on either side", () => {
    const bike = { assistToMps: mph(15.5) };
    expect(normalise(16, { ...house, speedMps: mph(18) }, house, bike)).toMatchObject({
      problems: [{ code: "unassisted-test" }],
    });
    expect(normalise(16, house, { ...house, speedMps: mph(20) }, bike)).toMatchObject({
      problems: [{ code: "unassisted-reference" }],
    });
  });
});
