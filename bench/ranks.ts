import { barThreshold, bowAt } from "#core/battery/readings";
import { curveOf, usableEnergy, type Pack } from "#core/battery";
import { answerLedger, ledgerInputSchema, scatterSd } from "#core/estimation";
import { DEFAULTS, METRES_PER_MILE, normalCdf, Z_95, meanOf } from "#core/base";
import { rngFrom, type Rng } from "#core/world";

/** What a ride's log holds, drawn from the model's own priors. */
export const RANK_KINDS = ["percent 1", "percent 5", "rest volts", "bars", "metered", "two levels"] as const;
export type RankKind = (typeof RANK_KINDS)[number];

/** How the truths lie in the answers of a kind of log. */
export interface RankLine {
  readonly kind: RankKind;
  readonly of: number;
  /** Truths in each tenth of their answers; a tenth of all in each when the answers are as sure as they say. */
  readonly tenths: readonly number[];
  /** Chance of a histogram no flatter, by chi-square; under 0.01 it is not flat. */
  readonly p: number;
  /** Mean of the truth less the answer, sds; and share of 95 % spans that hold it. */
  readonly bias: number;
  readonly holds: number;
}

const BARS = 5;
const PACK = { chemistry: "NMC", labelWh: 612, seriesCells: 13 } as const satisfies Pack;
const STEP_V = 0.1;
const STEP_WH = 1;
/** Rounds in which what the gauge counts settles: its slow error changes by a tenth of what is counted. */
const SETTLES = 12;

/** A slow error along the charge, as its harmonics: the Gaussian correlation the ledger holds. */
function slowError(chance: Rng): (f: number) => number {
  const waves = Array.from({ length: 60 }, () => {
    const rate = chance.normal() / DEFAULTS.smoothLength;
    const phase = chance.between(0, 2 * Math.PI);
    return (f: number) => Math.cos(rate * f + phase);
  });
  const size = DEFAULTS.smoothSd * Math.sqrt(2 / waves.length);
  return (f) => size * waves.reduce((sum, wave) => sum + wave(f), 0);
}

/** What one kind of look shows of the fraction used, with errors drawn as the ledger takes them. */
function lookOf(kind: RankKind, chance: Rng) {
  const curve = curveOf(PACK);
  const error = slowError(chance);
  // It belongs to what the gauge counts, as the ledger takes it: seen less the error there is what is used.
  const counted = (f: number) => {
    let seen = f;
    for (let i = 0; i < SETTLES; i += 1) seen = f + error(seen);
    return seen;
  };
  const scale = chance.normal(0, DEFAULTS.gaugeScaleSd);
  const percent = (step: number) => (mark: number, f: number) => {
    const seen = counted(f + scale * f);
    const q = Math.min(1, Math.max(0, curve.chargeAtFraction(seen) + chance.normal(0, DEFAULTS.gaugeLookSd)));
    return [{ kind: "percent", mark, percent: Math.round((q * 100) / step) * step }];
  };
  if (kind === "percent 5") return percent(5);
  if (kind === "rest volts")
    return (mark: number, f: number) => {
      const cell =
        curve.voltsAt(curve.chargeAtFraction(counted(f))) +
        chance.normal(0, Math.hypot(DEFAULTS.restedVoltsSd, DEFAULTS.curveVoltsSd));
      const packVolts = Math.round((cell * PACK.seriesCells) / STEP_V) * STEP_V;
      return [{ kind: "restVolts", mark, packVolts, meterStepV: STEP_V, restMin: 20 }];
    };
  if (kind !== "bars") return percent(1);
  const [shift, bow] = [chance.normal(0, DEFAULTS.barShiftSd), chance.normal(0, DEFAULTS.barBowSd)];
  const out = Array.from({ length: BARS }, (_, i) => {
    const { mean, sd } = barThreshold(i + 1, BARS);
    return i === 0 ? 1 : mean + chance.normal(0, sd) + shift + bow * bowAt(mean);
  });
  return (mark: number, f: number) => [
    { kind: "bars", mark, bars: out.filter((threshold) => f < threshold).length },
  ];
}

