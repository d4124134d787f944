import { nth, fixed } from "#core/base";
import type { LiveEntry } from "./fold.ts";
import type { LoggedReading } from "./timeline.ts";

/** One entry at a mark, with the ride it was made on. */
export interface MarkedEntry {
  readonly entry: LiveEntry;
  readonly mark: number;
  readonly ride: number;
}

/** Marks that matter to a counter: where each ride starts, and where a charge ended. */
export interface CounterStops {
  readonly rideStart: readonly number[];
  /** Mark before each charge -> mark after it. */
  readonly charges: ReadonlyMap<number, number>;
}

type Field = "counterWh" | "counterAh";
const UNIT = { counterWh: "Wh", counterAh: "Ah" } as const;

/** A counter that falls by over half was reset; a smaller fall is energy that came back. */
const RESET_BELOW = 0.5;

/** A counter as it stood at a mark. */
interface Stand {
  readonly mark: number;
  readonly value: number;
}

interface Seen extends Stand {
  readonly ride: number;
  readonly rootId: string;
  readonly struck: boolean;
}

const readingOf = (field: Field, meter: string, from: Stand, to: Stand) => {
  const span = { fromMark: from.mark, toMark: to.mark, meter };
  const counted = to.value - from.value;
  return field === "counterWh"
    ? ({ kind: "energyCounter", ...span, wh: counted, stepWh: 1 } as const)
    : ({ kind: "chargeCounter", ...span, ah: counted, stepAh: 0.01 } as const);
};

/** The charge, if any, between two marks. */
function chargeBetween(charges: CounterStops["charges"], from: number, to: number) {
  return [...charges]
    .map(([before, after]) => ({ before, after }))
    .find(({ before, after }) => before >= from && after <= to);
}

/** Where a counter is counted from when first seen: its ride's start, taken as zero, unless a charge lies between. */
function firstBase(seen: Seen, { rideStart, charges }: CounterStops): Stand {
  const start = nth(rideStart, seen.ride);
  return seen.mark === start || chargeBetween(charges, start, seen.mark) ? seen : { mark: start, value: 0 };
}

/** Where a counter is counted from after a further reading, and what to say when it was reset. */
function nextBase(base: Stand, last: Seen, seen: Seen, stops: CounterStops, unit: string) {
  const charge = chargeBetween(stops.charges, last.mark, seen.mark);
  const fell = seen.value >= 0 && seen.value < last.value * RESET_BELOW;
  if (fell) {
    const changedRide = seen.ride > last.ride;
    return {
      base: changedRide ? { mark: nth(stops.rideStart, seen.ride), value: 0 } : seen,
      notice: `The counter fell from ${fixed(last.value, 1)} to ${fixed(seen.value, 1)} ${unit}: taken as a reset${changedRide ? " at the ride's start" : ", so the stretch before it is not counted"}.`,
    };
  }
  if (!charge) return { base, notice: null };
  return {
    base: last.mark === charge.before ? { mark: charge.after, value: last.value } : seen,
    notice: null,
  };
}

/** What each meter showed, in order. */
function seenBy(entries: readonly MarkedEntry[], field: Field): ReadonlyMap<string, readonly Seen[]> {
  const meters = new Map<string, Seen[]>();
  for (const { entry, mark, ride } of entries) {
    const body = entry.body as { readonly [Key in Field]?: number } & { readonly meter?: string };
    const value = body[field];
    if (value === undefined) continue;
    const meter = body.meter ?? "meter";
    const struck = entry.struck || entry.struckFields.includes(field);
    meters.set(meter, [...(meters.get(meter) ?? []), { mark, value, ride, rootId: entry.rootId, struck }]);
  }
  return meters;
}

/**
 * What running counters say: one reading per mark from the counter's last reset, never differences of neighbours. A
 * counter first read on the way is taken from zero at its ride's start. After a reset, or a charge at which it was not
 * read, it starts anew.
 */
export function counterReadings(
  entries: readonly MarkedEntry[],
  stops: CounterStops,
): { readonly readings: readonly LoggedReading[]; readonly notices: readonly string[] } {
  const readings: LoggedReading[] = [];
  const notices: string[] = [];
  for (const field of ["counterWh", "counterAh"] as const)
    for (const [meter, all] of seenBy(entries, field)) {
      let base: Stand | null = null;
      let last: Seen | null = null;
      for (const seen of all) {
        let from: Stand = base ?? firstBase(seen, stops);
        if (!seen.struck) {
          if (base && last) {
            const next = nextBase(base, last, seen, stops, UNIT[field]);
            from = next.base;
            if (next.notice) notices.push(next.notice);
          }
          base = from;
          last = seen;
        }
        const { rootId, struck } = seen;
        if (seen.mark > from.mark)
          readings.push({ reading: readingOf(field, meter, from, seen), rootId, field, struck });
      }
    }
  return { readings, notices };
}
