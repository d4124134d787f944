import { z } from "zod";
import type { CellCurve } from "#core/pack";
import { problemIf, readingKind } from "./kind.ts";
import { markSchema } from "./mark.ts";
import { fractionRow, ROOT12 } from "./row.ts";

/** What a percent says: the fraction used, and the sd that rounding to its step leaves. 40 % step 5 on NMC: 0.6278, 0.0141. */
export function percentSays(percent: number, step: number, counts: "charge" | "energy", curve: CellCurve) {
  const q = percent / 100;
  const rounding = step / 100 / ROOT12;
  if (counts === "energy") return { f: 1 - q, sd: rounding };
  return { f: curve.fractionAt(q), sd: (rounding * curve.voltsAt(q)) / curve.phi(1) };
}

/** A percent gauge, counting charge or energy, rounded to its step, with a slow error of its own. */
export const percent = readingKind({
  schema: z.object({
    kind: z.literal("percent"),
    mark: markSchema,
    percent: z.number({ error: "Percent must be a number." }),
    /** Step of this reading, when it differs from the gauge's. */
    step: z.number().positive().optional(),
  }),
  name: "percent",
  counted: ["one percent", "percents"],
  evidence: "percent",
  ifOff: "a typing slip?",
  text: ({ percent: value }) => `${value} %`,
  check: ({ percent: value }) =>
    problemIf(
      value < 0 || value > 100,
      "percent-range",
      "percent",
      `${value} % cannot be: type a percentage from 0 to 100.`,
    ),
  says: ({ mark, percent: value, step }, { percentStep, counts, curve }) => {
    const { f, sd } = percentSays(value, step ?? percentStep, counts, curve);
    return fractionRow(mark, f, [{ source: "gauge rounding", sd }], { process: "gauge", f });
  },
});
