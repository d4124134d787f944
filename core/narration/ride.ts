import { isSetUp, type Found, type Ride } from "./found.ts";
import { REASONS, type Reason } from "./kills.ts";

/** What is known of the ride as it is told: where it was, what charge it had, what was said lately. */
interface Told extends Ride {
  readonly throttle: boolean;
  readonly wind: string | null;
  readonly ground: string | null;
  /** Everything found since the pack was full. It grows in place: a copy for each thing found would be as many as their square. */
  readonly since: Line[];
}
interface Line {
  readonly kind: string;
  readonly value: unknown;
  readonly at: number;
  readonly approx: boolean;
  readonly of?: Found["of"];
}

export const startOf = (unit: "mi" | "km"): Told => ({
  unit,
  distance: null,
  percent: null,
  bars: null,
  volts: null,
  level: null,
  throttle: false,
  wind: null,
  ground: null,
  recent: [],
  since: [],
  pairs: 0,
});

/** Words within which an event said again is the same event. */
const SAME_WITHIN: Readonly<Record<string, number>> = {
  full_charge: 70,
  cut_off: 100_000,
  battery_blinking: 120,
  low_power: 160,
  stop: 60,
  turn_round: 70,
  pedalling_no_power: 80,
  bar_lost: 4,
  speed: 34,
  amps: 34,
  volts: 60,
  watts: 34,
  heart_rate: 60,
  range_guess: 60,
  percent_used: 150,
};
const ONCE =
  /^(avg_speed|top_speed|climb_gain|elapsed_time|percent_left|distance|charge_time|claim_range|weight_rider|weight_bike|pressure|pack_v|pack_ah|pack_wh|price|heart_rate)$/;

const same = (a: unknown, b: unknown) => {
  const one = Array.isArray(a) ? (a as number[]) : [a];
  const two = Array.isArray(b) ? (b as number[]) : [b];
  return (
    one.length === two.length &&
    one.every(
      (each, i) => each === two[i] || (typeof each === "number" && Math.abs(each - Number(two[i])) < 1e-6),
    )
  );
};

const single = (value: Found["value"]): number | null =>
  typeof value === "number" ? value : typeof value === "string" ? null : (value[1] ?? null);

/** As many charges read since it was said. */
const CHARGES_BETWEEN = 2;
const isCharge = ({ kind }: Line) => kind === "percent_left";
const isSaid =
  ({ kind, value }: Found) =>
  (each: Line) =>
    each.kind === kind && same(each.value, value);

/** "94, six percent. And 88, another six": the first was told after the charge it ended at, and another charge was read since. */
function isOfNextPart({ since }: Told, found: Found): boolean {
  const said = since.findLastIndex(isSaid(found));
  const charges = since
    .slice(0, said)
    .filter(isCharge)
    .map(({ value }) => Number(value));
  const [before = 100, last] = charges.length > 1 ? charges.slice(-2) : [100, charges[0]];
  return (
    said >= 0 && last !== undefined && before - last === found.value && since.slice(said + 1).some(isCharge)
  );
}

/** Why something found is nothing new: it was said before, or still holds. Null where it is new. */
export function saidBefore(told: Told, found: Found, at: number, approx: boolean): Reason | null {
  const { kind, value } = found;
  const held = {
    level: told.level,
    ground: told.ground,
    wind: told.wind,
    throttle: told.throttle ? "only" : null,
  }[kind as "level"];
  if (kind === "level") return String(value) === told.level && !told.throttle ? REASONS.recap : null;
  if (kind === "ground" || kind === "wind" || kind === "throttle")
    return value === held ? REASONS.recap : null;
  // Two bikes may have the same charge, one after the other.
  const isOthers = (of: Found["of"]) => kind === "percent_left" && of === "yours";
  const earlier = told.since.filter((each) => each.kind === kind && isOthers(each.of) === isOthers(found.of));
  if (found.anew || (kind === "percent_left" && isRefilled(told.percent, Number(value)))) return null;
  // What went between other charges is another part, as much as it may be.
  if (kind === "percent_used" && isOfNextPart(told, found)) return null;
  if (
    kind === "percent_used" &&
    CHARGES_BETWEEN <= told.since.slice(told.since.findLastIndex(isSaid(found)) + 1).filter(isCharge).length
  )
    return null;
  const within = SAME_WITHIN[kind];
  if (
    within !== undefined &&
    earlier.some(
      (each) =>
        at - each.at <= within && same(each.value, value) && (kind !== "bar_lost" || each.of === found.of),
    )
  )
    return REASONS.recap;
  if (ONCE.test(kind) && earlier.some((each) => same(each.value, value))) return REASONS.recap;
  // Bars read again farther on are a reading.
  if (kind === "bars_left" && isFarther(told)) return null;
  if (kind === "temperature" || kind === "bars_left")
    return earlier.at(-1) &&
      same(earlier.at(-1)?.value, value) &&
      (kind !== "bars_left" || earlier.at(-1)?.of === found.of)
      ? REASONS.recap
      : null;
  const figure = single(value);
  // Rounded once, exact once: one place.
  if (kind === "distance" && figure !== null)
    return earlier.some((each) => {
      const was = single(each.value as Found["value"]);
      return (
        was !== null &&
        (Math.abs(was - figure) < 0.06 ||
          (at - each.at < 70 &&
            Math.abs(was - figure) < 0.6 &&
            (approx || each.approx || Number.isInteger(figure))))
      );
    })
      ? REASONS.recap
      : null;
  return null;
}

