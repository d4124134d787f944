import { found, idOf } from "#app/ui/require.server";
import { reckonPlan } from "#core/plan";
import type { Database } from "#db/client";
import { findPlan } from "#db/plans";
import { loadDesk, planRecord } from "./record.server";

const GONE = "There is no such plan.";

/** A plan with its reckoning, for paper, phone and calendar. */
export async function sheetAt(db: Database, planId: string) {
  const line = found(await findPlan(db, idOf(planId, GONE)), GONE);
  const desk = found(await loadDesk(db, line.bikeId), GONE);
  const record = found(await planRecord(db, line, desk), GONE);
  return { line, record, results: reckonPlan(record) };
}
