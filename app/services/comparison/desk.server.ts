import { derivedOf } from "../derived.server";
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
import { cachedDigests, cachedStamps } from "#db/results";
import { listStamps, listTests, type TestLine } from "#db/tests";

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

/** A test as it was last compared, with what that rested on: its own stamp, its digest's and its bike's fit. */
interface Remembered {
  readonly line: TestLine;
  readonly digestStamp: string;
  readonly digest: TestDigest | null;
  readonly fit: RoadFit | undefined;
  readonly compared: ComparedTest | null;
}

/** The desk as this thread last saw it: only what changed since is read again. */
const desk = new Map<string, Remembered>();

/** Lines and digests of every test that counts, read anew only where a stamp moved. */
async function readDesk(db: Database): Promise<readonly Remembered[]> {
  const [stamps, digestStamps] = await Promise.all([listStamps(db), cachedStamps(db)]);
  const [lineIds, digestIds]: [string[], string[]] = [[], []];
  for (const { id, stamp } of stamps) {
    const known = desk.get(id);
    if (known?.line.stamp !== stamp) lineIds.push(id);
    if (known?.digestStamp !== (digestStamps.get(id) ?? "")) digestIds.push(id);
  }
  const [lines, digests] = await Promise.all([
    inParts(lineIds, (ids) => listTests(db, { ids })),
    inParts(digestIds, async (ids) => [...(await cachedDigests(db, ids))]),
  ]);
  const newLines = new Map(lines.map((line) => [line.id, line]));
  const newDigests = new Map(digests);
  const asked = new Set(digestIds);
  const there = new Set(stamps.map(({ id }) => id));
  for (const id of desk.keys()) if (!there.has(id)) desk.delete(id);
  return stamps
    .flatMap(({ id }) => {
      const known = desk.get(id);
      const line = newLines.get(id) ?? known?.line;
      if (!line) return [];
      const digest = asked.has(id) ? (newDigests.get(id) ?? null) : (known?.digest ?? null);
      const same = known !== undefined && known.line === line && known.digest === digest;
      const now: Remembered = same
        ? known
        : { line, digest, digestStamp: digestStamps.get(id) ?? "", fit: undefined, compared: null };
      desk.set(id, now);
      return [now];
    })
    .sort((a, b) => b.line.test.day.localeCompare(a.line.test.day) || b.line.id.localeCompare(a.line.id));
}

const PART = 500;

async function inParts<T>(
  ids: readonly string[],
  read: (ids: readonly string[]) => Promise<readonly T[]>,
): Promise<readonly T[]> {
  const found: T[] = [];
  for (let at = 0; at < ids.length; at += PART) found.push(...(await read(ids.slice(at, at + PART))));
  return found;
}

/**
 * Every test with a figure, ready to be compared, newest first; of one bike, or those named. A bike's fit rests on all its
 * tests, whichever are asked for.
 */
export async function comparedTests(
  db: Database,
  filter: { readonly bikeId?: string; readonly ids?: readonly string[] } = {},
) {
  const [tests, shelf] = await Promise.all([readDesk(db), shelfOf(db)]);
  const logged = tests.flatMap(({ line, digest }) => (digest?.steady.length ? [{ line, digest }] : []));
  const fits = await fitsOf(db, shelf, logged);
  const wanted = filter.ids && new Set(filter.ids);
  const compared = tests.flatMap((each): readonly ComparedTest[] => {
    const { line, digest } = each;
    if (!digest || (filter.bikeId && line.bikeId !== filter.bikeId) || (wanted && !wanted.has(line.id)))
      return [];
    const fit = fits.get(line.bikeId);
    if (each.compared && each.fit === fit) return [each.compared];
    const made = comparedOf(line, digest, shelf, fits);
    desk.set(line.id, { ...each, fit, compared: made });
    return made ? [made] : [];
  });
  return { tests: compared, shelf, fits };
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
