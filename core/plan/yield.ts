import { ASSUMED } from "#core/assumptions";
import { pieceUse, type Forecast } from "#core/forecast";
import {
  nextSteps,
  rideFigure,
  solveLedger,
  sumFigures,
  varianceOf,
  type LedgerInput,
  type Solved,
} from "#core/ledger";
import { NOMINAL_CELL_VOLTS } from "#core/pack";
import { bad, good, type Result } from "#core/problems";
import { METRES_PER_MILE, withRelative, type Uncertain } from "#core/quantities";
import { expectedLedger, type ExpectedRide } from "./ledger.ts";
import { routeOf, runOrder, type PlannedRoute, type PlanRecord } from "./record.ts";
import { TAKEN, type Compare, type Method, type Taken } from "./schema.ts";

/** One thing that would make the figure surer. */
export interface Addition {
  readonly what: string;
  /** A person's time, min. */
  readonly minutes: number;
  /** Sd it would leave, Wh per metre. */
  readonly sdLeft: number;
  readonly gainPerMinute: number;
}

/** What a comparison will tell apart. */
export interface ComparisonYield {
  /** Runs in order, by name. */
  readonly order: readonly string[];
  /** Of the difference, Wh per metre. */
  readonly sd: number;
  readonly wanted: number;
  /** The wanted difference is over two sds. */
  readonly resolved: boolean;
  /** Runs of each that would resolve it on this section; null when one charge does not hold them. */
  readonly pairsNeeded: number | null;
  /** Length of section that would resolve it with these runs, m; null likewise. */
  readonly sectionNeededM: number | null;
}

/** What a plan costs and what it will leave, by the ledger of the readings it would yield. */
export interface PlanYield {
  readonly rideS: number;
  /** Riding, rests and handling, min. */
  readonly minutes: number;
  readonly energyWh: number;
  /** Of the usable energy. */
  readonly chargeShare: number;
  /** Energy per metre with the plus-or-minus left; null where the method measures something else. */
  readonly whPerM: Uncertain | null;
  readonly comparison: ComparisonYield | null;
  /** Usable energy with the plus-or-minus a bench leaves, Wh. */
  readonly bench: Uncertain | null;
  readonly surer: readonly Addition[];
}

/** Least share of the sd that an addition must take away to be listed. */
const WORTH_SAYING = 0.03;
/** Most of the charge that planned runs may use. */
const DEEPEST = 0.97;
const MOST_PAIRS = 12;
const SECTION_FACTORS = [1.5, 2, 3, 4, 6, 8, 12, 16, 24];
/** Length of one steady pass, m, and a person's time to set it up, min. */
const PASS_M = 800;
const PASS_SETUP_MIN = 3;
/** A person's time to start and end any ride, min. */
const HANDLING_MIN = 20;
/** A bench discharge runs at about this share of the pack an hour. */
const BENCH_RATE = 0.2;

const MINUTES: Readonly<Record<Taken, number>> = {
  percent: 1,
  bars: 1,
  "rest volts": 2 * ASSUMED.restMinutes,
  "energy counter": ASSUMED.meterMinutes,
  "wall meter": ASSUMED.refillMinutes,
};
const WHAT: Readonly<Record<Taken, string>> = {
  percent: "read the percent as well",
  bars: "note each bar lost as well",
  "rest volts": "let it stand and read rest volts at the start and the end",
  "energy counter": "put an energy counter on",
  "wall meter": "read a wall meter over the next full charge",
};

const rideSd = (solved: Solved, ride = 0) =>
  Math.sqrt(varianceOf(solved.posterior, rideFigure(solved, ride))) / METRES_PER_MILE;

function checkIns(route: PlannedRoute, everyM: number): readonly number[] {
  return Array.from({ length: Math.floor((route.endM - 1) / everyM) }, (_, i) => (i + 1) * everyM);
}

/** The ride as one, with what it takes. */
function wholeRide(record: PlanRecord, route: PlannedRoute, taken: readonly Taken[]): ExpectedRide {
  const { method } = record.plan;
  return {
    fromM: 0,
    toM: route.endM,
    checkInsM: checkIns(route, Math.max(method.everyM, route.endM / 60)),
    taken,
    fromFull: record.plan.startPercent >= 100,
    untilEmpty: method.until === "the pack is empty",
  };
}

const solve = (input: LedgerInput): Solved | null => {
  const solved = solveLedger(input);
  return solved.ok ? solved.value : null;
};

/** Readings the bike can give, of those it does not take yet. */
function possibleReadings({ bike, pack, plan }: PlanRecord): readonly Taken[] {
  return TAKEN.filter(
    (taken) =>
      !plan.method.taken.includes(taken) &&
      !(taken === "percent" && bike.percentStep === 0) &&
      !(taken === "bars" && bike.bars === 0) &&
      !(taken === "rest volts" && pack.seriesCells === undefined),
  );
}

