import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { fractionRow } from "./row.ts";

/** The test ended crawling: it could not hold its speed any more. Nearly all is used. */
export const crawl = readingKind({
  schema: z.object({ kind: z.literal("crawl"), mark: markSchema }),
  name: "could not hold its speed",
  counted: ["an end at a crawl", "ends at a crawl"],
  evidence: "runDown",
  ifOff: "slow for another reason, such as a hill, heat or cold?",
  text: () => "could not hold its speed",
  check: () => [],
  says: ({ mark }) => {
    const { crawlAt, crawlSd } = DEFAULTS;
    return fractionRow(mark, crawlAt, [{ source: "where it crawls", sd: crawlSd }]);
  },
});

/** The test ended with the gauge at zero and no difference between levels. */
export const gaugeZero = readingKind({
  schema: z.object({ kind: z.literal("gaugeZero"), mark: markSchema }),
  name: "gauge at zero",
  counted: ["an end at gauge zero", "ends at gauge zero"],
  evidence: "runDown",
  ifOff: "was the gauge at zero before the pack was?",
  text: () => "gauge at zero, no power left",
  check: () => [],
  says: ({ mark }) => {
    const { gaugeZeroAt, gaugeZeroSd } = DEFAULTS;
    return fractionRow(mark, gaugeZeroAt, [{ source: "where the gauge ends", sd: gaugeZeroSd }]);
  },
});
