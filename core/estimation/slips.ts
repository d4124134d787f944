import { farText, there, nth, DEFAULTS, fixed, unitToken } from "#core/base";
import { likelySlip, markOf, readingText, type Reading, type Row } from "#core/battery/readings";
import { energyFigure, metresOf, rideFigure, usedBetween } from "./figures.ts";
import { leaveOneOut, type LeftOut } from "./leftOut.ts";
import { mixed, type Solved, type SolvedLedger } from "./solve.ts";

/** Over these log odds a reading is questioned; up to the second both stories are told. */
const QUESTION_ABOVE = -1;
const EVEN_UP_TO = 5;

/** With more than this in question it is the test, not a reading, that is wrong. */
const MOST_QUESTIONS = 10;

/** How one reading stands against the others: one figure for table and alert. */
export interface Standing {
  /** Residual against the answer without it, sds; positive when it says more is used. */
  readonly standing: number;
  /** Log odds that it is a slip. */
  readonly logOdds: number;
  /** What was likely meant, were it one; null when nothing near it fits. */
  readonly meant: string | null;
}

/** A reading in question, by its ride and its place among that ride's readings. */
export interface LedgerFlag extends Standing {
  readonly ride: number;
  readonly reading: number;
}

export interface Judgement {
  /** Readings in question, first found first. */
  readonly flags: readonly LedgerFlag[];
  /** Every reading's standing: of those in question as it was when they were found, of others without those. */
  readonly standings: readonly Standing[];
  /** The ledger without the readings in question; the same ledger when there are none. */
  readonly without: SolvedLedger;
  /** What is answered: with and without them, by the odds. */
  readonly headline: Solved;
}

/** A pack in the units of a reading's row: 1 for fractions, its Wh for energy. */
function spanOfPack({ said, input, columns }: SolvedLedger, i: number): number {
  const { ride, row } = nth(said, i);
  return row.energy ? nth(columns.usable, nth(input.rides, ride).pack).mean : 1;
}

const normalDensity = (off: number, variance: number) =>
  Math.exp((-off * off) / variance / 2) / Math.sqrt(2 * Math.PI * variance);

/**
 * Log odds that a reading is a slip rather than what the others allow: half of slips look like what was meant (a digit off,
 * two swapped, the next bar), the others lie anywhere on the pack.
 *
 * @param span the pack in the row's units; @param row as it was read
 */
function slipOf(left: LeftOut, span: number, { value, alternatives = [] }: Row): Omit<Standing, "standing"> {
  const alike = alternatives.map((meant) => ({
    text: meant.text,
    density: left.parts.reduce(
      (sum, { weight, off, variance }) => sum + weight * normalDensity(off + meant.value - value, variance),
      0,
    ),
  }));
  const share = alike.length ? DEFAULTS.slipAlike : 0;
  const anywhere = (1 - share) / span;
  const looksLike = alike.reduce((sum, { density }) => sum + (share * density) / alike.length, 0);
  const likeliest = alike.reduce<(typeof alike)[number] | null>(
    (most, each) => (most === null || each.density > most.density ? each : most),
    null,
  );
  const { slipPrior } = DEFAULTS;
  return {
    logOdds: left.logRatio + Math.log(anywhere + looksLike) + Math.log(slipPrior / (1 - slipPrior)),
    meant: likeliest && looksLike > anywhere ? likeliest.text : null,
  };
}

/** Every reading's standing in a ledger, in the order of its rows. */
export function standingsOf(solved: SolvedLedger): readonly Standing[] {
  return leaveOneOut(solved.parts).map((left, i) => ({
    standing: left.standing,
    ...slipOf(left, spanOfPack(solved, i), nth(solved.said, i).row),
  }));
}

const chanceOf = (logOdds: number) => 1 / (1 + Math.exp(-logOdds));

/** A person who sets a reading aside makes it at least as likely as not that it is a slip: log odds. */
const LEAST_SET_ASIDE = 0;

/**
 * Weighs for each reading whether it is a slip: the likeliest first, then the ledger again without it, since a slip makes
 * honest readings look bad as well. Nothing is left out whole: the answer holds each reading by its odds, those set aside
 * by a person among them, so that nobody makes an answer surer than the odds allow.
 *
 * @param setAside places of readings that a person set aside; they are asked about no more
 */
