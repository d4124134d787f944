import { findReference, referenceName, type Reference } from "#core/bike";
import { MEASURE, sweepResults } from "#core/compare";
import {
  comparisonSheet,
  isOn,
  type ComparisonSheetInput,
  type SheetOptions,
  type SheetPhotograph,
  type SheetPlace,
} from "#core/telling";
import type { System } from "#core/base";
import type { Database } from "#db/client";
import { listSweeps } from "#db/field";
import { hashOf } from "../build.server";
import { onDesk } from "../comparison/answer.server";
import { readAsk, TARIFF_MINOR } from "../comparison/ask";
import { ridingOf, shelfOf } from "../comparison/desk.server";
import { allReferences } from "../comparison/references.server";
import type { Place } from "../comparison/row";
import { placesSvg } from "../drawing/places";
import { DRAWING_WIDTH, inBoth, type Gathered } from "./gathered";

/** Bikes whose ranges, and sweeps, a page shows at most. */
const MOST_BIKES = 6;
const MEASURED = "whPerMi";

const nameOf = ({ row: { bike, title, drive } }: Place) =>
  `${bike}, ${title}${drive === "throttle" ? ", throttle" : ""}`;

/** Places of the standings, with all the places that a figure may have. */
function placesOf(places: readonly Place[]): readonly SheetPlace[] {
  return places.map((each) => {
    const { possible, row } = each;
    return {
      ...possible,
      name: nameOf(each),
      value: row.value,
      beyond: row.beyond,
      questions: row.questions,
      hollow: row.pencil || row.beyond.length > 0 || row.questions > 0,
    };
  });
}

/** The standings as places of a page, with what they are under. */
export async function standingsPlaces(db: Database, request: Request, reference: Reference | null) {
  const ask = readAsk(new URLSearchParams(), MEASURED);
  const { value } = await onDesk(db, request, "standings", { ask, reference });
  return {
    under: reference ? `under ${referenceName(reference)}` : "as ridden",
    places: placesOf(value.places),
    standings: value,
  };
}

/** Runs by hill, each by its bike and set-up. */
export async function hillsNamed(db: Database, request: Request): Promise<ComparisonSheetInput["hills"]> {
  const { value } = await onDesk(db, request, "climbs", {});
  return value.hills.map(({ hill, runs }) => ({
    hill,
    runs: runs.flatMap(({ bike, setUp, climb, figures }) =>
      figures.ok
        ? [{ name: [bike, setUp, climb.level].filter(Boolean).join(", "), figures: figures.value }]
        : [],
    ),
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
export async function pairNamed(
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
  {
    options,
    photographs,
  }: { readonly options: SheetOptions; readonly photographs: readonly SheetPhotograph[] },
  system: System,
): Promise<Gathered> {
  const reference = options.under ? findReference(await allReferences(db), options.under) : null;
  const { places, under, standings } = await standingsPlaces(db, request, reference);
  const input: ComparisonSheetInput = {
    under,
    measure: MEASURE[MEASURED].dimension,
    photographs,
    places,
    left: standings.left.map(({ bike, title, why }) => ({ name: `${bike}, ${title}`, why })),
    pair: isOn(options, "pair") ? await pairNamed(db, request, options.pair, system) : null,
    claims:
      isOn(options, "claims") && reference
        ? (await onDesk(db, request, "claims", { reference, tariffMinor: TARIFF_MINOR })).value.claimed.map(
            ({ bike, drive, reports }) => ({
              label: `${bike}, ${drive}`,
              reports,
            }),
          )
        : [],
    ranges: isOn(options, "ranges") ? await rangesFor(db, request, standings.places, reference) : [],
    sweeps: isOn(options, "sweeps") ? await sweepsFor(db) : [],
    hills: isOn(options, "climbs") ? await hillsNamed(db, request) : [],
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
