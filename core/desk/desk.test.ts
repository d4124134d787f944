import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { inverse, Matrix, solve } from "ml-matrix";
import { byDifferences, deskPosterior, type DeskDay, type SharedUnknown } from "./index.ts";

/** A made-up day: smooth in all its unknowns, some shared with its bike, some with everybody who rides. */
interface MadeUp {
  readonly bike: number;
  readonly rider: number;
  readonly slopes: readonly number[];
  readonly measured: readonly number[];
}

const small = fc.double({ min: -1.5, max: 1.5, noNaN: true });
const day: fc.Arbitrary<MadeUp> = fc.record({
  bike: fc.integer({ min: 0, max: 3 }),
  rider: fc.integer({ min: 0, max: 2 }),
  slopes: fc.array(small, { minLength: 8, maxLength: 8 }),
  measured: fc.array(fc.double({ min: 8, max: 14, noNaN: true }), { minLength: 1, maxLength: 3 }),
});
const desk = fc.array(day, { minLength: 1, maxLength: 9 });
const SD = 0.6;

const ofBike = (bike: number): readonly SharedUnknown[] => [
  { key: `rolling:${bike}`, kind: "rolling" },
  { key: `drag:${bike}`, kind: "drag" },
  { key: `capacity:${bike}`, kind: "capacity" },
];

function dayOf({ bike, rider, slopes, measured }: MadeUp, i: number): DeskDay {
  const predict = (shared: readonly number[], own: readonly number[]) =>
    measured.map((_, k) => {
      const along = [...shared, ...own].reduce((sum, z, j) => sum + slopes[(j + 3 * k) % 8]! * z, 0);
      return 11 * Math.exp(along / 20) + 0.1 * k;
    });
  return {
    id: String(i),
    home: String(bike),
    shared: [...ofBike(bike), { key: `habit:${rider}`, kind: "habit" }],
    own: ["wind", "day"],
    measured: measured.map((mean) => ({ mean, sd: SD })),
    linearise: byDifferences(predict),
  };
}

/** The same by one dense system over every unknown of every day, with no elimination at all. */
function dense(days: readonly DeskDay[]) {
  const keys = [...new Set(days.flatMap(({ shared }) => shared.map(({ key }) => key)))];
  const n = keys.length + days.reduce((sum, { own }) => sum + own.length, 0);
  const offsets = days.map(
    (_, t) => keys.length + days.slice(0, t).reduce((sum, { own }) => sum + own.length, 0),
  );
  let at = new Array<number>(n).fill(0);
  let information = Matrix.eye(n);
  for (let pass = 0; pass < 60; pass += 1) {
    information = Matrix.eye(n);
    const right = Matrix.zeros(n, 1);
    days.forEach(({ shared, own, measured, linearise }, t) => {
      const places = [...shared.map(({ key }) => keys.indexOf(key)), ...own.map((_, k) => offsets[t]! + k)];
      const z = places.map((place) => at[place]!);
      const { value, byShared, byOwn } = linearise(z.slice(0, shared.length), z.slice(shared.length));
      measured.forEach(({ mean, sd }, i) => {
        const row = [...byShared[i]!, ...byOwn[i]!];
        const aim = mean - value[i]! + row.reduce((sum, slope, k) => sum + slope * z[k]!, 0);
        places.forEach((place, k) => {
          right.set(place, 0, right.get(place, 0) + (row[k]! * aim) / sd ** 2);
          places.forEach((other, l) =>
            information.set(place, other, information.get(place, other) + (row[k]! * row[l]!) / sd ** 2),
          );
        });
      });
    });
    at = solve(information, right).to1DArray();
  }
  const covariance = inverse(information);
  return {
    valueOf: (key: string) => at[keys.indexOf(key)]!,
    covarianceOf: (a: string, b: string) => covariance.get(keys.indexOf(a), keys.indexOf(b)),
  };
}

