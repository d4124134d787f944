import { claimLine, isClaimFor, type ClaimReport } from "#core/compare";
import type { System } from "#core/base";
import { writeBundle } from "#core/io";
import type { TestResults } from "#core/analysis";
import type { TestRecord } from "#core/records";
import { testSheet, type SheetOptions, type SheetPhotograph, type ToldClaim } from "#core/telling";
import type { Database } from "#db/client";
import { loadRecord } from "#db/record";
import { cachedAnalysis } from "#db/results";
import { hashOf } from "../build.server";
import { stripSvg } from "../drawing/svg";
import { stripResults } from "../strip/view";
import { DRAWING_WIDTH, inBoth, type Gathered } from "./gathered";

/** What a test's page is asked for. */
export interface TestPageAsk {
  readonly testId: string;
  readonly options: SheetOptions;
  readonly photographs: readonly SheetPhotograph[];
  /** What the desk says of the bike's claims; empty while it is still being reckoned. */
  readonly reports: readonly ClaimReport[];
  readonly system: System;
}

/** Whether a test was ridden in the way of a claim: one for a level is set against a test on that level alone. */
function isRiddenSo(mode: string, levels: readonly string[], { parts }: TestResults): boolean {
  const claimed = levels.find((level) => level.toLowerCase() === mode.trim().toLowerCase());
  return claimed === undefined || parts.every(({ level }) => level === claimed);
}

/** Each claim against this very test first, then as the desk has it under other conditions. */
function claimsOf(
  { bike, test }: TestRecord,
  results: TestResults,
  reports: readonly ClaimReport[],
): readonly ToldClaim[] {
  const { rangeTotal } = results;
  if (!rangeTotal) return [];
  return bike.claims
    .filter((claim) => isClaimFor(claim, test.drive === "throttle"))
    .map((claim) => {
      const own = claimLine(claim, { under: "as ridden", range: rangeTotal.value });
      const report = reports.find(
        (each) =>
          each.claim.lowM === claim.lowM &&
          each.claim.highM === claim.highM &&
          each.claim.mode === claim.mode,
      );
      return {
        claim,
        lines: isRiddenSo(claim.mode, bike.levels, results)
          ? [own, ...(report?.lines.filter(({ under }) => under !== own.under) ?? [])]
          : (report?.lines ?? []),
        needs: report?.needs ?? [],
      };
    });
}

/** The page of a test, from its record and its analysis as it is cached. Null when there is no such test. */
export async function testPage(
  db: Database,
  { testId, options, photographs, reports, system }: TestPageAsk,
): Promise<Gathered | null> {
  const [record, cached] = await Promise.all([loadRecord(db, testId), cachedAnalysis(db, testId)]);
  if (!record) return null;
  const result = cached?.result;
  const results = result?.ok ? result.value : null;
  const problems =
    result && !result.ok
      ? result.problems
      : [
          {
            code: "pending",
            path: "",
            sentence: "It is still being reckoned: open the page again in a moment.",
          },
        ];
  const document = testSheet(
    {
      record,
      results,
      problems,
      claims: results ? claimsOf(record, results, reports) : [],
      photographs,
      system,
    },
    options,
  );
  const drawn = results && stripResults(results);
  return {
    document,
    drawings: drawn
      ? {
          strip: inBoth((units) =>
            stripSvg({ results: drawn, levels: record.bike.levels, system: units }, DRAWING_WIDTH, "light"),
          ),
        }
      : {},
    inputs: hashOf([record, reports, options, photographs]),
    bundle: writeBundle([record]),
    reference: null,
  };
}
