import { unitToken } from "#core/base";
import { verdictText, type ClaimReport } from "#core/compare";
import type { SheetBlock, SheetLine } from "./document.ts";
import { asSentence } from "./facts.ts";

/** "45 mi to 60 mi, low": the claim's span and mode. */
function spanText({ lowM, highM, mode }: ClaimReport["claim"]): string {
  const miles = (metres: number) => unitToken(metres, "distance", 0);
  return `${lowM === highM ? miles(lowM) : `${miles(lowM)} to ${miles(highM)}`}${mode ? `, ${mode}` : ""}`;
}

/** What a page tells of a claim. */
export type ToldClaim = Pick<ClaimReport, "claim" | "lines" | "needs">;

/** A bike's claims, and what they are called on a page. */
export interface ClaimsOf {
  readonly label: string;
  readonly reports: readonly ToldClaim[];
}

/** Claims line by line: as ridden first, then as stated, then under the reference, with what the last would need. */
export function claimsBlock(claims: readonly ClaimsOf[]): SheetBlock | null {
  const lines = claims.flatMap(({ label, reports }) =>
    reports.flatMap(({ claim, lines: said, needs }) =>
      said.map(({ verdict, certainty, sentence }, i): SheetLine => ({
        label: i === 0 ? `${label}, ${spanText(claim)}` : "",
        text: [
          asSentence(verdictText({ verdict, certainty })),
          sentence,
          ...(i === said.length - 1 ? needs : []),
        ].join(" "),
        ...(verdict === "not met" && { tone: "bad" as const }),
      })),
    ),
  );
  return lines.length ? { kind: "lines", lines } : null;
}