/** Additions that take something off an sd, by what each minute gains. */
function worthwhile(
  now: number,
  found: readonly { readonly what: string; readonly minutes: number; readonly sdLeft: number | null }[],
): readonly Addition[] {
  return found
    .flatMap(({ what, minutes, sdLeft }) =>
      sdLeft !== null && sdLeft < now * (1 - WORTH_SAYING)
        ? [{ what, minutes, sdLeft, gainPerMinute: (now - sdLeft) / Math.max(1, minutes) }]
        : [],
    )
    .sort((a, b) => b.gainPerMinute - a.gainPerMinute);
}

/** What one ride will leave, and what would narrow it. */
function singleYield(record: PlanRecord, route: PlannedRoute) {
  const { bike, plan } = record;
  const { forecast } = route;
  const { taken } = plan.method;
  const solved = solve(expectedLedger(forecast, bike, [wholeRide(record, route, taken)]));
  if (!solved) return null;
  const mean = forecast.at(route.endM).energyWh.mean / route.endM;
  const distance = (sd: number) => withRelative({ mean, sd }, ASSUMED.gpsScaleSd).sd;
  const now = distance(rideSd(solved));
  const next = nextSteps(solved);
  const nextSd = (measure: string) => next.find((step) => step.measure === measure)?.sdLeft ?? null;
  const fromNext = (measure: string, what: string, minutes: number) => {
    const sd = nextSd(measure);
    return { what, minutes, sdLeft: sd === null ? null : distance(sd / METRES_PER_MILE) };
  };
  const surer = worthwhile(now, [
    ...possibleReadings(record).map((more) => {
      const again = solve(expectedLedger(forecast, bike, [wholeRide(record, route, [...taken, more])]));
      return { what: WHAT[more], minutes: MINUTES[more], sdLeft: again && distance(rideSd(again)) };
    }),
    fromNext("bench", "measure the pack on a bench first", ASSUMED.benchMinutes),
    fromNext("tenMiles", "ride ten more miles", 600 / ASSUMED.rideMph),
  ]);
  return { whPerM: { mean, sd: now }, surer };
}

/** Sd of the difference that runs in the A B B A order leave; null when one charge does not hold them. */
function differenceSd(
  record: PlanRecord,
  forecast: Forecast,
  compare: Compare,
  pairs: number,
  sectionM: number,
  taken: readonly Taken[],
): number | null {
  const runs = runOrder(pairs);
  if (forecast.at(runs.length * sectionM).used.mean > DEEPEST) return null;
  const rides = runs.map((run, i): ExpectedRide => ({
    fromM: i * sectionM,
    toM: (i + 1) * sectionM,
    checkInsM: [],
    taken,
    fromFull: i === 0 && record.plan.startPercent >= 100,
    untilEmpty: false,
    variant: run === "a" ? compare.a : compare.b,
    section: "section",
  }));
  const solved = solve(expectedLedger(forecast, record.bike, rides));
  if (!solved) return null;
  const each = runs.map((run, i) => [rideFigure(solved, i), (run === "a" ? 1 : -1) / pairs] as const);
  return Math.sqrt(varianceOf(solved.posterior, sumFigures(each))) / METRES_PER_MILE;
}

function comparisonYield(record: PlanRecord, { forecast }: PlannedRoute, compare: Compare) {
  const { taken } = record.plan.method;
  const lapM = forecast.along.way.lapM;
  const sdWith = (pairs: number, sectionM: number, by: readonly Taken[] = taken) =>
    differenceSd(record, forecast, compare, pairs, sectionM, by);
  const sd = sdWith(compare.pairs, lapM);
  if (sd === null) return null;
  const wanted = compare.wantedWhPerM;
  const enough = (found: number | null) => found !== null && 2 * found <= wanted;
  const morePairs = Array.from({ length: MOST_PAIRS }, (_, i) => i + 1);
  const runMinutes = forecast.along.secondsTo(lapM).mean / 60;
  const surer = worthwhile(sd, [
    ...possibleReadings(record)
      .filter((more) => more !== "wall meter")
      .map((more) => ({
        what: WHAT[more],
        minutes: MINUTES[more] * (more === "rest volts" ? compare.pairs : 1),
        sdLeft: sdWith(compare.pairs, lapM, [...taken, more]),
      })),
    {
      what: "ride each once more",
      minutes: 2 * runMinutes,
      sdLeft: sdWith(compare.pairs + 1, lapM),
    },
    {
      what: "make the section twice as long",
      minutes: 2 * compare.pairs * runMinutes,
      sdLeft: sdWith(compare.pairs, 2 * lapM),
    },
  ]);
  const comparison: ComparisonYield = {
    order: runOrder(compare.pairs).map((run) => compare[run]),
    sd,
    wanted,
    resolved: enough(sd),
    pairsNeeded: morePairs.find((pairs) => enough(sdWith(pairs, lapM))) ?? null,
    sectionNeededM:
      [1, ...SECTION_FACTORS].map((by) => by * lapM).find((m) => enough(sdWith(compare.pairs, m))) ?? null,
  };
  return { comparison, surer };
}

