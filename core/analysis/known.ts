import { DEFAULTS, scale, type Estimate } from "#core/base";
import { temperatureFactor, yearsBetween } from "#core/battery";
import type { LedgerInput } from "#core/estimation";
import type { Bike, HeldByPack, Known, PackRecord, ShownOfDisplay, TestRecord } from "#core/records";
import type { TestDigest } from "./digest.ts";

/** What several tests found of one thing, each by itself: the mean by their precisions. Null of none. */
export function weighedMean(values: readonly Estimate[]): Estimate | null {
  const precision = values.reduce((sum, { sd }) => sum + 1 / sd ** 2, 0);
  if (!(precision > 0) || !Number.isFinite(precision)) return null;
  return {
    mean: values.reduce((sum, { mean, sd }) => sum + mean / sd ** 2, 0) / precision,
    sd: 1 / Math.sqrt(precision),
  };
}

/** What adds less than this share to what was known before is noise of the arithmetic. */
const LEAST_ADDED = 0.05;

/**
 * What a test's readings by themselves say of something, given what was known before them and with them, as normals.
 *
 * @returns null where they add next to nothing
 * @example addedBy({ mean: 0, sd: 1 }, { mean: 1, sd: Math.SQRT1_2 }).mean.toFixed(6) === "2.000000"
 */
export function addedBy(before: Estimate, after: Estimate): Estimate | null {
  const [known, all] = [1 / before.sd ** 2, 1 / after.sd ** 2];
  const own = all - known;
  if (!(own > LEAST_ADDED * known)) return null;
  return { mean: (all * after.mean - known * before.mean) / own, sd: 1 / Math.sqrt(own) };
}

/** What a test by itself shows of its bike's display, to be kept with the bike. */
function shownBy(testId: string, { thresholds, odometer }: TestDigest): readonly ShownOfDisplay[] {
  return [
    ...(odometer ? [{ testId, point: DISPLAY, mean: odometer.k, sd: odometer.sd }] : []),
    ...thresholds.flatMap(({ point, own }) => (own ? [{ testId, point, mean: own.mean, sd: own.sd }] : [])),
  ];
}

/** What a test by itself measured of its pack, to be kept with the pack; null where it did not. */
function heldBy(testId: string, on: string, { packLearned }: TestDigest): HeldByPack | null {
  const { own, learned } = packLearned;
  return own && learned && own.mean > 0 ? { testId, on, wh: own.mean, sdWh: own.sd } : null;
}

const DISPLAY = "display";

/** The display's factor, and the points of the gauge, by all tests of the bike but one. */
function ofDisplay({ learned }: Pick<Bike, "learned">, testId: string) {
  const others = learned.filter((each) => each.testId !== testId);
  const points = [...new Set(others.map(({ point }) => point))].flatMap((point) => {
    const found = others.filter((each) => each.point === point);
    const mean = weighedMean(found);
    return mean ? [{ point, ...mean, tests: new Set(found.map((each) => each.testId)).size }] : [];
  });
  const display = points.find(({ point }) => point === DISPLAY);
  return {
    factor: display ? { k: display.mean, sd: display.sd, tests: display.tests } : null,
    points: points.filter(({ point }) => point !== DISPLAY),
  };
}

/**
 * What the pack gives on a ride by the surest of its other tests, aged to the day: not the mean of several, for they share a meter whose
 * gain counts once.
 */
function ofPack({ learned }: Pick<PackRecord, "learned">, testId: string, day: string): Known["capacity"] {
  const others = learned.filter((each) => each.testId !== testId);
  const aged = others.map(({ on, wh, sdWh }): Estimate => {
    const lost = DEFAULTS.fadePerYear * yearsBetween(on, day);
    const mean = wh * (1 - lost);
    return { mean, sd: Math.hypot(sdWh, DEFAULTS.energyGainSd * mean, DEFAULTS.fadeSdShare * lost * mean) };
  });
  const surest = aged.reduce<Estimate | null>(
    (best, each) => (best && best.sd <= each.sd ? best : each),
    null,
  );
  return surest && { ...surest, tests: 1 };
}

/**
 * What the other tests of a bike and a pack showed, for the ledger of one test.
 *
 * @param testId of the test, which counts not for itself; @param day ISO, of the test
 */
