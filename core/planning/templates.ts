import { METRES_PER_MILE } from "#core/base";
import { methodSchema, type Method } from "./method.ts";
import type { z } from "zod";

/** What a school gives and what it cannot, in the field's words. */
interface Template {
  readonly method: Method;
  readonly strength: string;
  readonly weakness: string;
}

const mi = (miles: number) => miles * METRES_PER_MILE;

const READY = [
  "Charger green, charge noted",
  "Tyres at pressure",
  "Brakes checked",
  "Trip to zero, odometer noted",
  "Recorder on, clock right",
  "Weather typed in",
  "Somebody knows the way and the time",
];
const BRING = ["Helmet and lights", "Water and food", "Phone, full", "Warm or rain layer", "Lock and money"];
const HOLD = ["Level", "Speed", "Effort, cadence and gear", "Tyre pressure", "Load", "Lights on or off"];

const template = (
  strength: string,
  weakness: string,
  given: Partial<z.input<typeof methodSchema>> & Pick<Method, "name" | "school">,
): Template => ({
  strength,
  weakness,
  method: methodSchema.parse({ hold: HOLD, ready: READY, bring: BRING, ...given }),
});

const ONE_WH_PER_MI = 1 / METRES_PER_MILE;

/** A template for each school of method; a plan starts from a copy and may change it. */
export const TEMPLATES: readonly Template[] = [
  template("needs no trust in any gauge", "takes hours; the end is fuzzy; empties the pack", {
    name: "Run-down",
    school: "run-down",
    until: "the pack is empty",
    taken: ["percent", "bars"],
    ends: ["cutOff", "lowPower", "cannotHoldSpeed", "gaugeZero"],
    bring: [...BRING, "A way home without the motor"],
  }),
  template("needs no trust in any gauge, and no rider's legs", "takes hours; empties the pack", {
    name: "Throttle run-down",
    school: "run-down",
    drive: "throttle",
    until: "the pack is empty",
    taken: ["percent", "bars"],
    ends: ["cutOff", "lowPower", "cannotHoldSpeed", "gaugeZero"],
    hold: ["Throttle, no pedalling", "Speed", "Tyre pressure", "Load", "Lights on or off"],
    bring: [...BRING, "A way home without the motor"],
  }),
  template("short, and kind to the pack", "the gauge is not straight, and its error is projected", {
    name: "Part charge",
    school: "part charge",
    taken: ["percent", "rest volts"],
  }),
  template("short, and no rider's legs in it", "the gauge is not straight, and its error is projected", {
    name: "Throttle part charge",
    school: "part charge",
    drive: "throttle",
    taken: ["percent", "rest volts"],
    hold: ["Throttle, no pedalling", "Speed", "Tyre pressure", "Load", "Lights on or off"],
  }),
  template("cheap: the same road for several set-ups", "volts need rest and a curve", {
    name: "Fixed course, volts",
    school: "fixed course, volts before and after",
    taken: ["rest volts"],
    compare: { a: "first", b: "second", pairs: 1, wantedWhPerM: ONE_WH_PER_MI },
    atQuarters: false,
    ready: [...READY, "Ten minutes of rest before each reading of volts"],
  }),
  template(
    "minutes; many levels and grounds in an hour",
    "one direction hides slope and wind; amps flicker",
    {
      name: "Steady current",
      school: "steady current",
      taken: ["percent"],
      atQuarters: false,
      hold: ["Speed", "Both directions", "Ground", "Tyre pressure", "Load", "Rider upright"],
    },
  ),
  template(
    "shows where it matters; what both share cancels",
    "whole percents on short sections are mostly rounding",
    {
      name: "Sections A B B A",
      school: "sections A/B",
      taken: ["percent"],
      atQuarters: false,
      compare: { a: "as it is", b: "changed", pairs: 2, wantedWhPerM: ONE_WH_PER_MI },
    },
  ),
  template("shows each level on the same road", "whole percents on short sections are mostly rounding", {
    name: "Levels A B B A",
    school: "sections A/B",
    taken: ["percent"],
    atQuarters: false,
    compare: { a: "low level", b: "high level", pairs: 2, wantedWhPerM: ONE_WH_PER_MI },
    hold: ["Speed", "Effort, cadence and gear", "Tyre pressure", "Load", "Lights on or off"],
  }),
  template("the same weather for both", "bars are coarse; the last one is short", {
    name: "Twins",
    school: "twins",
    taken: ["percent", "bars"],
    compare: { a: "first bike", b: "second bike", pairs: 1, wantedWhPerM: ONE_WH_PER_MI },
    hold: [...HOLD, "Side by side, no drafting", "Riders swapped half-way"],
  }),
  template(
    "fits mountains; goes over to one pack size",
    "speed, ground and temperature differ between days",
    {
      name: "Vertical loops",
      school: "vertical",
      until: "the pack is empty",
      taken: ["percent", "bars"],
      ends: ["cutOff", "lowPower", "cannotHoldSpeed", "gaugeZero"],
      hold: ["Top level", "Heart rate", "Line and entry speed", "Tyre pressure", "Load"],
      bring: [...BRING, "Heart-rate belt", "A way down without the motor"],
    },
  ),
  template("what people get", "levels, days and weather mix; the gauge is all there is", {
    name: "Commute week",
    school: "commute week",
    taken: ["percent", "bars"],
    everyM: mi(50),
    hold: ["Route", "Load", "Tyre pressure at the start"],
    note: "No charge between the days.",
  }),
  template("quick and vivid", "entry speed, wind and charge decide", {
    name: "Hill trial",
    school: "hill trial",
    taken: ["percent"],
    atQuarters: false,
    compare: { a: "throttle", b: "pedals", pairs: 2, wantedWhPerM: 5 * ONE_WH_PER_MI },
    hold: ["Entry speed", "Line", "Tyre pressure", "Load"],
    ready: [...READY, "Stop-watch points marked, foot and top"],
  }),
  template("true capacity", "is not the ride; hours on a tester", {
    name: "Bench discharge",
    school: "bench",
    taken: ["energy counter"],
    until: "the pack is empty",
    ends: ["cutOff"],
    hold: ["Discharge current", "Room temperature"],
    ready: [
      "Charger green",
      "Pack at room temperature",
      "No swelling, smell or damage",
      "Tester's leads made for this pack",
    ],
    bring: [],
    note: "On a tester made for the pack, attended, away from exits.",
  }),
];

export function templateNamed(name: string): Template | null {
  return TEMPLATES.find(({ method }) => method.name === name) ?? null;
}