/** Two steady passes, out and back: amps read as they flicker, volts and speed beside them. */
function steadyYield(record: PlanRecord, { forecast }: PlannedRoute) {
  const { rig, pack } = forecast.input;
  const use = pieceUse(
    { lengthM: PASS_M, slope: 0, ground: "asphalt", level: rig.level, headingDeg: null, leg: 0 },
    { ...rig, stopsPerMi: 0 },
  );
  const volts = (pack.seriesCells ?? 13) * NOMINAL_CELL_VOLTS[pack.chemistry];
  const flickerWh = (volts * ASSUMED.ampsFlicker * use.s) / 3600;
  const miles = PASS_M / METRES_PER_MILE;
  const pass = (mark: number) =>
    ({
      kind: "energyCounter",
      fromMark: mark,
      toMark: mark + 1,
      wh: use.wh,
      stepWh: flickerWh,
      meter: "display",
    }) as const;
  const solved = solve({
    packs: { only: pack },
    gauges: { only: { percentStep: 1, counts: "charge", bars: 0 } },
    massKg: rig.massKg,
    cells: ["steady"],
    rides: [
      {
        pack: "only",
        gauge: "only",
        legs: [{ miles: { steady: miles } }, { miles: { steady: miles } }],
        readings: [pass(0), pass(1)],
      },
    ],
  });
  if (!solved) return null;
  const mean = use.wh / PASS_M;
  const sd = Math.hypot(rideSd(solved), (mean * ASSUMED.speedReadSd) / Math.SQRT2);
  return { whPerM: { mean, sd }, rideS: 2 * use.s, energyWh: 2 * use.wh };
}

/**
 * What a plan will cost in time and charge, and the plus-or-minus it will leave: the ledger solved on the readings it
 * would yield, exactly as forecast.
 *
 * @returns a problem when the plan cannot be forecast, or no reading it takes says anything
 */
export function yieldOf(record: PlanRecord): Result<PlanYield> {
  const routed = routeOf(record);
  if (!routed.ok) return routed;
  // A course longer than the pack lasts yields what is ridden of it.
  const lastsM = routed.value.forecast.where(DEEPEST)?.mean ?? Infinity;
  const emptied = record.plan.method.until === "the pack is empty";
  const endM = emptied ? routed.value.endM : Math.min(routed.value.endM, lastsM);
  const route = { ...routed.value, endM };
  const { forecast } = route;
  const { method } = record.plan;
  const none = { whPerM: null, comparison: null, bench: null, surer: [] as readonly Addition[] };
  if (method.school === "bench") {
    const { capacity } = forecast;
    return good({
      ...none,
      rideS: 0,
      minutes: ASSUMED.benchMinutes + 60 / BENCH_RATE,
      energyWh: capacity.mean,
      chargeShare: 1,
      bench: { mean: capacity.mean, sd: capacity.mean * ASSUMED.measuredSdFloor },
    });
  }
  if (method.school === "steady current") {
    const steady = steadyYield(record, route);
    if (!steady) return unsaid();
    return good({
      ...none,
      ...steady,
      minutes: HANDLING_MIN + PASS_SETUP_MIN * 2 + steady.rideS / 60,
      chargeShare: steady.energyWh / forecast.capacity.mean,
    });
  }
  const end = forecast.at(endM);
  const cost = {
    rideS: end.timeS.mean,
    minutes: HANDLING_MIN + end.timeS.mean / 60 + handling(method),
    energyWh: end.energyWh.mean,
    chargeShare: Math.min(1, end.energyWh.mean / forecast.capacity.mean),
  };
  if (method.compare) {
    const pair = comparisonYield(record, route, method.compare);
    return pair ? good({ ...none, ...cost, ...pair }) : tooMuch();
  }
  const single = singleYield(record, route);
  return single ? good({ ...none, ...cost, ...single }) : unsaid();
}

/** A person's time for a method's readings besides the riding, min. */
function handling({ taken, compare }: Method): number {
  const runs = compare ? 2 * compare.pairs : 1;
  return taken.reduce((sum, each) => sum + (each === "rest volts" ? MINUTES[each] * runs : MINUTES[each]), 0);
}

const unsaid = () =>
  bad<PlanYield>(
    "no-reading",
    "method.taken",
    "None of the readings this plan takes says anything of the energy: choose percent, bars, rest volts or a meter.",
  );
const tooMuch = () =>
  bad<PlanYield>(
    "runs-too-long",
    "method.compare.pairs",
    "One charge does not hold these runs: choose a shorter course or fewer runs.",
  );
