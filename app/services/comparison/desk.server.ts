import type { Riding, RoadRow } from "#core/bike";
import {
  climbFigures,
  climbRow,
  deskDayOf,
  steadyRows,
  sweepRows,
  sweepSpots,
  type Compared,
  type RiddenTest,
} from "#core/compare";
import { dayOfReported, dayOfRows, deskPosterior, type DeskDay, type DeskPosterior } from "#core/desk";
import type { Bike, PackRecord, Rider, SetUp } from "#core/records";
import type { TestDigest } from "#core/analysis";
import { listBikes, listPacks, listRiders, listSetUps, type Kept, type OfBike } from "#db/bikes";
import type { Database } from "#db/client";
import { listClimbs, listSweeps } from "#db/field";
import { cachedDigests, cachedStamps } from "#db/results";
import { listStamps, listTests, type TestLine } from "#db/tests";
import { deskMemory } from "../deskMemory.server";

/** Everything comparisons choose from, by id. */
export interface DeskRecords {
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

export async function shelfOf(db: Database): Promise<DeskRecords> {
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
  { bikes, setUps, riders }: DeskRecords,
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

/** A day's steady readings, made again only where what they rest on has changed. */
function fieldDay(
  { fieldDays }: Memory,
  id: string,
  restsOn: unknown,
  make: () => DeskDay | null,
): DeskDay | null {
  const key = JSON.stringify(restsOn);
  const known = fieldDays.get(id);
  if (known?.key === key) return known.day;
  const day = make();
  fieldDays.set(id, { key, day });
  return day;
}

type FieldTrial = Pick<TestLine, "id" | "bikeId" | "riderId" | "setUpId">;

/** Sweeps, climbs, what loggers held steady and what others published, each a day of the desk. */
async function fieldDaysOf(
  db: Database,
  shelf: DeskRecords,
  logged: readonly { readonly line: TestLine; readonly digest: TestDigest }[],
): Promise<readonly DeskDay[]> {
  const [sweeps, climbs] = await Promise.all([listSweeps(db), listClimbs(db)]);
  const dayOf = (line: FieldTrial, riding: Riding, rows: readonly RoadRow[], id = line.id) =>
    dayOfRows({ id, mount: { bikeId: line.bikeId, setUp: riding.setUp }, riderId: line.riderId, rows });
  const memory = memoryOf(db);
  const days = [
    ...[...shelf.bikes.values()].flatMap((bike) =>
      bike.archived
        ? []
        : bike.reported.map((reported, i) => {
            const id = `reported ${bike.id}/${i}`;
            return fieldDay(memory, id, [reported, bike.version], () =>
              dayOfReported(id, bike.id, bike, reported),
            );
          }),
    ),
    ...sweeps.map((line) => {
      const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
      if (!riding || !pack) return null;
      return fieldDay(memory, line.id, [line.stamp, riding, pack], () =>
        dayOf(line, riding, sweepRows(line.body, riding, sweepSpots(line.body, pack).spots)),
      );
    }),
    ...climbs.map((line) => {
      const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
      if (!riding || !pack) return null;
      return fieldDay(memory, line.id, [line.stamp, riding, pack], () => {
        const figures = climbFigures(line.body, riding, pack);
        const row = figures.ok ? climbRow(line.body, riding, figures.value) : null;
        return row && dayOf(line, riding, [row]);
      });
    }),
    ...logged.map(({ line, digest }) => {
      const riding = ridingOf(shelf, line);
      if (!riding) return null;
      const id = `steady ${line.id}`;
      return fieldDay(memory, id, [line.stamp, riding, digest.steady], () =>
        dayOf(line, riding, steadyRows(line.test, riding, digest.steady), id),
      );
    }),
  ];
  return days.filter((day) => day !== null);
}

function comparedOf(line: TestLine, digest: TestDigest, shelf: DeskRecords): ComparedTest | null {
  const riding = ridingOf(shelf, line);
  const pack = shelf.packs.get(line.packId);
  if (!riding || !pack) return null;
  const ridden: RiddenTest = { ...riding, test: line.test, results: digest };
  // Two packs at once are a pack of their own.
  const packId = [line.packId, line.secondPackId].filter(Boolean).join("+");
  return {
    ...{ line, digest, pack },
    compared: { id: line.id, bikeId: line.bikeId, riderId: line.riderId, packId, ridden },
  };
}

/** A test as it was last compared, with what that rested on: its own stamp, its digest's, and who rode what. */
interface Remembered {
  readonly line: TestLine;
  /** Archived tests count for nothing, but where they are named. */
  readonly archived: boolean;
  readonly digestStamp: string;
  readonly digest: TestDigest | null;
  readonly riding: string;
  readonly compared: ComparedTest | null;
}

/** A desk as this thread last saw it: only what changed since is read again. */
interface Memory {
  readonly tests: Map<string, Remembered>;
  /** Sweeps, climbs and steady stretches by what they rest on: the same ones are the same day, so that a changed desk is solved quickly. */
  readonly fieldDays: Map<string, { readonly key: string; readonly day: DeskDay | null }>;
  /** The last answer over the whole desk, and the days it rests on. */
  solved: { readonly days: readonly DeskDay[]; readonly posterior: DeskPosterior } | null;
}
const memoryOf = deskMemory((): Memory => ({ tests: new Map(), fieldDays: new Map(), solved: null }));

/** Lines and digests of every test that counts, read anew only where a stamp moved. */
async function readDesk(db: Database): Promise<readonly Remembered[]> {
  const { tests: desk } = memoryOf(db);
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
    .flatMap(({ id, archived }) => {
      const known = desk.get(id);
      const line = newLines.get(id) ?? known?.line;
      if (!line) return [];
      const digest = asked.has(id) ? (newDigests.get(id) ?? null) : (known?.digest ?? null);
      const same = known !== undefined && known.line === line && known.digest === digest;
      const now: Remembered = same
        ? { ...known, archived }
        : { line, archived, digest, digestStamp: digestStamps.get(id) ?? "", riding: "", compared: null };
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

/** One posterior over all days of the desk; what did not change is not reckoned again. */
function posteriorOf(memory: Memory, days: readonly DeskDay[]): DeskPosterior {
  const { solved } = memory;
  if (solved?.days.length === days.length && solved.days.every((day, i) => day === days[i]))
    return solved.posterior;
  const posterior = deskPosterior(days, undefined, solved?.posterior);
  memory.solved = { days, posterior };
  return posterior;
}

/**
 * Every test with a figure, ready to be compared, newest first, and the posterior over all of the desk; tests of one bike, or
 * those named; `also` names one that counts even if it is archived. The posterior rests on all tests but archived ones that nobody named, whichever are asked for.
 */
export async function comparedTests(
  db: Database,
  filter: { readonly bikeId?: string; readonly ids?: readonly string[]; readonly also?: string } = {},
) {
  const memory = memoryOf(db);
  const [tests, shelf] = await Promise.all([readDesk(db), shelfOf(db)]);
  const wanted = filter.ids && new Set(filter.ids);
  const all = tests.flatMap((each): readonly ComparedTest[] => {
    const { line, archived, digest } = each;
    if (!digest || (archived && !wanted?.has(line.id) && line.id !== filter.also)) return [];
    const riding = JSON.stringify([ridingOf(shelf, line), shelf.packs.get(line.packId)]);
    if (each.compared && each.riding === riding) return [each.compared];
    const made = comparedOf(line, digest, shelf);
    memory.tests.set(line.id, { ...each, riding, compared: made });
    return made ? [made] : [];
  });
  const logged = all.filter(({ digest }) => digest.steady.length > 0);
  const posterior = posteriorOf(memory, [
    ...all.flatMap(({ compared }) => deskDayOf(compared) ?? []),
    ...(await fieldDaysOf(db, shelf, logged)),
  ]);
  const chosen = all.filter(
    ({ line }) => (!filter.bikeId || line.bikeId === filter.bikeId) && (!wanted || wanted.has(line.id)),
  );
  return { tests: chosen, shelf, posterior };
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

/** A test's title by its id; empty for one that is not there. */
export const titleOf = (tests: readonly ComparedTest[], id: string): string =>
  tests.find(({ line }) => line.id === id)?.line.test.title ?? "";