export function judgeReadings(solved: SolvedLedger, setAside: ReadonlySet<number> = new Set()): Judgement {
  const names = solved.input.rides.flatMap(({ readings }, ride) =>
    readings.map((_, reading) => ({ ride, reading })),
  );
  const flags: LedgerFlag[] = [];
  const standings: Standing[] = [];
  const stories: { weight: number; solved: SolvedLedger }[] = [];
  let kept = names.map((_, i) => i);
  let without = solved;
  let left = 1;
  const waiting = new Set(setAside);
  for (;;) {
    const found = standingsOf(without);
    found.forEach((each, i) => {
      standings[nth(kept, i)] = each;
    });
    // Those set aside first: what is left is judged without them.
    const among = found.flatMap((_, i) => (waiting.size === 0 || waiting.has(nth(kept, i)) ? [i] : []));
    if (among.length === 0) break;
    const worst = among.reduce(
      (far, i) => (nth(found, i).logOdds > nth(found, far).logOdds ? i : far),
      nth(among, 0),
    );
    const suspect = nth(found, worst);
    const isSetAside = waiting.delete(nth(kept, worst));
    const logOdds = isSetAside ? Math.max(LEAST_SET_ASIDE, suspect.logOdds) : suspect.logOdds;
    if (!isSetAside && (!(logOdds > QUESTION_ABOVE) || kept.length <= 2 || flags.length >= MOST_QUESTIONS))
      break;
    const rest = kept.filter((_, i) => i !== worst);
    const next = solved.keeping(rest);
    if (!next) break;
    const chance = chanceOf(logOdds);
    stories.push({ weight: left * (1 - chance), solved: without });
    left *= chance;
    if (!isSetAside) flags.push({ ...nth(names, nth(kept, worst)), ...suspect });
    kept = rest;
    without = next;
  }
  stories.push({ weight: left, solved: without });
  return { flags, standings, without, headline: mixed(stories) };
}

/** What must be true if the reading is: so much of the way took so many times the usual. */
export interface OtherStory {
  readonly distanceM: number;
  readonly times: number;
}

/**
 * What the reading would mean were it no slip: of the stretches to its neighbours, the one that would be furthest from the
 * ride's own use.
 *
 * @returns null without a neighbour to measure a stretch to
 */
export function otherStory(solved: SolvedLedger, without: SolvedLedger, flag: LedgerFlag): OtherStory | null {
  const { readings, legs } = nth(solved.input.rides, flag.ride);
  const mark = markOf(nth(readings, flag.reading));
  const marks = readings.map(markOf);
  const before = Math.max(...marks.filter((each) => each < mark));
  const after = Math.min(...marks.filter((each) => each > mark));
  const usual = rideFigure(without, flag.ride).mean;
  const told = [
    [before, mark],
    [mark, after],
  ].flatMap(([from, to]): readonly OtherStory[] => {
    if (!Number.isFinite(from) || !Number.isFinite(to)) return [];
    const distanceM = metresOf({ ...nth(solved.input.rides, flag.ride), legs: legs.slice(from, to) });
    if (!(distanceM > 0) || !(usual > 0)) return [];
    const used = energyFigure(
      solved,
      flag.ride,
      usedBetween(solved, flag.ride, there(from), there(to)),
      distanceM,
    );
    return [{ distanceM, times: used.mean / usual }];
  });
  const strange = ({ times }: OtherStory) => Math.abs(Math.log(Math.max(times, 0.01)));
  return told.reduce<OtherStory | null>(
    (far, each) => (far === null || strange(each) > strange(far) ? each : far),
    null,
  );
}

/**
 * "62 % at 9.4 mi is far too high for the other readings: a typing slip?", or both stories where the odds are
 * near even. A positive standing of a fraction used means too low a charge, so below; of counted energy it means too much,
 * so above. Distances are tokens for `spoken`.
 */
export function flagSentence(
  reading: Reading,
  distanceM: number,
  { standing, logOdds, meant }: Standing,
  other: OtherStory | null = null,
): string {
  const counted = "wh" in reading || "ah" in reading || "wallWh" in reading;
  const side = standing > 0 === counted ? "high" : "low";
  const place = unitToken(distanceM, "distance", 1);
  const off = `${readingText(reading)} at ${place} is ${farText(standing)} too ${side} for the other readings`;
  const would = meant === null ? "" : ` ${meant} would fit.`;
  if (logOdds > EVEN_UP_TO || !other) return `${off}: ${likelySlip(reading.kind)}${would}`;
  const stretch = unitToken(other.distanceM, "distance", 1);
  return `${off}. Either it is a slip${meant === null ? "" : `, of ${meant}`}, or ${stretch} beside it took ${timesText(other.times)} the usual.`;
}

function timesText(times: number): string {
  if (times < 0.15) return "next to nothing of";
  return times < 1.95 ? `${Math.round(times * 100)} % of` : `${fixed(times, 1)} times`;
}