/** One ride of which everything unknown is drawn from its prior, and where its truth lies in the answer. */
function oneRide(kind: RankKind, seed: number): { readonly rank: number; readonly z: number } | null {
  const chance = rngFrom(seed * 2027 + RANK_KINDS.indexOf(kind));
  const usable = usableEnergy(PACK);
  if (!usable.ok) throw new Error("the pack has no energy");
  const capacityWh = chance.normal(usable.value.mean, usable.value.sd);
  const rates = [chance.between(9, 24), chance.between(9, 24)];
  const roughness = Math.exp(chance.normal(0, DEFAULTS.scatterLnSd));
  const look = lookOf(kind, chance);
  const times = chance.happens(DEFAULTS.meterOffPrior) ? DEFAULTS.meterOffTimes : 1;
  const gain = 1 + chance.normal(0, times * DEFAULTS.energyGainSd);
  const start = chance.normal(0, DEFAULTS.fullStartSd);
  const used = [start];
  const legs: { readonly miles: Record<string, number> }[] = [];
  const readings: object[] = [{ kind: "fullStart", mark: 0 }, ...look(0, Math.max(0, start))];
  // How far is ridden is nothing that the truth decides: else its end would tell of it.
  const marks = Math.round(chance.between(4, 7));
  for (let mark = 1; mark <= marks; mark += 1) {
    const miles = chance.between(1.5, 3.5);
    const level = kind === "two levels" ? mark % 2 : 0;
    const scatter = scatterSd(miles * METRES_PER_MILE, usable.value.mean) * roughness;
    used.push(used.at(-1)! + (miles * rates[level]!) / capacityWh + chance.normal(0, scatter));
    legs.push({ miles: { [`level ${level}`]: miles } });
    readings.push(...look(mark, used.at(-1)!));
  }
  if (kind === "metered") {
    const wh = capacityWh * (used.at(-1)! - start) * gain;
    readings.push({
      ...{ kind: "energyCounter", fromMark: 0, toMark: legs.length, stepWh: STEP_WH },
      wh: Math.round(wh / STEP_WH) * STEP_WH,
    });
  }
  const input = ledgerInputSchema.safeParse({
    pack: PACK,
    gauge: { percentStep: kind === "percent 5" ? 5 : 1, bars: kind === "bars" ? BARS : 0 },
    cells: kind === "two levels" ? ["level 0", "level 1"] : ["level 0"],
    ...{ legs, readings },
  });
  if (!input.success) throw new Error(input.error.issues[0]?.message);
  const answer = answerLedger(input.data);
  if (!answer.ok) return null;
  const [mean, sd] = answer.value.headline[0]!;
  const miles = legs.reduce((sum, leg) => sum + Object.values(leg.miles).reduce((a, b) => a + b, 0), 0);
  const truth = (capacityWh * (used.at(-1)! - start)) / miles;
  const z = (truth - mean) / sd;
  return { z, rank: normalCdf(z) };
}

const TENTHS = 10;

/** Upper tail of chi-square (Wilson and Hilferty, 1931). */
function chi2Tail(chi2: number, freedom: number): number {
  const ninth = 2 / (9 * freedom);
  return 1 - normalCdf((Math.cbrt(chi2 / freedom) - (1 - ninth)) / Math.sqrt(ninth));
}

/** Rides seeds 1 to `count` of a kind and ranks their truths. */
export function rankLine(kind: RankKind, count: number): RankLine {
  const rides = Array.from({ length: count }, (_, i) => oneRide(kind, i + 1)).filter((each) => each !== null);
  const tenths = new Array<number>(TENTHS).fill(0);
  for (const { rank } of rides) tenths[Math.min(TENTHS - 1, Math.floor(rank * TENTHS))]! += 1;
  const wanted = rides.length / TENTHS;
  const chi2 = tenths.reduce((sum, found) => sum + (found - wanted) ** 2 / wanted, 0);
  return {
    ...{ kind, of: rides.length, tenths },
    p: chi2Tail(chi2, TENTHS - 1),
    bias: meanOf(rides.map(({ z }) => z)),
    holds: rides.filter(({ z }) => Math.abs(z) <= Z_95).length / rides.length,
  };
}

/** Head of the table of ranks, and a line of it. */
export const RANKS_HEAD = `${"priors drawn".padEnd(14)}    of    p   bias  holds   truths in each tenth of their answers`;
export const rankText = ({ kind, of, p, bias, holds, tenths }: RankLine): string =>
  `${kind.padEnd(14)} ${String(of).padStart(5)} ${p.toFixed(3)} ${bias.toFixed(2).padStart(6)} ${(100 * holds).toFixed(1).padStart(6)}   ${tenths.join(" ")}`;
