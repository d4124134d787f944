import {
  asRidden,
  bikeCells,
  cellUnder,
  onPack,
  inAir,
  seasonRange,
  SEASONS,
  combine,
  type BikeCell,
  type Compared,
} from "#core/compare";
import { parametersOf } from "#core/desk";
import { auditGuesses } from "#core/analysis/projection";
import type { Estimate } from "#core/base";
import type { Reference } from "#core/bike";
import type { Database } from "#db/client";
import { comparedTests, newestAlone, soundTests, type ComparedTest } from "./desk.server";

/** A cell's ranges through the year. */
export interface CellRanges {
  readonly level: string;
  readonly ground: string;
  readonly seasons: readonly {
    readonly name: string;
    readonly tempC: number;
    readonly total: Estimate;
    readonly fullPower: Estimate;
    readonly withReserve: Estimate;
  }[];
}

const shownCell = ({ level, ground, metres, whPerM, tests }: BikeCell) => ({
  level,
  ground,
  metres,
  whPerM: whPerM && combine(whPerM),
  tests: tests.length,
});

/** Ranges by level, ground and season, on the pack of the newest test. */
function rangesOf(compared: readonly Compared[], newest: ComparedTest): readonly CellRanges[] {
  const { digest, pack, line } = newest;
  const seasons = SEASONS.map((season) => ({
    season,
    cells: bikeCells(compared, (each, part) => inAir(each, season.tempC, part)),
  }));
  return seasons[0]!.cells.flatMap(({ level, ground }) => {
    const found = seasons.flatMap(({ season, cells }) => {
      const cell = cells.find((each) => each.level === level && each.ground === ground);
      const range =
        cell?.whPerM &&
        seasonRange(cell.whPerM, onPack(line.packId, digest.packLearned.after), pack.chemistry, season.tempC);
      return range ? [{ ...season, ...range }] : [];
    });
    return found.length ? [{ level, ground, seasons: found }] : [];
  });
}

/** The display's guesses on every test that noted them, against what the range came to. */
function guessesOf(tests: readonly ComparedTest[]) {
  return tests.flatMap(({ line, digest }) => {
    const { rangeTotal, noted } = digest;
    const audit = rangeTotal ? auditGuesses(noted.guesses, rangeTotal.value) : null;
    return audit?.ok ? [{ id: line.id, title: line.test.title, audit: audit.value }] : [];
  });
}

/** Everything known of one bike over its tests; null when there is no such bike. */
export async function bikeKnown(db: Database, bikeId: string, reference: Reference | null) {
  const { tests, shelf, posterior } = await comparedTests(db, { bikeId });
  const bike = shelf.bikes.get(bikeId);
  if (!bike) return null;
  const sound = soundTests(tests);
  const compared = sound.map((each) => each.compared);
  const cells = bikeCells(compared, (each, part, cell) =>
    reference ? cellUnder(posterior, each, reference, cell) : asRidden(each, part),
  );
  const newest = newestAlone(tests);
  const ridden = newest?.compared.ridden;
  const own = newest && shelf.packs.get(newest.line.packId);
  return {
    bike,
    tests: sound.length,
    /** Left out: a reading of theirs is in question. */
    questioned: tests.filter((each) => !sound.includes(each)).map(({ line }) => line.test.title),
    cells: cells.map(shownCell),
    ranges: newest ? rangesOf(compared, newest) : [],
    packName: own?.name ?? null,
    road: parametersOf(
      posterior,
      { bikeId, setUp: ridden?.setUp ?? null },
      { bike, setUp: ridden?.setUp ?? null },
    ),
    rests: posterior.days.filter(({ day }) => day.home === bikeId).length,
    guesses: guessesOf(tests),
  };
}
