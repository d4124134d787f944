/** What a kind of real day fixes; everything it leaves open is drawn. */
export interface Kind {
  readonly what: string;
  readonly chemistry?: "NMC" | "LFP";
  /** Step of the percent display; 0 for none. */
  readonly step?: number;
  readonly bars?: number;
  /** What the percent follows; drawn unless said. */
  readonly follows?: "charge" | "energy" | "volts";
  readonly untilEmpty?: boolean;
  readonly aged?: boolean;
  readonly tempC?: readonly [least: number, most: number];
  /** Metres of climb a mile; low hills unless said. */
  readonly climb?: readonly [least: number, most: number];
  /** How the climb is told. */
  readonly told?: "track" | "typed";
  readonly days?: number;
  readonly meter?: "wh" | "ah" | "logger";
  /** The counter is out of order: off by 8 to 18 %, either way. */
  readonly meterOff?: boolean;
  /** The pack's energy was measured on a bench. */
  readonly benched?: boolean;
  /** Rest volts at start and end, and now and then between. */
  readonly restVolts?: boolean;
  /** Only the display's distance, its wheel never checked. */
  readonly displayOnly?: boolean;
  readonly startUsed?: readonly [least: number, most: number];
  readonly stuck?: boolean;
  /** Start, end and little between. */
  readonly sparse?: boolean;
  readonly refill?: boolean;
  readonly slip?: "tenPoints" | "digits" | "bar" | "distance";
  /** Levels and grounds mixed, throttle among them. */
  readonly mixed?: boolean;
  /** Typed in the evening: no times; some looks without miles. */
  readonly loose?: boolean;
}

/** Kinds of test as testers keep them, each a line of the trial. */
export const KINDS = {
  "part charge": { what: "percent over part of a charge", step: 1 },
  "coarse percent": { what: "percent in fives", step: 5 },
  sparse: { what: "a start, an end, two looks between", step: 1, sparse: true },
  "not full": { what: "started part full", step: 1, startUsed: [0.08, 0.3] },
  "run-down": { what: "percent, full to cut-off", step: 1, untilEmpty: true },
  stuck: {
    what: "a percent that stands still at the bottom, to cut-off",
    step: 1,
    untilEmpty: true,
    stuck: true,
  },
  bars: { what: "five unequal bars over part of a charge", step: 0, bars: 5 },
  "bars to the end": { what: "five unequal bars to cut-off", step: 0, bars: 5, untilEmpty: true },
  "from volts": {
    what: "a percent that follows the loaded volts, as its bike says",
    step: 1,
    follows: "volts",
  },
  "rest volts": { what: "rest volts before and after", step: 1, restVolts: true },
  "iron phosphate": {
    what: "an iron-phosphate pack, percent in fives",
    chemistry: "LFP",
    step: 5,
    restVolts: true,
  },
  aged: { what: "a pack of some years", step: 1, aged: true },
  cold: { what: "a freezing day", step: 1, tempC: [-9, 4] },
  ridges: { what: "a ridge between two long flats, nothing told of it", step: 1, climb: [18, 40] },
  "hills, typed": { what: "hills whose climb was typed on the way", step: 1, climb: [18, 40], told: "typed" },
  "hills, track": { what: "hills with a track", step: 1, climb: [18, 40], told: "track" },
  "two days": { what: "two rides on one charge", step: 1, days: 2 },
  mixed: { what: "levels and grounds by turns, throttle among them", step: 1, mixed: true },
  loose: { what: "typed in the evening, some looks without miles", step: 1, loose: true },
  "wheel unchecked": { what: "the display's distance alone", step: 1, displayOnly: true },
  metered: { what: "an energy counter beside the percent", step: 1, meter: "wh" },
  "amp-hours": { what: "a charge counter beside the percent", step: 1, meter: "ah" },
  "pack measured": {
    what: "a counter on a pack that a bench has measured, to cut-off",
    ...{ step: 1, meter: "wh", benched: true, untilEmpty: true },
  },
  "meter off": {
    what: "the same with a counter that is 8 to 18 % off",
    ...{ step: 1, meter: "wh", benched: true, meterOff: true, untilEmpty: true },
  },
  logger: { what: "a logger of volts and amps, with gaps", step: 1, meter: "logger" },
  refill: { what: "percent in fives, the charge after read at the wall", step: 5, refill: true },
  "slip of ten": { what: "one percent typed ten points off", step: 1, slip: "tenPoints" },
  "digits swapped": { what: "one percent with its digits swapped", step: 1, slip: "digits" },
  "miles mistyped": { what: "one distance with its digits swapped", step: 1, slip: "distance" },
  "wrong bar": {
    what: "one bar noted under the wrong number",
    step: 0,
    bars: 5,
    slip: "bar",
    untilEmpty: true,
  },
} as const satisfies Record<string, Kind>;

export type KindName = keyof typeof KINDS;
