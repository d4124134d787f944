import { there, nth, DEFAULTS, Z_95, type Estimate } from "#core/base";
import {
  goOnBelow,
  type ExpectedAt,
  type Forecast,
  type Span,
  percentAt,
  wayHome,
  restVoltsAt,
  barsAt,
  type Display,
} from "#core/forecast";
import { curveOf } from "#core/battery";
import type { PlannedRoute } from "./record.ts";
import type { Plan } from "./schema.ts";

/** A place of the run sheet, with what to expect there. */
export interface CheckIn {
  /** Why one looks here: "check-in", "turn", "lap 2 done", a place's name. */
  readonly what: string;
  readonly expected: ExpectedAt;
  /** Where it will be, when the charge and not the way brings one here; null at a place of the way. */
  readonly where: Estimate | null;
  /** The display must still show this, or one goes home from here; null where that does not arise. */
  readonly goOnAbove: {
    readonly percent: number | null;
    readonly bars: number | null;
    readonly restVolts: number | null;
    /** Not even a full pack, or the most that is expected to be left there, is sure to do it. */
    readonly impossible: boolean;
  } | null;
}

/** When a bar is expected to go. */
export interface BarForecast {
  readonly bar: number;
  readonly atM: { readonly mean: number; readonly sd: number };
}

/** Most check-ins that fit on one printed page. */
const MOST_ROWS = 15;
/** Places nearer than this share of the spacing are one. */
const SAME_SHARE = 0.12;

interface Reason {
  readonly atM: number;
  readonly what: string;
  readonly where?: Estimate;
  /** Which name comes first where several meet. */
  readonly weight: number;
}

/** The end: where the course does, or about where the pack or a share of its charge does. */
function endOf({ method }: Plan, { forecast, endM }: PlannedRoute): Reason {
  if (method.compare || method.until === "the course is ridden") return { atM: endM, what: "end", weight: 6 };
  const emptied = method.until === "the pack is empty";
  const fraction = emptied ? 1 : forecast.start.mean + method.share;
  const where = forecast.where(fraction, emptied ? DEFAULTS.cutOffSd : 0);
  return {
    atM: endM,
    what: emptied ? "the pack ends about here" : "end",
    weight: 6,
    ...(where && { where }),
  };
}

function reasonsOf(plan: Plan, route: PlannedRoute, everyM: number): readonly Reason[] {
  const { forecast, endM, runs } = route;
  const { way } = forecast.along;
  const laps = Math.ceil(endM / way.lapM - 1e-6);
  const lapsADay = laps / plan.days;
  const each = Array.from({ length: laps }, (_, lap) => lap);
  const { compare } = plan.method;
  const ends = each.flatMap((lap): readonly Reason[] => {
    const atM = (lap + 1) * way.lapM;
    if (atM > endM + 1) return [];
    if (compare) {
      const run = nth(runs, lap);
      return [{ atM, what: `run ${lap + 1} done: ${compare[run]}`, weight: 5 }];
    }
    if (plan.days > 1 && (lap + 1) % lapsADay === 0)
      return [{ atM, what: `day ${(lap + 1) / lapsADay} done`, weight: 5 }];
    return laps > 1 ? [{ atM, what: `lap ${lap + 1} done`, weight: 4 }] : [];
  });
  const quarters = plan.method.atQuarters
    ? [0.25, 0.5, 0.75].flatMap((fraction) => {
        const at = forecast.where(fraction);
        return at && at.mean < endM
          ? [{ atM: at.mean, what: `${fraction * 100} % of the charge used`, where: at, weight: 1 }]
          : [];
      })
    : [];
  return [
    ...Array.from({ length: Math.floor(endM / everyM) }, (_, i) => ({
      atM: (i + 1) * everyM,
      what: "check-in",
      weight: 0,
    })),
    ...quarters,
    ...each.flatMap((lap) =>
      way.passings.map(({ name, atM }) => ({
        atM: lap * way.lapM + atM,
        what: name,
        weight: 3,
      })),
    ),
    ...(way.turnM === null
      ? []
      : each.map((lap) => ({ atM: lap * way.lapM + there(way.turnM), what: "turn", weight: 4 }))),
    ...ends,
    endOf(plan, route),
  ].filter(({ atM }) => atM > 0 && atM <= endM + 1);
}

