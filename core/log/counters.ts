import { fixed } from "#core/quantities";
import type { LiveEntry } from "./fold.ts";
import type { LoggedReading } from "./marks.ts";

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

const readingOf = (field: Field, fromMark: number, toMark: number, counted: number, meter: string) =>
  field === "counterWh"
    ? ({ kind: "energyCounter", fromMark, toMark, wh: counted, stepWh: 1, meter } as const)
    : ({ kind: "chargeCounter", fromMark, toMark, ah: counted, stepAh: 0.01, meter } as const);

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
  for (const field of ["counterWh", "counterAh"] as const) {
    const meters = new Map<string, { value: number; at: MarkedEntry; struck: boolean }[]>();
    for (const at of entries) {
      const body = at.entry.body as { readonly [Key in Field]?: number } & { readonly meter?: string };
      const value = body[field];
      if (value === undefined) continue;
      const meter = body.meter ?? "meter";
      const struck = at.entry.struck || at.entry.struckFields.includes(field);
      meters.set(meter, [...(meters.get(meter) ?? []), { value, at, struck }]);
    }
    for (const [meter, seen] of meters) {
      let base: { mark: number; value: number } | null = null;
      let last: { mark: number; value: number; ride: number } | null = null;
      for (const { value, at, struck } of seen) {
        const { mark, ride, entry } = at;
        if (struck) {
          const from: number = base?.mark ?? stops.rideStart[ride]!;
          if (mark > from)
            readings.push({ reading: readingOf(field, from, mark, value - (base?.value ?? 0), meter), rootId: entry.rootId, field, struck }); // prettier-ignore
          continue;
        }
        if (base && last && value < last.value * RESET_BELOW) {
          const changedRide = ride > last.ride;
          base = changedRide ? { mark: stops.rideStart[ride]!, value: 0 } : null;
          notices.push(
            `The counter fell from ${fixed(last.value, 1)} to ${fixed(value, 1)} ${UNIT[field]}: taken as a reset${changedRide ? " at the ride's start" : ", so the stretch before it is not counted"}.`,
          );
          if (!changedRide) {
            base = { mark, value };
            last = { mark, value, ride };
            continue;
          }
        }
        const charge = [...stops.charges].find(
          ([before, after]) => (base?.mark ?? 0) <= before && mark >= after,
        );
        if (charge && base) {
          base = last?.mark === charge[0] ? { mark: charge[1], value: last.value } : { mark, value };
        }
        base ??=
          value === 0 || mark === stops.rideStart[ride]
            ? { mark, value }
            : { mark: stops.rideStart[ride]!, value: 0 };
        if (mark > base.mark)
          readings.push({
            reading: readingOf(field, base.mark, mark, value - base.value, meter),
            rootId: entry.rootId,
            field,
            struck,
          });
        last = { mark, value, ride };
      }
    }
  }
  return { readings, notices };
}
