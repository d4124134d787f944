import type { Around } from "./context.ts";
import type { Reason } from "./kills.ts";
import type { Quantity } from "./quantities.ts";
import type { Unit } from "./units.ts";

/** Facts about bike, pack and rider. */
export const SET_UP_KINDS = [
  "weight_rider",
  "weight_bike",
  "pressure",
  "pack_v",
  "pack_ah",
  "pack_wh",
  "claim_range",
  "price",
  "charge_time",
] as const;
/** Readings and events of the ride. */
export type ReadingKind =
  | "distance"
  | "percent_left"
  | "percent_used"
  | "bars_left"
  | "bar_lost"
  | "volts"
  | "amps"
  | "watts"
  | "speed"
  | "avg_speed"
  | "top_speed"
  | "level"
  | "throttle"
  | "pedalling_no_power"
  | "ground"
  | "climb_gain"
  | "elapsed_time"
  | "heart_rate"
  | "range_guess"
  | "temperature"
  | "wind"
  | "full_charge"
  | "cut_off"
  | "low_power"
  | "battery_blinking"
  | "stop"
  | "turn_round";
export type SetUpKind = (typeof SET_UP_KINDS)[number];
const setUpKinds = new Set<string>(SET_UP_KINDS);
/** Whether it is a fact that holds for the whole test, whatever charge is ridden. */
export const isSetUp = ({ kind }: { readonly kind: string }): boolean => setUpKinds.has(kind);

/** What a figure or a few words were understood as. */
export interface Found {
  readonly kind: ReadingKind | SetUpKind;
  readonly value: number | readonly [number, number] | string;
  readonly unit: string | null;
  readonly because: string;
  /** Said to be another one, so that it is none that was said before. */
  readonly anew?: boolean;
  /** Which of several it is: after a part charge, at rest or under load, of the display or of the rider, mean or highest, of a part. */
  readonly of?:
    | "charged"
    | "rest"
    | "load"
    | "display"
    | "recorder"
    | "rider"
    | "mean"
    | "highest"
    | "part"
    | "yours"
    | "mine";
}

export interface Left {
  readonly left: Reason;
}
export type Verdict = Found | Left;
export const left = (reason: Reason): Left => ({ left: reason });

/** What is known of the ride where something is said. */
export interface Ride {
  readonly unit: "mi" | "km";
  /** The farthest place, in the ride's unit, and the last charge and volts; null before one was said. */
  readonly distance: number | null;
  readonly percent: number | null;
  readonly bars: number | null;
  readonly volts: number | null;
  readonly level: string | null;
  /** Kinds of the last few things that were found, the newest last, each with the token it ended at. */
  readonly recent: readonly { readonly kind: string; readonly at: number; readonly value: unknown }[];
  /** Everything found since the pack was full. */
  readonly since: readonly { readonly kind: string; readonly value: unknown; readonly at: number }[];
  /** Speed and amps were said in pairs by level before: the manner of a sweep. */
  readonly pairs: number;
}

/** A figure with all that may tell what it is of. */
export interface Asked {
  readonly quantity: Quantity;
  readonly around: Around;
  readonly ride: Ride;
}

/** A figure's value as it is proposed: both ends of a span. */
export const valueOf = ({ value, high }: Quantity): number | readonly [number, number] =>
  high === null ? value : [value, high];
/** A rule for figures of some units. */
export type Rule = (asked: Asked) => Verdict | null;
export type Rules = Readonly<Partial<Record<Unit | "bare", Rule>>>;

/** What was last found within a few words before a token, of one kind. */
export const lately = ({ recent }: Ride, at: number, kind: RegExp, within = 24) =>
  recent.findLast((each) => at - each.at <= within && kind.test(each.kind)) ?? null;
