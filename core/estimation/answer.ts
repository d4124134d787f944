import type { ErrorSource } from "#core/battery/readings";
import { there, nth, METRES_PER_MILE, renderUnits, scale, type Estimate, ok, type Result } from "#core/base";
import { markOf } from "#core/battery/readings";
import { singleSourceEstimates } from "./singleSource.ts";
import { budgetOf } from "./budget.ts";
import {
  barFigure,
  cellFigure,
  columnFigure,
  metresOf,
  isUnidentifiable,
  rateFigure,
  rideFigure,
  sumFigures,
  estimateOf,
  birgeRatio,
} from "./figures.ts";
import {
  flagSentence,
  judgeReadings,
  otherStory,
  standingsOf,
  type Judgement,
  type LedgerFlag,
} from "./slips.ts";
import { metersOff } from "./meterOff.ts";
import { rankMeasurements } from "./rankMeasurements.ts";
import { scalesOf } from "./scatter.ts";
import type { LedgerInput } from "./schema.ts";
import { solveLedger, type Solved, type SolvedLedger } from "./solve.ts";

type MeanAndSd = readonly [mean: number, sd: number];
const pair = ({ mean, sd }: Estimate): MeanAndSd => [mean, sd];

/** Wh per metre as it is answered, Wh per mile. */
const perMile = (figure: Estimate): Estimate => scale(figure, METRES_PER_MILE);

/** The ledger's answer in miles and Wh, sds before distance error and before widening. */
export interface LedgerAnswer {
  readonly whPerMi: readonly number[];
  readonly whPerMiSd: readonly number[];
  readonly whPerMiSdWidened: readonly number[];
  readonly energyWh: readonly number[];
  readonly capacityWh: number;
  readonly capacitySdWh: number;
  /** By pack, where there are several. */
  readonly capacities?: Readonly<Record<string, MeanAndSd>>;
  readonly cellRateWhPerMi: Readonly<Record<string, MeanAndSd>>;
  readonly cellWhPerMi: Readonly<Record<string, MeanAndSd>>;
  /** Cells whose rate the readings hardly narrow: show no number for them. */
  readonly notToldApart: readonly string[];
  readonly thresholdsF: Readonly<Record<string, MeanAndSd>>;
  readonly lastBarF?: MeanAndSd;
  readonly lowPowerF?: MeanAndSd;
  readonly chi2PerReading: number;
  /** Scales of the road's scatter, with their probabilities. */
  readonly scatter: readonly (readonly [scale: number, weight: number])[];
  /** Meters and loggers that may be far off, by their names, with the probability of it. */
  readonly metersOff: Readonly<Record<string, number>>;
  readonly looStandardised: readonly number[];
  /** Log odds that each reading is a slip, with all others held. */
  readonly slipLogOdds: readonly number[];
  readonly flags: readonly {
    readonly ride: number;
    readonly reading: number;
    readonly standing: number;
    readonly logOdds: number;
    readonly sentence: string;
  }[];
  /** By ride, Wh per mile with each reading in question held by its odds. */
  readonly headline: readonly MeanAndSd[];
  /** By ride, with the readings in question left out; absent when none is. */
  readonly withoutFlagged?: { readonly whPerMi: readonly number[]; readonly whPerMiSd: readonly number[] };
  /** Of the first ride's Wh/mi: fall in variance, (Wh/mi)^2, by source. */
  readonly budget: readonly (readonly [source: ErrorSource, variance: number])[];
  readonly alone: Readonly<Record<string, MeanAndSd>>;
  readonly next: readonly {
    readonly measure: string;
    readonly minutes: number;
    readonly whPerMiSdLeft: number;
    readonly gainPerMinute: number;
  }[];
  readonly differenceWhPerMi?: number;
  readonly differenceSdWhPerMi?: number;
}

/** The bar that an unknown of a gauge is the threshold of; null for other unknowns. */
function barOf(key: string, gauge: string): number | null {
  const found = key.startsWith(`${gauge}/`) ? /^bar (\d+)$/.exec(key.slice(gauge.length + 1)) : null;
  return found && Number(found[1]);
}

/** Learned points of a gauge by its unknowns' keys. */
function points(solved: Solved, gauge: string) {
  const { list } = solved.columns.unknowns;
  const at = (key: string) =>
    estimateOf(solved, columnFigure(solved, there(solved.columns.unknowns.find(key))));
  const bars = list.flatMap(({ key }) => {
    const bar = barOf(key, gauge);
    const figure = bar === null ? null : barFigure(solved, gauge, bar);
    return figure ? [[String(bar), pair(estimateOf(solved, figure))] as const] : [];
  });
  const one = (name: string) => {
    const key = `${gauge}/${name}`;
    return solved.columns.unknowns.find(key) === undefined ? undefined : pair(at(key));
  };
  return {
    thresholdsF: Object.fromEntries(bars),
    lastBarF: one("last bar"),
    lowPowerF: one("low power"),
  };
}