/** Reasons that fall together are one row, named by the weightiest. */
function merged(reasons: readonly Reason[], nearM: number): readonly Reason[] {
  const rows: Reason[] = [];
  for (const reason of [...reasons].sort((a, b) => a.atM - b.atM)) {
    const last = rows.at(-1);
    if (!last || reason.atM - last.atM > nearM) rows.push(reason);
    else if (reason.weight > last.weight) {
      const both = last.weight >= 3 ? `${last.what}; ${reason.what}` : reason.what;
      rows[rows.length - 1] = { ...reason, what: both };
    } else if (reason.weight >= 3 && reason.what !== last.what)
      rows[rows.length - 1] = { ...last, what: `${last.what}; ${reason.what}` };
  }
  return rows;
}

function displayOf({ input }: Forecast): Display {
  return { ...input.display, curve: curveOf(input.pack), seriesCells: input.pack.seriesCells };
}

/** The least a display may show at a fraction used; impossible when not even the most that is expected there does. */
function leastShown(display: Display, fraction: number, { used }: ExpectedAt): CheckIn["goOnAbove"] {
  const impossible = fraction <= Math.max(0, used.mean - Z_95 * used.sd);
  const exact = { mean: Math.max(0, fraction), sd: 0 };
  const up = (span: Span | null, step: number) =>
    span === null ? null : Math.ceil(span.expected / step - 1e-9) * step;
  return {
    percent: up(percentAt(display, exact), Math.max(1, display.percentStep)),
    bars: up(barsAt(display, exact), 1),
    restVolts: up(restVoltsAt(display, exact), display.meterStepV || 0.1),
    impossible,
  };
}

/** Everything a run sheet lists along the way: every so far, at quarters of the charge, at turns, laps and places. */
export function checkInsOf(plan: Plan, route: PlannedRoute): readonly CheckIn[] {
  const { forecast, endM } = route;
  const everyM = Math.max(plan.method.everyM, endM / (MOST_ROWS / 2));
  const nearM = SAME_SHARE * Math.min(everyM, endM);
  let rows = merged(reasonsOf(plan, route, everyM), nearM);
  if (rows.length > MOST_ROWS) {
    // The weightiest stay, evenly spread where they weigh the same.
    const ranked = rows.map((row, i) => ({ row, rank: row.weight + ((i * 0.618) % 1) }));
    const keep = new Set(
      ranked
        .sort((a, b) => b.rank - a.rank)
        .slice(0, MOST_ROWS)
        .map(({ row }) => row),
    );
    rows = rows.filter((row) => keep.has(row));
  }
  const display = displayOf(forecast);
  const { way } = forecast.along;
  const turns = way.closed && plan.method.until === "the course is ridden";
  let goesHome = false;
  return rows.map(({ atM, what, where = null }, i) => {
    const next = rows[i + 1];
    // Where going on is the way home, and once the sheet has said to go there, nothing is left to decide.
    const decides = turns && !goesHome && next !== undefined && wayHome(forecast, atM).by === "back";
    const goOnAbove = decides
      ? leastShown(display, goOnBelow(forecast, atM, next.atM), forecast.at(atM))
      : null;
    goesHome ||= goOnAbove?.impossible === true;
    return { what, where, expected: forecast.at(atM), goOnAbove };
  });
}

/** Where each bar is expected to go, up to the end. */
export function barsLost({ forecast, endM }: PlannedRoute): readonly BarForecast[] {
  const { bars } = forecast.input.display;
  return Array.from({ length: Math.max(0, bars - 1) }, (_, i) => i + 1).flatMap((gone) => {
    const at = forecast.where(gone / bars, DEFAULTS.barThresholdSd / bars);
    return at && at.mean <= endM ? [{ bar: bars - gone + 1, atM: at }] : [];
  });
}