/** Whether a place was said since the last bars. */
const isFarther = ({ since }: Told) =>
  since.findLastIndex(({ kind }) => kind === "distance") >
  since.findLastIndex(({ kind }) => kind === "bars_left");

/** A charge that only a full pack has, %. */
export const FULL = 95;
const KEPT = 10;

/** Charge that falls below the one and is read at the other or over was charged in between, %. */
const [CHARGED_FROM, CHARGED_TO] = [90, 99];
/** Whether a charge after another can only be of a pack that was filled in between. */
export const isRefilled = (last: number | null, percent: number): boolean =>
  last !== null && last < CHARGED_FROM && percent >= CHARGED_TO;

/** What begins a ride on a new charge, of all that was read in turn: a full pack, charge that came back, or a part charge. */
export function startsOf<
  Each extends { readonly kind: string; readonly value: unknown; readonly of?: Found["of"] | null },
>(read: readonly Each[], { parts }: { readonly parts: boolean }): readonly Each[] {
  let last: number | null = null;
  return read.filter(({ kind, value, of }) => {
    if (kind === "full_charge") last = null;
    const isBegun =
      kind === "full_charge" ||
      (parts && of === "charged") ||
      (kind === "percent_left" && isRefilled(last, Number(value)));
    if (kind === "percent_left" && typeof value === "number") last = value;
    return isBegun;
  });
}

/** The ride on a pack that was filled: its way, its bars and, being another test, its level are said anew. */
const onNewCharge = (told: Told, line: Line, percent: number | null): Told => ({
  ...told,
  since: [...told.since.filter(isSetUp), line],
  ...{ distance: null, bars: null, percent, level: told.distance === null ? told.level : null },
});

/** The ride after something was found. */
export function after(told: Told, found: Found, at: number, approx: boolean): Told {
  const { kind, value } = found;
  const figure = single(value);
  const line: Line = { kind, value, at, approx, ...(found.of && { of: found.of }) };
  const recent = [...told.recent.slice(1 - KEPT), line];
  const next: Told = { ...told, recent };
  told.since.push(line);
  switch (kind) {
    case "full_charge":
      // "It's on 100, I charged it last night": said just before.
      return onNewCharge(next, line, told.percent !== null && told.percent >= FULL ? told.percent : null);
    case "distance":
      return figure === null ? next : { ...next, distance: figure };
    case "percent_left":
      if (figure !== null && isRefilled(told.percent, figure)) return onNewCharge(next, line, figure);
      return found.of === "yours" ? next : { ...next, percent: figure };
    case "bars_left":
      return found.of === "yours" ? next : { ...next, bars: figure };
    case "volts":
      return { ...next, volts: figure };
    case "level":
      return { ...next, level: String(value), throttle: false };
    case "throttle":
      return { ...next, throttle: true };
    case "wind":
      return { ...next, wind: String(value) };
    case "ground":
      return { ...next, ground: String(value) };
    case "amps": {
      const [a, b] = told.recent.slice(-2).map((each) => each.kind);
      return { ...next, pairs: told.pairs + (a === "level" && b === "speed" ? 1 : 0) };
    }
    case "speed": {
      const [a, b] = told.recent.slice(-2).map((each) => each.kind);
      return { ...next, pairs: told.pairs + (a === "level" && b === "amps" ? 1 : 0) };
    }
    default:
      return next;
  }
}