const rideFigures = (solved: Solved) =>
  solved.input.rides.map((_, ride) => perMile(estimateOf(solved, rideFigure(solved, ride))));

/** A reading in question, with its sentence in miles. */
function flagAnswer(solved: SolvedLedger, without: Judgement["without"], flag: LedgerFlag) {
  const ride = nth(solved.input.rides, flag.ride);
  const reading = nth(ride.readings, flag.reading);
  const metres = metresOf({ ...ride, legs: ride.legs.slice(0, markOf(reading)) });
  const sentence = flagSentence(reading, metres, flag, otherStory(solved, without, flag));
  return { ...flag, sentence: renderUnits(sentence, "imperial") };
}

/**
 * Solves a ledger and reads off every figure.
 *
 * @example the ride of docs/method.md: six percents over 19.2 mi on a 612 Wh pack give 13.574 Wh/mi, sd 1.152
 */
export function answerLedger(input: LedgerInput): Result<LedgerAnswer> {
  const result = solveLedger(input);
  if (!result.ok) return result;
  const solved = result.value;
  const { posterior, columns } = solved;
  const rides = rideFigures(solved);
  const wide = birgeRatio(posterior);
  const first = nth(input.rides, 0);
  const capacityOf = (pack: string) => estimateOf(solved, columnFigure(solved, nth(columns.capacity, pack)));
  const packs = Object.keys(input.packs);
  const { flags, without, headline } = judgeReadings(solved);
  const standings = standingsOf(solved);
  const innocent = flags.length ? rideFigures(without) : [];
  const { thresholdsF, lastBarF, lowPowerF } = points(solved, first.gauge);
  const used = input.cells.flatMap((cell) => {
    const figure = cellFigure(solved, cell);
    return figure ? [[cell, pair(perMile(estimateOf(solved, figure)))] as const] : [];
  });
  const difference =
    input.rides.length === 2
      ? perMile(estimateOf(solved, sumFigures([[rideFigure(solved, 0), 1], [rideFigure(solved, 1), -1]]))) // prettier-ignore
      : null;
  return ok({
    whPerMi: rides.map(({ mean }) => mean),
    whPerMiSd: rides.map(({ sd }) => sd),
    whPerMiSdWidened: rides.map(({ sd }) => sd * wide),
    energyWh: rides.map(({ mean }, ride) => (mean * metresOf(nth(input.rides, ride))) / METRES_PER_MILE),
    capacityWh: capacityOf(first.pack).mean,
    capacitySdWh: capacityOf(first.pack).sd,
    ...(packs.length > 1 && {
      capacities: Object.fromEntries(packs.map((pack) => [pack, pair(capacityOf(pack))])),
    }),
    cellRateWhPerMi: Object.fromEntries(
      input.cells.map((cell) => [
        cell,
        pair(perMile(estimateOf(solved, rateFigure(solved, first.pack, cell)))),
      ]),
    ),
    cellWhPerMi: Object.fromEntries(used),
    notToldApart: used.map(([cell]) => cell).filter((cell) => isUnidentifiable(solved, cell)),
    thresholdsF,
    ...(lastBarF && { lastBarF }),
    ...(lowPowerF && { lowPowerF }),
    chi2PerReading: posterior.chi2PerReading,
    scatter: scalesOf(solved.parts),
    metersOff: Object.fromEntries(metersOff(solved).map(({ device, chance }) => [device, chance])),
    looStandardised: standings.map(({ standing }) => standing),
    slipLogOdds: standings.map(({ logOdds }) => logOdds),
    flags: flags.map((flag) => flagAnswer(solved, without, flag)),
    headline: rideFigures(headline).map(pair),
    ...(flags.length && {
      withoutFlagged: {
        whPerMi: innocent.map(({ mean }) => mean),
        whPerMiSd: innocent.map(({ sd }) => sd),
      },
    }),
    budget: budgetOf(solved, rideFigure(solved, 0)).map(
      ({ source, variance }) => [source, variance * METRES_PER_MILE ** 2] as const,
    ),
    alone: Object.fromEntries(
      singleSourceEstimates(input).map(({ evidence, whPerM }) => [evidence, pair(perMile(whPerM))]),
    ),
    next: rankMeasurements(solved).map(({ measure, minutes, sdLeft, gainPerMinute }) => ({
      measure,
      minutes,
      whPerMiSdLeft: sdLeft * METRES_PER_MILE,
      gainPerMinute: gainPerMinute * METRES_PER_MILE,
    })),
    ...(difference && {
      differenceWhPerMi: difference.mean,
      differenceSdWhPerMi: difference.sd,
    }),
  });
}
