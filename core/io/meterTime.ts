import { dayAt, momentOf } from "#core/base";

/** The clock of the ride that a meter's times are of. */
export interface MeterClock {
  /** When the ride began, s since the epoch; null when nobody knows. */
  readonly rideStartS: number | null;
  /** The zone of times that name none. */
  readonly zone: string;
}

/** A cell's moment: s since the epoch, or since the ride began; and whether a clock said it that names no day. */
interface Told {
  readonly s: number;
  readonly ofDay: boolean;
}

const dayText = (...parts: readonly (string | undefined)[]) =>
  parts.map((part = "", i) => part.padStart(i ? 2 : 4, "0")).join("-");

/**
 * A day as files write it: the year first, or the day first with dots, or with strokes, of which the order that comes nearer
 * to the ride is meant.
 */
function dayIn(text: string, rideStartS: number | null): string | null {
  const year = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(text);
  if (year) return dayText(year[1], year[2], year[3]);
  const dots = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text);
  if (dots) return dayText(dots[3], dots[2], dots[1]);
  const strokes = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(text);
  if (!strokes) return null;
  const [, first, second, its] = strokes;
  const far = (day: string) => Math.abs(Date.parse(`${day}T12:00Z`) / 1000 - (rideStartS ?? 0));
  const days = [dayText(its, first, second), dayText(its, second, first)];
  return days.filter((day) => Number.isFinite(far(day))).sort((a, b) => far(a) - far(b))[0] ?? null;
}

const CLOCK = /^(\d{1,3}):(\d{2})(?::(\d{2}))?([.,]\d+)?\s*(am|pm)?\s*(Z|[+-]\d{2}:?\d{2})?$/i;

/**
 * A cell's moment: a number times its column's factor; a clock's time, with a day or without; by the ride's zone where none
 * stands.
 *
 * @returns null for what is no time
 */
export function momentIn(cell: string, factor: number, { zone, rideStartS }: MeterClock): Told | null {
  if (/^-?\d+([.,]\d+)?$/.test(cell)) return { s: factor * Number(cell.replace(",", ".")), ofDay: false };
  const split = /^(\S+?)[T ]\s*(.+)$/.exec(cell);
  const day = split ? dayIn(split[1] ?? "", rideStartS) : null;
  const clock = CLOCK.exec(day ? (split?.[2] ?? "") : cell);
  if (!clock) return null;
  const [, hours = "0", minutes = "0", seconds, part = "", half = "", offset] = clock;
  const hour = half === "" ? Number(hours) : (Number(hours) % 12) + (half.toLowerCase() === "pm" ? 12 : 0);
  const fraction = Number(`0${part.replace(",", ".")}`);
  if (!day) {
    // Two parts are hours and minutes of a clock, as three are.
    return { s: hour * 3600 + Number(minutes) * 60 + Number(seconds ?? 0) + fraction, ofDay: true };
  }
  const its =
    offset === undefined ? zone : /z/i.test(offset) ? "+00:00" : offset.replace(/^(...):?(..)$/, "$1:$2");
  const text = `${String(hour).padStart(2, "0")}:${minutes}:${seconds ?? "00"}`;
  const at = momentOf(day, text, its);
  return Number.isNaN(at) ? null : { s: at / 1000 + fraction, ofDay: false };
}

/** Times below this are seconds since the ride's start, not since the epoch; above that, milliseconds. */
const [EARLIEST_EPOCH_S, LATEST_EPOCH_S] = [1e8, 1e11];
/** A clock that begins before this runs from the ride's start, s: nobody rides at three past midnight. */
const FROM_START_S = 600;
const DAY_S = 86_400;

/**
 * Moments of one file's rows in s since the epoch, one after the other: seconds and clocks without a day are put beside
 * the ride's start, and over midnight.
 */
export function momentsFrom({ rideStartS, zone }: MeterClock) {
  let [base, before] = [null as number | null, -Infinity];
  /** @returns NaN where the ride's start is needed and nobody noted it */
  return ({ s, ofDay }: Told): number => {
    if (s >= LATEST_EPOCH_S) return s / 1000;
    if (s >= EARLIEST_EPOCH_S) return s;
    if (rideStartS === null) return NaN;
    if (base === null) base = !ofDay || s < FROM_START_S ? rideStartS : midnightOf(rideStartS, zone);
    // A clock that falls back by hours passed midnight.
    if (ofDay && base + s < before - DAY_S / 2) base += DAY_S;
    before = base + s;
    return before;
  };
}

/** Midnight of a moment's day by a zone's clock, s since the epoch. */
function midnightOf(timeS: number, zone: string): number {
  const at = momentOf(dayAt(timeS * 1000, zone), "00:00", zone);
  return Number.isNaN(at) ? timeS : at / 1000;
}
