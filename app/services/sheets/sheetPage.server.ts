import { findReference, REFERENCES } from "#core/bike";
import type { ClaimReport } from "#core/compare";
import type { System } from "#core/base";
import { isOn, type SheetOptions } from "#core/telling";
import { analysisOf } from "../analysis.server";
import { onDesk } from "../comparison/answer.server";
import { TARIFF_MINOR } from "../comparison/ask";
import { allReferences } from "../comparison/references.server";
import { compute } from "../compute/pool.server";
import { findBike } from "#db/bikes";
import type { Database } from "#db/client";
import { listPhotographs } from "#db/photographs";
import type { SheetLine } from "#db/sheets";
import { findTest } from "#db/tests";
import { comparisonPage } from "./comparisonPage.server";
import { customerPage } from "./customerPage.server";
import type { Gathered } from "./gathered";

/** What the desk says of the claims of a test's bike; throws while it is still being reckoned. */
async function reportsFor(
  db: Database,
  request: Request,
  { bikeId, drive }: { readonly bikeId: string; readonly drive: string },
  options: SheetOptions,
): Promise<readonly ClaimReport[]> {
  if (!isOn(options, "claim") || !(await findBike(db, bikeId))?.claims.length) return [];
  const reference =
    (options.under && findReference(await allReferences(db), options.under)) || REFERENCES[0]!;
  const { value } = await onDesk(db, request, "claims", { reference, tariffMinor: TARIFF_MINOR });
  return value.claimed.find((each) => each.bikeId === bikeId && each.drive === drive)?.reports ?? [];
}

/**
 * A page as its tester chose it, written from the desk as it is now. Null when what it is of is gone.
 *
 * @throws what makes the frame say that the desk is still being reckoned
 */
export async function sheetPage(
  db: Database,
  request: Request,
  { options, ...of }: SheetLine,
  system: System,
): Promise<Gathered | null> {
  const photographs = await listPhotographs(db, of.id);
  if (of.benchId !== null) return customerPage(db, of.benchId, options, photographs);
  if (of.testId === null) return comparisonPage(db, request, { options, photographs }, system);
  const line = await findTest(db, of.testId);
  if (!line) return null;
  await analysisOf(db, line);
  const reports = await reportsFor(db, request, { bikeId: line.bikeId, drive: line.test.drive }, options);
  return compute(db, "testPage", { testId: of.testId, options, photographs, reports, system });
}
