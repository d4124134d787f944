import type { ErrorSource } from "#core/battery/readings";
import type { SingleSourceEstimate, NextMeasure } from "#core/estimation";
import type { Timeline } from "#core/ride/log";
import type { Estimate } from "#core/base";
import type { RideSoFar } from "#core/analysis/projection";
import type { CoursePart } from "#core/route";

/** A figure with the sentence that says where it comes from. */
export interface Explained {
  readonly value: Estimate;
  readonly because: string;
  /** Reckoned beyond what was measured: drawn in pencil. */
  readonly pencil: boolean;
  /** The arithmetic, line by line, with its numbers. */
  readonly how: readonly string[];
}

export interface PlainResult {
  readonly energyWh: number;
  /** Wh per metre. */
  readonly whPerM: number;
  readonly rangeM: number;
  readonly because: string;
}

/** The discharge curve at a mark, fraction used with its sd. */
export interface CurvePoint {
  readonly distanceM: number;
  readonly used: Estimate;
  /** Energy left, 1 less what is used. */
  readonly left: Estimate;
}

/** One reading as drawn on the strip: where it puts the curve, and how far it stands from the rest. */
export interface DrawnReading {
  readonly rootId: string;
  readonly field: string | null;
  readonly kind: string;
  readonly mark: number;
  readonly distanceM: number;
  /** Fraction used that the reading says, with its own 1 sd; null for energy readings. */
  readonly says: Estimate | null;
  readonly struck: boolean;
  /** Residual against the answer without it, sds; null when struck. */
  readonly standing: number | null;
  readonly text: string;
  /** How it bears on the Wh/mi; null when struck. */
  readonly row: ReadingRow | null;
}

/** A reading as its row of the ledger. Fractions of the pack, or Wh for energy readings, as `inWh` says. */
export interface ReadingRow {
  readonly inWh: boolean;
  readonly says: number;
  readonly sd: number;
  /** What the whole answer has there. */
  readonly answer: number;
  /** Share of all the readings' news of the Wh/mi. */
  readonly share: number;
  /** The ride's Wh per metre without it. */
  readonly without: Estimate;
}

export interface Flag {
  readonly rootId: string;
  readonly field: string | null;
  readonly distanceM: number;
  readonly standing: number;
  /** Log odds that it is a slip; over 3 it hardly is anything else. */
  readonly logOdds: number;
  readonly sentence: string;
}

export interface StretchUse {
  readonly fromM: number;
  readonly toM: number;
  readonly level: string;
  readonly ground: string;
  readonly whPerM: Estimate;
}

/** What one kind of evidence alone would say. */
export interface EvidenceAlone {
  readonly name: string;
  /** "4 percent readings". */
  readonly from: string;
  /** Wh per metre. */
  readonly whPerM: Estimate;
  readonly kind: SingleSourceEstimate["evidence"] | "straightLine";
}

/** One thing that would make the Wh/mi surer. */
export interface Surer {
  readonly measure: NextMeasure;
  readonly what: string;
  readonly minutes: number;
  /** Wh per metre that it would leave, as the answer's sd. */
  readonly sdLeft: number;
  /** Fall of the sd, Wh per metre, for each minute. */
  readonly gainPerMinute: number;
}

/** How the test ended, and where full power did. */
export interface EndView {
  /** In words; null when no end was noted. */
  readonly reason: string | null;
  /** The end closes the range. */
  readonly closed: boolean;
  readonly fullPower: {
    readonly distanceM: number;
    readonly by: "low-power mode" | "hand" | "fading speed";
    readonly rootId: string | null;
  } | null;
  /** Fraction used at the end. */
  readonly used: Estimate;
}

/** One error source's part in the doubt. */
export interface DoubtLine {
  readonly source: ErrorSource;
  /** Fall in the variance of the Wh per metre were it known exactly. */
  readonly variance: number;
  /** Of all sources' falls. */
  readonly share: number;
  /** The answer's sd were it known, Wh per metre. */
  readonly sdLeft: number;
}

/** Speed and amps of a logger, thinned to what a strip can show. */
export interface LoggedSeries {
  readonly distanceM: readonly number[];
  readonly speedMps: readonly (number | null)[];
  readonly amps: readonly (number | null)[];
  /** Least and most amps of each stretch: a peak of a second is not lost among the means. */
  readonly ampsLow: readonly (number | null)[];
  readonly ampsHigh: readonly (number | null)[];
}

export interface PartUse {
  readonly level: string;
  readonly ground: string;
  readonly distanceM: number;
  /** Null when the readings do not tell this part from the others. */
  readonly whPerM: Estimate | null;
}

export interface PackLearned {
  /** Usable energy at 25 C before the ride, Wh. */
  readonly before: Estimate;
  readonly after: Estimate;
  /** What the ride by itself says; null where it says next to nothing. */
  readonly own: Estimate | null;
  /** The ride by itself narrows it by a fifth or more. */
  readonly learned: boolean;
}

/** What one quarter of the charge took a bike. */
export interface Quarter {
  /** Fractions of the pack used. */
  readonly from: number;
  readonly to: number;
  readonly distanceM: number;
  /** Climbed in it; null without heights. */
  readonly climbM: number | null;
}

export interface Quarters {
  readonly quarters: readonly Quarter[];
  readonly by: "climb" | "way";
  /** Climb or way of the last whole quarter over that of the first: 1 where the charge falls evenly. */
  readonly lastOverFirst: Estimate;
  /** Whether it differs from 1 by more than two sds. */
  readonly even: boolean;
}

