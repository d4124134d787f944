import type { Chemistry } from "#core/battery";

/** What a scenario fixes; everything it leaves open is drawn from the seed. */
export interface Scenario {
  readonly what: string;
  readonly chemistry?: Chemistry;
  readonly tempC?: number;
  /** Percent display with this step, or none (0). */
  readonly percentStep?: number;
  readonly bars?: number;
  /** Ridden to cut-off, else to a share of the charge. */
  readonly untilEmpty?: boolean;
  readonly meter?: "counter" | "logger";
  /** One percent typed ten points off. */
  readonly slip?: boolean;
  /** Display's distance over the true one. */
  readonly wheelFactor?: number;
  /** Only the display's distance is noted. */
  readonly noRecorder?: boolean;
  /** The recorder loses the sky now and then. */
  readonly lostSky?: boolean;
  /** The percent stands still from here down. */
  readonly stuckBelow?: number;
  /** Fraction used at a start nobody called full. */
  readonly startUsed?: number;
  readonly days?: number;
  /** A part charge in between. */
  readonly topUp?: boolean;
  /** Wall meter read over the charge after the ride. */
  readonly refill?: boolean;
  readonly hilly?: boolean;
  /** What the rider keeps even; speed unless said. */
  readonly holds?: "speed" | "power";
  /** Chance of rest volts at a check-in. */
  readonly restVolts?: number;
}

/** Scenarios by name: one clean, one for each fault or circumstance. */
export const SCENARIOS = {
  clean: { what: "percent display, full at the start, nothing wrong", percentStep: 1 },
  bars: { what: "five bars and nothing else", percentStep: 0, bars: 5 },
  "run-down": { what: "full to cut-off, with low-power mode on the way", percentStep: 1, untilEmpty: true },
  metered: { what: "an energy counter beside the percent display", percentStep: 1, meter: "counter" },
  logged: { what: "a logger of volts and amps, with gaps", percentStep: 1, meter: "logger" },
  slip: { what: "one percent typed ten points off", percentStep: 1, slip: true },
  "wrong-wheel": {
    what: "a wheel setting 8 % too large; recorder and display noted",
    percentStep: 1,
    wheelFactor: 1.08,
  },
  "lost-sky": { what: "the recorder loses the sky", percentStep: 1, lostSky: true },
  "stuck-gauge": {
    what: "the percent stands still at the bottom",
    percentStep: 1,
    stuckBelow: 0.12,
    untilEmpty: true,
  },
  "not-full": { what: "started at four fifths, charger not asked", percentStep: 1, startUsed: 0.2 },
  "two-days": { what: "two rides on one charge, a night between", percentStep: 1, days: 2 },
  "top-up": { what: "a part charge in between, read at the wall", percentStep: 1, days: 2, topUp: true },
  refill: { what: "a wall meter read over the charge after the ride", percentStep: 5, refill: true },
  cold: { what: "a freezing day", percentStep: 1, tempC: -4, restVolts: 0.4 },
  lfp: {
    what: "an iron-phosphate pack, whose volts say little",
    chemistry: "LFP",
    percentStep: 5,
    restVolts: 0.7,
  },
  "held-power": {
    what: "a rider who holds a power, whatever the hill does to the speed",
    percentStep: 1,
    holds: "power",
  },
  rebound: { what: "bars that fall under load and come back overnight", percentStep: 0, bars: 5, days: 2 },
  hills: { what: "a hilly course with a track", percentStep: 1, hilly: true },
} as const satisfies Record<string, Scenario>;

export type ScenarioName = keyof typeof SCENARIOS;
