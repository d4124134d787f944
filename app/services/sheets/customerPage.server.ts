import { CAUTIONS } from "#ui/cautions";
import { customerSheet, type SheetOptions, type SheetPhotograph } from "#core/telling";
import { findBench } from "#db/bikes";
import type { Database } from "#db/client";
import { hashOf } from "../build.server";
import type { Gathered } from "./gathered";

/** The page of a bench discharge for whoever owns the pack. Null when there is no such discharge. */
export async function customerPage(
  db: Database,
  benchId: string,
  options: SheetOptions,
  photographs: readonly SheetPhotograph[],
): Promise<Gathered | null> {
  const found = await findBench(db, benchId);
  if (!found) return null;
  const { bike, pack, bench } = found;
  return {
    document: customerSheet(
      { bikeName: bike.name, pack, bench, cautions: CAUTIONS.pack, photographs },
      options,
    ),
    drawings: {},
    inputs: hashOf([bike.name, pack, bench, options, photographs]),
    bundle: null,
    reference: null,
  };
}
