import { listSheets } from "#db/sheets";
import type { Database } from "#db/client";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

const PDF_LIMIT_MS = 1500;
const CARD_LIMIT_MS = 150;
const RUNS = 7;

/** What a sheet's files are asked for: the page of a test, and a card of its strip. */
export interface SheetsToTake {
  readonly sheetId: string;
  readonly testId: string;
}

/** The first sheet of a test on a desk; null where there is none. */
export async function sheetToTake(db: Database): Promise<SheetsToTake | null> {
  const found = (await listSheets(db)).find(({ testId }) => testId !== null);
  return found?.testId ? { sheetId: found.id, testId: found.testId } : null;
}

/** A sheet's PDF and a card of its test, from the request to the last byte, drawn in the pool. */
export async function benchSheets(
  report: Report,
  address: string,
  { sheetId, testId }: SheetsToTake,
): Promise<readonly boolean[]> {
  const taken = (path: string) => async () => (await fetch(address + path)).arrayBuffer();
  const card = (kind: string) => taken(`/sheet/cards/${kind}/png?test=${testId}`);
  return [
    report("a test's sheet as PDF", await median(RUNS, taken(`/sheet/${sheetId}/pdf`)), PDF_LIMIT_MS),
    report("a card of a figure, PNG", await median(RUNS, card("headline")), CARD_LIMIT_MS),
    report("a card of a strip, PNG", await median(RUNS, card("strip")), CARD_LIMIT_MS),
  ];
}
