import { nth, text, DEFAULTS } from "#core/base";
import { z } from "zod";
import { readingKind } from "./kind.ts";
import { checkSpan, energyRow, gainOf, spanShape } from "./span.ts";

/** Sampled volts and amps, summed by the logger to Wh with an sd of its own for the gaps. */
export const telemetry = readingKind({
  schema: z.object({
    kind: z.literal("telemetry"),
    ...spanShape,
    wh: z.number({ error: "Wh must be a number." }),
    sdWh: z.number().min(0).default(0),
    logger: text().default("logger"),
    /** The logger's own error, 1 sd as a share, where it is known. */
    gainSd: z.number().positive().max(0.5).optional(),
  }),
  name: "telemetry",
  counted: ["telemetry", "runs of telemetry"],
  evidence: "telemetry",
  ifOff: "a gap in the log, or a clock that is off?",
  text: ({ wh }) => `${Math.round(wh * 10) / 10} Wh logged`,
  check: checkSpan,
  says: ({ fromMark, toMark, wh, sdWh, logger, gainSd = DEFAULTS.shuntGainSd }) =>
    energyRow(
      {
        from: fromMark,
        to: toMark,
        wh: () => wh,
        gain: (energy) => energy * gainSd,
        gainUnknown: gainOf(`logger ${logger}`, "logger gain"),
      },
      [{ source: "telemetry gaps", sd: sdWh }],
    ),
});

export interface SummedTelemetry {
  readonly wh: number;
  /** From gaps alone; the shunt's gain is the ledger's. */
  readonly sdWh: number;
  readonly gapS: number;
}

/** Longest step between two samples that is not a gap, s. */
const LONGEST_STEP_S = 5;

/**
 * Sums sampled volts x amps over time by trapezoids. A gap of over 5 s is bridged at the mean of both sides, and 30 % of
 * its energy counts as error. Amps are negative when energy comes back.
 *
 * @param timeS rising; @param volts at the pack; @param amps out of the pack; as many of each
 * @example sumTelemetry([0, 1, 2], [50, 50, 50], [7.2, 7.2, 7.2]).wh === 0.2
 */
export function sumTelemetry(
  timeS: readonly number[],
  volts: readonly number[],
  amps: readonly number[],
): SummedTelemetry {
  let [wh, variance, gapS] = [0, 0, 0];
  for (let i = 1; i < timeS.length; i += 1) {
    const step = nth(timeS, i) - nth(timeS, i - 1);
    const piece = (step * (nth(volts, i) * nth(amps, i) + nth(volts, i - 1) * nth(amps, i - 1))) / 2 / 3600;
    wh += piece;
    if (step > LONGEST_STEP_S) {
      variance += (DEFAULTS.gapSdShare * piece) ** 2;
      gapS += step;
    }
  }
  return { wh, sdWh: Math.sqrt(variance), gapS };
}
