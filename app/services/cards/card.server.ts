import { z } from "zod";
import { findReference, referenceName, REFERENCES, type Reference } from "#core/bike";
import { err, ok, type Result, type System } from "#core/base";
import { sweepResults } from "#core/compare";
import {
  CARD_KINDS,
  claimCard,
  climbsCard,
  pairCard,
  rangesCard,
  standingsCard,
  sweepCard,
  type CardKind,
} from "#core/telling";
import { analysisOf } from "../analysis.server";
import { onDesk } from "../comparison/answer.server";
import { TARIFF_MINOR } from "../comparison/ask";
import { ridingOf, shelfOf } from "../comparison/desk.server";
import { allReferences } from "../comparison/references.server";
import { hillsNamed, pairNamed, standingsPlaces } from "../sheets/comparisonPage.server";
import type { Database } from "#db/client";
import { findSweep } from "#db/field";
import { findTest } from "#db/tests";
import type { CardFrom } from "./draw.server";

/** What a card's address asks for. */
export const cardAskSchema = z.object({
  kind: z.enum(CARD_KINDS),
  test: z.uuid().optional().catch(undefined),
  a: z.uuid().optional().catch(undefined),
  b: z.uuid().optional().catch(undefined),
  bike: z.uuid().optional().catch(undefined),
  drive: z.string().max(20).optional(),
  sweep: z.uuid().optional().catch(undefined),
  hill: z.string().max(200).optional(),
  under: z.string().max(80).optional(),
});
export type CardOf = z.infer<typeof cardAskSchema>;

const nothing = (sentence: string): Result<CardFrom> => err("no-card", "card", sentence);

interface From {
  readonly db: Database;
  readonly request: Request;
  readonly system: System;
  readonly asked: CardOf;
  readonly reference: Reference | null;
}

/** A test's own card: it needs a figure. */
async function ofTest({ db, asked }: From, kind: "headline" | "strip"): Promise<Result<CardFrom>> {
  const line = asked.test ? await findTest(db, asked.test) : null;
  if (!line) return nothing("There is no such test.");
  const { result } = await analysisOf(db, line);
  if (!result) return nothing("Its figure is still being reckoned: ask again in a moment.");
  return result.ok
    ? ok({ testId: line.id, kind })
    : nothing(`There is no figure yet: ${result.problems.map(({ sentence }) => sentence).join(" ")}`);
}

async function ofStandings({ db, request, reference }: From): Promise<Result<CardFrom>> {
  const { places, under } = await standingsPlaces(db, request, reference);
  return places.length ? ok({ card: standingsCard(places, under) }) : nothing("No test has a figure yet.");
}

async function ofPair({ db, request, system, asked: { a, b } }: From): Promise<Result<CardFrom>> {
  const pair = a && b ? await pairNamed(db, request, [a, b], system) : null;
  return pair
    ? ok({ card: pairCard(pair.a, pair.b, pair.joint) })
    : nothing("These two cannot be set against each other: choose two tests that have a figure.");
}

async function ofClaims({ db, request, asked, reference }: From): Promise<Result<CardFrom>> {
  const under = reference ?? REFERENCES[0]!;
  const { value } = await onDesk(db, request, "claims", { reference: under, tariffMinor: TARIFF_MINOR });
  const bike = value.claimed.find(
    (each) =>
      each.bikeId === asked.bike && (!asked.drive || each.drive === asked.drive) && each.reports.length > 0,
  );
  return bike
    ? ok({
        card: claimCard({
          bike: bike.bike,
          under: `under ${referenceName(under)}`,
          ridden: bike.ridden,
          range: bike.range,
          claims: bike.reports.map(({ claim }) => claim),
        }),
      })
    : nothing("This bike has no claim that a test could be set against.");
}

async function ofRanges({ db, request, asked, reference }: From): Promise<Result<CardFrom>> {
  if (!asked.bike) return nothing("Choose a bike.");
  const { value } = await onDesk(db, request, "bikeKnown", { bikeId: asked.bike, reference });
  return value?.ranges.length
    ? ok({ card: rangesCard(value.bike.name, value.ranges) })
    : nothing("Nothing tells this bike's ranges yet.");
}

async function ofSweep({ db, asked }: From): Promise<Result<CardFrom>> {
  const line = asked.sweep ? await findSweep(db, asked.sweep) : null;
  if (!line) return nothing("There is no such sweep.");
  const shelf = await shelfOf(db);
  const [riding, pack] = [ridingOf(shelf, line), shelf.packs.get(line.packId)];
  const results = riding && pack ? sweepResults(line.body, riding, pack) : null;
  return results?.spots.length
    ? ok({ card: sweepCard(`${line.bikeName}, ${line.body.title}`, results) })
    : nothing("This sweep has no filled row yet.");
}

async function ofClimbs({ db, request, asked }: From): Promise<Result<CardFrom>> {
  const hill = (await hillsNamed(db, request)).find((each) => each.hill === asked.hill);
  return hill ? ok({ card: climbsCard(hill.hill, hill.runs) }) : nothing("Nobody noted a run up this hill.");
}

const MAKERS: Readonly<Record<CardKind, (from: From) => Promise<Result<CardFrom>>>> = {
  headline: (from) => ofTest(from, "headline"),
  strip: (from) => ofTest(from, "strip"),
  standings: ofStandings,
  pair: ofPair,
  claim: ofClaims,
  ranges: ofRanges,
  sweep: ofSweep,
  climbs: ofClimbs,
};

/**
 * What a card is drawn from, by what its address asks for.
 *
 * @returns a sentence where there is nothing to draw
 * @throws what makes the frame say that the desk is still being reckoned
 */
export async function cardFrom(
  db: Database,
  request: Request,
  asked: CardOf,
  system: System,
): Promise<Result<CardFrom>> {
  const reference = asked.under ? findReference(await allReferences(db), asked.under) : null;
  return MAKERS[asked.kind]({ db, request, system, asked, reference });
}
