import { good, type Result } from "#core/problems";
import { combine } from "./forms.ts";
import { energyFigure, milesOf, usedBetween, variableFigure, withSds, type Figure } from "./figures.ts";
import type { LedgerInput } from "./schema.ts";
import { solveLedger, type Solved } from "./solve.ts";

type MeanAndSd = readonly [mean: number, sd: number];

/** The ledger's answer in miles and Wh, sds before distance error and before widening. */
export interface LedgerAnswer {
  readonly whPerMi: readonly number[];
  readonly whPerMiSd: readonly number[];
  readonly whPerMiSdWidened: readonly number[];
  readonly energyWh: readonly number[];
  readonly capacityWh: number;
  readonly capacitySdWh: number;
  readonly cellRateWhPerMi: Readonly<Record<string, MeanAndSd>>;
  readonly cellWhPerMi: Readonly<Record<string, MeanAndSd>>;
  readonly thresholdsF: Readonly<Record<string, MeanAndSd>>;
  readonly chi2PerReading: number;
  readonly looStandardised: readonly number[];
  readonly differenceWhPerMi?: number;
  readonly differenceSdWhPerMi?: number;
}

/** The factor by which chi-square per reading over 1 widens every sd. */
export function widening(chi2PerReading: number): number {
  return Math.sqrt(Math.max(1, chi2PerReading));
}

/** Whole-ride Wh per mile of one ride. */
export function rideFigure(solved: Solved, ride: number): Figure {
  const used = usedBetween(solved, ride, 0, solved.prior.marks[ride]!.length - 1);
  return energyFigure(solved, used, milesOf(solved, ride));
}

/** Cell figures: its rate for forecasts, and the energy used in it over its miles on these rides. */
function cellFigures(solved: Solved, cell: string): { rate: Figure; used: Figure | null } {
  const { prior, input } = solved;
  const rateForm = new Float64Array(prior.size);
  rateForm[prior.rate.get(cell)!] = 1;
  const uses = prior.cellUse.flatMap((ride) => ride.get(cell) ?? []);
  const miles = input.rides.reduce((sum, _, ride) => sum + milesOf(solved, ride, cell), 0);
  return {
    rate: energyFigure(solved, rateForm),
    used:
      miles > 0
        ? energyFigure(
            solved,
            combine(
              prior.size,
              uses.map((use) => [use, 1] as const),
            ),
            miles,
          )
        : null,
  };
}

const pair = ({ mean, sd }: { mean: number; sd: number }): MeanAndSd => [mean, sd];

/**
 * Solves a ledger and reads off every figure.
 *
 * @example the ride of docs/method.md: six percents over 19.2 mi on a 612 Wh pack give 13.856 Wh/mi, sd 0.844
 */
export function answerLedger(input: LedgerInput): Result<LedgerAnswer> {
  const result = solveLedger(input);
  if (!result.ok) return result;
  const solved = result.value;
  const { prior, posterior } = solved;
  const rides = withSds(
    solved,
    input.rides.map((_, ride) => rideFigure(solved, ride)),
  );
  const energies = input.rides.map((_, ride) => rides[ride]!.mean * milesOf(solved, ride));
  const capacity = withSds(solved, [variableFigure(solved, prior.capacity)])[0]!;
  const thresholds = [...prior.unknown].filter(([key]) => key.startsWith("bar "));
  const wide = widening(posterior.chi2PerReading);
  const cells = input.cells.map((cell) => ({ cell, ...cellFigures(solved, cell) }));
  const cellRates = withSds(
    solved,
    cells.map(({ rate }) => rate),
  );
  const used = cells.flatMap(({ cell, used: figure }) => (figure ? [{ cell, figure }] : []));
  const cellUses = withSds(
    solved,
    used.map(({ figure }) => figure),
  );
  const thresholdValues = withSds(
    solved,
    thresholds.map(([, index]) => variableFigure(solved, index)),
  );
  const answer: LedgerAnswer = {
    whPerMi: rides.map(({ mean }) => mean),
    whPerMiSd: rides.map(({ sd }) => sd),
    whPerMiSdWidened: rides.map(({ sd }) => sd * wide),
    energyWh: energies,
    capacityWh: capacity.mean,
    capacitySdWh: capacity.sd,
    cellRateWhPerMi: Object.fromEntries(cells.map(({ cell }, i) => [cell, pair(cellRates[i]!)])),
    cellWhPerMi: Object.fromEntries(used.map(({ cell }, i) => [cell, pair(cellUses[i]!)])),
    thresholdsF: Object.fromEntries(thresholds.map(([key], i) => [key.slice(4), pair(thresholdValues[i]!)])),
    chi2PerReading: posterior.chi2PerReading,
    looStandardised: posterior.looStandardised(),
  };
  if (input.rides.length !== 2) return good(answer);
  const [first, second] = [rideFigure(solved, 0), rideFigure(solved, 1)];
  const difference = {
    mean: first.mean - second.mean,
    gradient: combine(prior.size, [
      [first.gradient, 1],
      [second.gradient, -1],
    ]),
  };
  return good({
    ...answer,
    differenceWhPerMi: difference.mean,
    differenceSdWhPerMi: withSds(solved, [difference])[0]!.sd,
  });
}