/** Energy per metre at a speed that was held, by a logger. */
export interface SteadyUse {
  readonly level: string;
  readonly ground: string;
  readonly speedMps: number;
  /** Wh per metre. */
  readonly whPerM: Estimate;
  /** Stretches of time it rests on. */
  readonly windows: number;
  /** Enough of them that wind and slope cancel. */
  readonly manyWays: boolean;
}

/** What was noted on the way besides the pack; null where nobody did. */
export interface NotedOnWay {
  readonly stops: number | null;
  /** Mean of the heart rates noted, else recorded in motion. */
  readonly bpm: number | null;
  /** Mean power at the cranks in motion, W; null where nothing measured it. */
  readonly riderW: number | null;
  readonly windMps: number | null;
  /** Least and most air temperature noted. */
  readonly airTempC: { readonly from: number; readonly to: number } | null;
  /** Share of the way ridden faster than the motor helps. */
  readonly unassistedShare: number | null;
  /** Speed between check-ins by their times, less the stops that were counted; for where no track says better. */
  readonly clockSpeedMps: number | null;
  /** Whether nobody noted a stop, so that the times hold rests and the speed is taken from the quickest part of the way. */
  readonly clockHoldsRests: boolean;
  /** The same by level, where several were ridden. */
  readonly levelSpeedMps: Readonly<Record<string, number>>;
  /** Climb as the recorder said at check-ins, where no track has heights. */
  readonly climbM: number | null;
  /** The display's guesses of the way left, and where they stood. */
  readonly guesses: readonly { readonly distanceM: number; readonly guessM: number }[];
}

/** What a test shows of the bike's gauge. */
export interface GaugeSeen {
  /** Percents as they were read, with what of the pack was used there, and where. */
  readonly percents: readonly {
    readonly shown: number;
    readonly used: Estimate;
    readonly distanceM: number;
  }[];
  /** How often bars came back at rest. */
  readonly rebounds: number;
  /** Way from where the last bar began to blink to an end that closes the range, m; null without either. */
  readonly blinkToEndM: number | null;
  /** The percent shown as the pack cut off; null where nobody read it. */
  readonly percentAtCutOff: number | null;
  /** Log density of the readings, were the percent to count each of these; null with too few percents to tell. */
  readonly counts: Readonly<Record<"charge" | "energy" | "volts", number>> | null;
}

/** Everything the screens show of one test. SI: Wh per metre, metres, Wh. All sds are widened and hold the distance error where they should. */
export interface TestResults {
  readonly best: Explained;
  readonly plain: PlainResult | null;
  readonly plainMissing: string | null;
  /** Why plain and best differ, in one sentence; null without a plain answer. */
  readonly difference: string | null;
  readonly energy: Explained;
  readonly distance: Explained;
  readonly capacity: Explained;
  /** What the way left rests on, after the last check-in. */
  readonly soFar: RideSoFar;
  readonly rangeTotal: Explained | null;
  readonly rangeFullPower: Explained | null;
  readonly rangeWithReserve: Explained | null;
  readonly movingS: number | null;
  readonly meanSpeedMps: number | null;
  readonly topSpeedMps: number | null;
  readonly climbM: number | null;
  /** How much of the way lies at which slope; null without heights. */
  readonly slopes: readonly CoursePart[] | null;
  readonly noted: NotedOnWay;
  readonly curve: readonly CurvePoint[];
  /** Speeds held and what they took, by a logger; empty without one. */
  readonly steady: readonly SteadyUse[];
  /** Way and climb by quarter of the charge; null where not two were ridden. */
  readonly quarters: Quarters | null;
  readonly stretches: readonly StretchUse[];
  readonly parts: readonly PartUse[];
  readonly readings: readonly DrawnReading[];
  readonly flags: readonly Flag[];
  /** Wh per metre without what is in question or set aside; null when nothing is. */
  readonly bestWithoutFlags: Estimate | null;
  /** Wh per metre with all that was read; null when nothing is set aside. */
  readonly bestWithStruck: Estimate | null;
  readonly alone: readonly EvidenceAlone[];
  /** Why the kinds of evidence differ, in one sentence; null with fewer than two. */
  readonly aloneSentence: string | null;
  readonly surer: readonly Surer[];
  readonly end: EndView;
  /** What the ride says of the pack: its capacity before and after, at 25 C. */
  readonly packLearned: PackLearned;
  /** Points of the gauge as this ride has them: fractions used. */
  readonly thresholds: readonly {
    /** "bar 3", "last bar", "low power". */
    readonly point: string;
    readonly name: string;
    readonly used: Estimate;
    /** What was assumed of it before any test. */
    readonly prior: Estimate;
    /** What this test by itself shows; null where it shows next to nothing. */
    readonly own: Estimate | null;
    /** How many other tests it was known from. */
    readonly tests: number;
  }[];
  readonly gauge: GaugeSeen;
  /** Height along the track, thinned; null without heights. */
  readonly profile: { readonly distanceM: readonly number[]; readonly heightM: readonly number[] } | null;
  readonly series: LoggedSeries | null;
  readonly budget: readonly DoubtLine[];
  /** Factor by which disagreement among the readings widened every sd; 1 when they agree. */
  readonly widened: number;
  readonly chi2PerReading: number;
  readonly odometer: {
    readonly k: number;
    readonly sd: number;
    readonly warn: boolean;
    readonly impliedCircumferenceMm: number | null;
  } | null;
  readonly notices: readonly string[];
  readonly course: Timeline;
}
