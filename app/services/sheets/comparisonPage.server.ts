import { findReference, referenceName, type Reference } from "#core/bike";
import { MEASURE, sweepResults } from "#core/compare";
import {
  comparisonSheet,
  isOn,
  type ComparisonSheetInput,
  type SheetOptions,
  type SheetPlace,
} from "#core/telling";
import type { System } from "#core/base";
import type { Database } from "#db/client";
import { listSweeps } from "#db/field";
import { hashOf } from "../build.server";
import { onDesk } from "../comparison/answer.server";
import { readAsk } from "../comparison/ask";
import { ridingOf, shelfOf } from "../comparison/desk.server";
import { allReferences } from "../comparison/references.server";
import type { Place } from "../comparison/row";
import { placesSvg } from "../drawing/places";
import { DRAWING_WIDTH, inBoth, type Gathered } from "./gathered";

/** Bikes whose ranges, and sweeps, a page shows at most. */
const MOST_BIKES = 6;
const TARIFF_MINOR = 30;
const MEASURED = "whPerMi";

const nameOf = ({ row: { bike, title } }: Place) => `${bike}, ${title}`;

/** Places of the standings, those that no sureness parts from a neighbour marked as shared. */
function placesOf(
  places: readonly Place[],
  brackets: readonly { readonly from: number; readonly to: number }[],
): readonly SheetPlace[] {
  return places.map((each) => ({
    place: each.place,
    name: nameOf(each),
    value: each.row.value,
    shared: brackets.some(({ from, to }) => each.place >= from && each.place <= to),
    beyond: each.row.beyond,
    questions: each.row.questions,
  }));
}

/** Ranges by season of the bikes that are shown first. */
async function rangesFor(
  db: Database,
  request: Request,
  places: readonly Place[],
  reference: Reference | null,
) {
  const bikes = [...new Map(places.map(({ row }) => [row.bikeId, row.bike]))].slice(0, MOST_BIKES);
  const ranges: { bike: string; rows: ComparisonSheetInput["ranges"][number]["rows"] }[] = [];
  for (const [bikeId, bike] of bikes) {
    const { value } = await onDesk(db, request, "bikeKnown", { bikeId, reference });
    if (value?.ranges.length) ranges.push({ bike, rows: value.ranges });
  }
  return ranges;
}

async function sweepsFor(db: Database): Promise<ComparisonSheetInput["sweeps"]> {
  const [lines, shelf] = await Promise.all([listSweeps(db), shelfOf(db)]);
  return lines.slice(0, MOST_BIKES).flatMap((line) => {
    const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
    return riding && pack
      ? [{ name: `${line.bikeName}, ${line.body.title}`, spots: sweepResults(line.body, riding, pack).spots }]
      : [];
  });
}

/** The pair a page sets against each other; null where none is chosen, or one of them is gone. */
async function pairFor(
  db: Database,
  request: Request,
  pair: SheetOptions["pair"],
  system: System,
): Promise<ComparisonSheetInput["pair"]> {
  if (!pair || pair[0] === pair[1]) return null;
  const ask = { a: [pair[0]], b: [pair[1]], runs: [] };
  const { value } = await onDesk(db, request, "pair", { ask, system });
  const [a, b] = value.tests;
  if (!a || !b || !value.joint?.ok) return null;
  const name = ({ bike, title }: typeof a) => (a.bike === b.bike ? title : `${bike}, ${title}`);
  return { a: name(a), b: name(b), joint: value.joint.value };
}

/**
 * The page of a comparison as the desk stands: only what is switched on is asked for.
 *
 * @throws what makes the frame say that the desk is still being reckoned
 */
export async function comparisonPage(
  db: Database,
  request: Request,
  options: SheetOptions,
  system: System,
): Promise<Gathered> {
  const reference = options.under ? findReference(await allReferences(db), options.under) : null;
  const ask = readAsk(new URLSearchParams(), MEASURED);
  const { value: standings } = await onDesk(db, request, "standings", { ask, reference });
  const under = reference ? `under ${referenceName(reference)}` : "as ridden";
  const input: ComparisonSheetInput = {
    under,
    measure: MEASURE[MEASURED].dimension,
    places: placesOf(standings.places, standings.brackets),
    left: standings.left.map(({ bike, title, why }) => ({ name: `${bike}, ${title}`, why })),
    pair: isOn(options, "pair") ? await pairFor(db, request, options.pair, system) : null,
    claims:
      isOn(options, "claims") && reference
        ? (await onDesk(db, request, "claims", { reference, tariffMinor: TARIFF_MINOR })).value.claimed
        : [],
    ranges: isOn(options, "ranges") ? await rangesFor(db, request, standings.places, reference) : [],
    sweeps: isOn(options, "sweeps") ? await sweepsFor(db) : [],
    hills: isOn(options, "climbs")
      ? (await onDesk(db, request, "climbs", {})).value.hills.map(({ hill, runs }) => ({
          hill,
          runs: runs.flatMap(({ bike, setUp, figures }) =>
            figures.ok ? [{ name: setUp ? `${bike}, ${setUp}` : bike, figures: figures.value }] : [],
          ),
        }))
      : [],
  };
  return {
    document: comparisonSheet(input, options),
    drawings: input.places.length
      ? { standings: inBoth((units) => placesSvg(input.places, units, DRAWING_WIDTH)) }
      : {},
    inputs: hashOf([input, options]),
    bundle: null,
    reference: reference && referenceName(reference),
  };
}