export function knownFor(
  bike: Pick<Bike, "learned">,
  pack: Pick<PackRecord, "learned">,
  { testId, day }: { readonly testId: string; readonly day: string },
): { readonly knownFactor: TestRecord["knownFactor"]; readonly known: Known | null } {
  const { factor, points } = ofDisplay(bike, testId);
  const capacity = ofPack(pack, testId, day);
  return { knownFactor: factor, known: points.length || capacity ? { points, capacity } : null };
}

/** What is known of gauge and pack, for the ledger: the pack as warm or cold as it was. Two packs at once are not known as one. */
export function ledgerKnown(
  { known, pack, secondPack, test }: TestRecord,
  name: string,
): NonNullable<LedgerInput["known"]> {
  if (!known) return [];
  const warmth = warmthOf({ pack, test });
  const points = known.points.map(({ point, mean, sd }) => ({ of: "gauge", name, point, mean, sd }) as const);
  if (!known.capacity || secondPack) return points;
  const { mean, sd } = scale(known.capacity, warmth);
  const cold = DEFAULTS.coldSdShare * (1 - Math.min(1, warmth)) * known.capacity.mean;
  return [...points, { of: "pack", name, point: "", mean, sd: Math.hypot(sd, cold) }];
}

/** Energy of a pack on a test over its energy at 25 C. */
export const warmthOf = ({ pack, test }: Pick<TestRecord, "pack" | "test">): number =>
  temperatureFactor(pack.chemistry, test.packTempC ?? test.airTempC ?? DEFAULTS.packTempC);

/** "; known besides: the pack by one other test, the gauge by 3 other tests". */
export function knownWords(known: Known | null): string {
  if (!known) return "";
  const { capacity, points } = known;
  const tests = (count: number) => (count === 1 ? "one other test" : `${count} other tests`);
  const gauge = points.length ? `the gauge by ${tests(Math.max(...points.map((each) => each.tests)))}` : "";
  const pack = capacity ? `the pack by ${tests(capacity.tests)}` : "";
  return `; known besides: ${[pack, gauge].filter(Boolean).join(", ")}`;
}

/** What all tests of a bike showed by themselves: of its display, and of its packs by their ids. */
export interface LearnedOfTests {
  readonly display: readonly ShownOfDisplay[];
  readonly packs: ReadonlyMap<string, readonly HeldByPack[]>;
}

/** One test of a bike with what is known of it. */
interface TestOfBike {
  readonly id: string;
  readonly day: string;
  readonly packId: string;
  readonly secondPackId: string | null;
  readonly digest: TestDigest;
}

/** What the tests of a bike showed; of two packs ridden at once nothing is known of either. */
export function learnedOf(tests: readonly TestOfBike[]): LearnedOfTests {
  const packs = new Map<string, HeldByPack[]>();
  for (const { id, day, packId, secondPackId, digest } of tests) {
    const held = secondPackId === null ? heldBy(id, day, digest) : null;
    if (held) packs.set(packId, [...(packs.get(packId) ?? []), held]);
  }
  return { display: tests.flatMap(({ id, digest }) => shownBy(id, digest)), packs };
}

/** A figure that moved by less than this of its sd is the same: what is taken over moves it a little itself. */
const SAME_WITHIN = 0.3;
const same = (a: Estimate, b: Estimate) =>
  Math.abs(a.mean - b.mean) < SAME_WITHIN * a.sd && Math.abs(Math.log(a.sd / b.sd)) < SAME_WITHIN;

/** Whether what was taken over of a bike's tests is still what they show. */
export function stillShown({ display, packs }: LearnedOfTests, taken: LearnedOfTests): boolean {
  const points = (all: readonly ShownOfDisplay[]) =>
    new Map(all.map((each) => [`${each.testId}/${each.point}`, each as Estimate]));
  const held = (all: LearnedOfTests["packs"]) =>
    new Map(
      [...all].flatMap(([pack, tests]) =>
        tests.map(({ testId, wh, sdWh }): [string, Estimate] => [
          `${pack}/${testId}`,
          { mean: wh, sd: sdWh },
        ]),
      ),
    );
  const agree = (a: ReadonlyMap<string, Estimate>, b: ReadonlyMap<string, Estimate>) =>
    a.size === b.size &&
    [...a].every(([key, value]) => {
      const other = b.get(key);
      return other !== undefined && same(value, other);
    });
  return agree(points(display), points(taken.display)) && agree(held(packs), held(taken.packs));
}
