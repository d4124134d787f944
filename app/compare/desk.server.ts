import { derivedOf, digestsOf } from "#app/reckoning.server";
import { ASSUMED } from "#core/assumptions";
import {
  climbFigures,
  climbRow,
  fittedBike,
  sweepRows,
  steadyRows,
  sweepSpots,
  type Compared,
  type FittedBike,
} from "#core/compare";
import type { RiddenTest } from "#core/plan";
import { roadOf } from "#core/plan";
import type { Bike, PackRecord, Rider, SetUp } from "#core/records";
import type { TestDigest } from "#core/results";
import { fitRoad, type RoadFit } from "#core/roadload";
import { listBikes, listPacks, listRiders, listSetUps, type Kept, type OfBike } from "#db/bikes";
import type { Database } from "#db/client";
import { listClimbs, listSweeps } from "#db/field";
import { listTests, type TestLine } from "#db/tests";

/** Everything comparisons choose from, by id. */
export interface Shelf {
  readonly bikes: ReadonlyMap<string, Kept<Bike>>;
  readonly packs: ReadonlyMap<string, OfBike<PackRecord>>;
  readonly setUps: ReadonlyMap<string, OfBike<SetUp>>;
  readonly riders: ReadonlyMap<string, Kept<Rider>>;
}

/** A test ready to be compared. */
export interface ComparedTest {
  readonly line: TestLine;
  readonly digest: TestDigest;
  readonly compared: Compared;
  readonly pack: PackRecord;
}

const byId = <T extends { readonly id: string }>(all: readonly T[]) =>
  new Map(all.map((each) => [each.id, each]));

export async function shelfOf(db: Database): Promise<Shelf> {
  const all = { archived: true };
  const [bikes, packs, setUps, riders] = await Promise.all([
    listBikes(db, all),
    listPacks(db, undefined, all),
    listSetUps(db, undefined, all),
    listRiders(db, all),
  ]);
  return { bikes: byId(bikes), packs: byId(packs), setUps: byId(setUps), riders: byId(riders) };
}

/** Who rode what, of anything that links to them. */
export function ridingOf(
  { bikes, setUps, riders }: Shelf,
  links: { readonly bikeId: string; readonly setUpId: string | null; readonly riderId: string | null },
) {
  const bike = bikes.get(links.bikeId);
  return (
    bike && {
      bike,
      setUp: (links.setUpId && setUps.get(links.setUpId)) || null,
      rider: (links.riderId && riders.get(links.riderId)) || null,
    }
  );
}

/** The road load of each bike that has sweeps, climbs or a logger's tests of its own, fitted to all of them. */
export async function fitsOf(
  db: Database,
  shelf: Shelf,
  logged: readonly { readonly line: TestLine; readonly digest: TestDigest }[],
): Promise<ReadonlyMap<string, RoadFit>> {
  const [sweeps, climbs] = await Promise.all([listSweeps(db), listClimbs(db)]);
  const bikeIds = [
    ...new Set([...sweeps, ...climbs, ...logged.map(({ line }) => line)].map(({ bikeId }) => bikeId)),
  ];
  const fits = await Promise.all(
    bikeIds.map(async (bikeId) => {
      const own = <T extends { readonly bikeId: string }>(all: readonly T[]) =>
        all.filter((each) => each.bikeId === bikeId);
      const from = [...own(sweeps), ...own(climbs)].map((line) => {
        const riding = ridingOf(shelf, line);
        return [line.id, line.stamp, riding, shelf.packs.get(line.packId)];
      });
      const loggers = logged.filter(({ line }) => line.bikeId === bikeId);
      const tests = loggers.map(({ line }) => [line.id, line.stamp]);
      const fit = await derivedOf(db, "fit", [from, tests], () => {
        const rows = [
          ...own(sweeps).flatMap((line) => {
            const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
            return riding && pack ? sweepRows(line.body, riding, sweepSpots(line.body, pack).spots) : [];
          }),
          ...own(climbs).flatMap((line) => {
            const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
            const figures = riding && pack ? climbFigures(line.body, riding, pack) : null;
            return figures?.ok ? [climbRow(line.body, riding!, figures.value)] : [];
          }),
          ...loggers.flatMap(({ line, digest }) => {
            const riding = ridingOf(shelf, line);
            return riding ? steadyRows(line.test, riding, digest.steady) : [];
          }),
        ];
        const found = fitRoad(rows);
        return found.ok ? found.value : null;
      });
      return fit ? ([[bikeId, fit]] as const) : [];
    }),
  );
  return new Map(fits.flat());
}

function comparedOf(
  line: TestLine,
  digest: TestDigest,
  shelf: Shelf,
  fits: ReadonlyMap<string, RoadFit>,
): ComparedTest | null {
  const riding = ridingOf(shelf, line);
  const pack = shelf.packs.get(line.packId);
  if (!riding || !pack) return null;
  const ridden: RiddenTest = { ...riding, test: line.test, results: digest };
  const fit = fits.get(line.bikeId);
  const fitted: FittedBike | null = fit ? fittedBike(fit, roadOf(riding).crr) : null;
  return {
    line,
    digest,
    pack,
    compared: {
      id: line.id,
      bikeId: line.bikeId,
      packId: line.packId,
      ridden,
      bikeKg: riding.bike.massKg ?? ASSUMED.bikeKg,
      fitted,
    },
  };
}

/**
 * Every test with a figure, ready to be compared, newest first; of one bike, or those named. A bike's fit rests on all its
 * tests, whichever are asked for.
 */
export async function comparedTests(
  db: Database,
  filter: { readonly bikeId?: string; readonly ids?: readonly string[] } = {},
) {
  const [lines, shelf] = await Promise.all([listTests(db), shelfOf(db)]);
  const digests = await digestsOf(db, lines);
  const logged = lines.flatMap((line) => {
    const digest = digests.get(line.id);
    return digest?.steady.length ? [{ line, digest }] : [];
  });
  const fits = await fitsOf(db, shelf, logged);
  const asked = lines.filter(
    ({ id, bikeId }) =>
      (!filter.bikeId || bikeId === filter.bikeId) && (!filter.ids || filter.ids.includes(id)),
  );
  const tests = asked.flatMap((line) => {
    const digest = digests.get(line.id);
    return digest ? (comparedOf(line, digest, shelf, fits) ?? []) : [];
  });
  return { tests, shelf, fits };
}

/** Bikes that were tested with a second pack beside the first. */
export const bikesOnTwo = (tests: readonly ComparedTest[]): ReadonlySet<string> =>
  new Set(tests.flatMap(({ line }) => (line.secondPackId ? [line.bikeId] : [])));

/** Tests whose readings are not in question; all of them where every one's are. */
export function soundTests(tests: readonly ComparedTest[]): readonly ComparedTest[] {
  const sound = tests.filter(({ digest }) => digest.questions === 0);
  return sound.length ? sound : tests;
}

/** The newest test on one pack alone, which tells what that pack holds; else the newest. */
export const newestAlone = (tests: readonly ComparedTest[]) =>
  tests.find(({ line }) => line.secondPackId === null) ?? tests[0];