describe("a desk solved bike by bike", () => {
  test("agrees with one dense system over every unknown", () =>
    fc.assert(
      fc.property(desk, (madeUp) => {
        const days = madeUp.map(dayOf);
        const posterior = deskPosterior(days, { learnSpreads: false, robust: false });
        const whole = dense(days);
        for (const { bike, rider } of madeUp) {
          const unknowns = [...ofBike(bike), { key: `habit:${rider}`, kind: "habit" as const }];
          const covariance = posterior.covarianceOf(unknowns);
          unknowns.forEach(({ key }, i) => {
            expect(posterior.valueOf(key)).toBeCloseTo(whole.valueOf(key), 6);
            unknowns.forEach((other, j) =>
              expect(covariance[i]![j]!).toBeCloseTo(whole.covarianceOf(key, other.key), 6),
            );
          });
        }
      }),
      { numRuns: 40 },
    ));
  test("two bikes share what their riders share, by the same dense system", () =>
    fc.assert(
      fc.property(desk, (madeUp) => {
        const days = madeUp.map(dayOf);
        const [first, last] = [madeUp[0]!, madeUp.at(-1)!];
        const posterior = deskPosterior(days, { learnSpreads: false, robust: false });
        const [a, b] = [first, last].map(
          ({ bike }) => posterior.figure([ofBike(bike)[0]!], ([z]) => z!).effects,
        );
        const together = Object.keys(a!).reduce((sum, key) => sum + a![key]! * (b![key] ?? 0), 0);
        const wanted = dense(days).covarianceOf(`rolling:${first.bike}`, `rolling:${last.bike}`);
        expect(together).toBeCloseTo(wanted, 6);
      }),
      { numRuns: 25 },
    ));
  test("a desk changed by one day and solved from where it stood is the same desk", () =>
    fc.assert(
      fc.property(desk, day, (madeUp, more) => {
        const days = madeUp.map(dayOf);
        const added = [...days, dayOf(more, days.length)];
        const options = { learnSpreads: false, robust: false };
        const anew = deskPosterior(added, options);
        const warm = deskPosterior(added, options, deskPosterior(days, options));
        for (const { key } of ofBike(more.bike)) expect(warm.valueOf(key)).toBeCloseTo(anew.valueOf(key), 6);
      }),
      { numRuns: 25 },
    ));
});

describe("a desk as it is used", () => {
  const even = (bike: number, measured: number, i: number) =>
    dayOf({ bike, rider: 0, slopes: [4, 0, 0, 0, 0, 1, 0, 0], measured: [measured] }, i);
  test("bikes that scatter more than assumed widen what is believed of all", () => {
    const alike = Array.from({ length: 12 }, (_, i) => even(i, 11, i));
    const apart = Array.from({ length: 12 }, (_, i) => even(i, i % 2 ? 4 : 26, i));
    const spread = (days: readonly DeskDay[]) => deskPosterior(days).spreads.rolling;
    expect(spread(apart)).toBeGreaterThan(1.5 * spread(alike));
  });
  test("one odd day is widened, and moves the rest little", () => {
    const steady = Array.from({ length: 8 }, (_, i) => even(0, 11 + 0.2 * Math.sin(i), i));
    const odd = even(0, 40, 99);
    const desk = deskPosterior([...steady, odd]);
    expect(desk.days.at(-1)!.widened).toBeGreaterThan(2);
    const without = deskPosterior(steady).valueOf("rolling:0");
    expect(Math.abs(desk.valueOf("rolling:0") - without)).toBeLessThan(0.5);
  });
  test("without any day every unknown is as assumed", () => {
    const posterior = deskPosterior([], { learnSpreads: false, robust: false });
    const { mean, effects } = posterior.figure(ofBike(0), (z) => z.reduce((sum, each) => sum + each, 5));
    expect(mean).toBe(5);
    expect(Math.hypot(...Object.values(effects))).toBeCloseTo(Math.sqrt(3), 9);
  });
});
