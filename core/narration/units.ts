import { nth } from "#core/base";
import type { Token } from "./tokens.ts";

/** Units that figures are said with; "thing" is anything counted that is no reading. */
export type Unit =
  | "mph"
  | "km/h"
  | "use"
  | "Ah"
  | "Wh"
  | "Nm"
  | "V"
  | "A"
  | "W"
  | "%"
  | "bar"
  | "mi"
  | "km"
  | "m"
  | "ft"
  | "mm"
  | "s"
  | "min"
  | "h"
  | "day"
  | "deg"
  | "C"
  | "F"
  | "kg"
  | "lb"
  | "st"
  | "psi"
  | "bpm"
  | "money"
  | "thing";

/** No pack has fewer; what is said of fewer is a difference, or counts something else. */
export const FEWEST_VOLTS = 18;

const DISTANCE = { mi: "mile|miles|mi", km: "km|kms|kilometre|kilometres|kilometer|kilometers|klicks" };
const HOUR = "hour|h|hr";

/** Words of each unit in turn, the longest first: a word is one of several, by "|". */
const PATTERNS: readonly (readonly [Unit, ...string[]])[] = [
  ["use", "watt|watts", "hour|hours", "per|a|an|to", "mile|the|kilometre|kilometer|km"],
  ["use", "wh", "per|a|/", "mile|km|mi|kilometre|kilometer"],
  ["mph", DISTANCE.mi, "an|per|a|and|/", HOUR],
  ["mph", "mph|mphs"],
  ["mph", "m", "p", "h"],
  ["km/h", `${DISTANCE.km}|k|ks|k's|kays`, "an|per|a|and|/", HOUR],
  ["km/h", "kph|kmh"],
  ["Ah", "amp|amps|ampere", "hour|hours|hr"],
  ["Ah", "ah|amphour|amphours"],
  ["Wh", "watt|watts", "hour|hours|hr"],
  ["Wh", "wh|watthours|watthour"],
  ["Nm", "newton|newtons", "metre|metres|meter|meters"],
  ["Nm", "nm"],
  ["bpm", "beats|beat", "per|a", "minute"],
  ["bpm", "bpm|beats"],
  ["%", "per", "cent"],
  ["%", "%|percent|percents|pct"],
  ["thing", "foot", "one|two|three|four|five|six"],
  ["C", "degrees|degree|°", "celsius|centigrade|c"],
  ["F", "degrees|degree|°", "fahrenheit|f"],
  ["F", "fahrenheit"],
  ["C", "celsius"],
  ["deg", "degrees|degree|°"],
  ["kg", "kilos|kilo|kg|kgs|kilograms|kilogrammes"],
  ["lb", "pounds|pound|lbs|lb"],
  ["st", "stone|stones"],
  ["psi", "psi"],
  ["V", "volts|volt|v"],
  ["W", "watts|watt|w"],
  ["A", "amps|amp|amperes"],
  ["bar", "green|white|blue|red|little", "lights|bars|leds|dots|blocks|squares|boxes|blobs"],
  ["bar", "bars|bar|segments|segment|pips|blobs|leds|notches|lights"],
  ["mi", DISTANCE.mi],
  ["km", DISTANCE.km],
  ["mm", "millimetre|millimetres|millimeter|millimeters|mm|centimetres|centimeters|cm|inch|inches|inchers"],
  ["m", "metres|metre|meters|meter"],
  ["ft", "feet|foot|ft"],
  ["min", "minutes|minute|mins|min"],
  ["h", "hours|hour|hrs"],
  ["s", "seconds|sec|secs"],
  ["day", "days|day|weeks|week|months|month|years|year|year's|summers|winters|nights|evenings"],
  ["money", "dollars|dollar|bucks|euros|euro|quid|grand|cents|£|€|$"],
  [
    "thing",
    "teeth|tooth|gears|gear|laps|lap|times|steps|cells|series|hills|tests|bikes|things|points|speed|speeds|stars|wheels|runs|loops|seats|presses|clicks|buttons|screws|turns|revs|rpm|strokes|litres|liters|gallons|newtons|o'clock|am|pm",
  ],
];
/** Letters that are a unit only where they are written at the figure: "3.7a", "640m". */
const GLUED: Readonly<Record<string, Unit>> = {
  a: "A",
  w: "W",
  m: "m",
  k: "km",
  ks: "km",
  kw: "thing",
  c: "C",
  f: "F",
  h: "h",
};

/** Patterns by the first word of theirs, the longest first as above. */
const BY_FIRST = new Map<string, (readonly [unit: Unit, words: readonly ReadonlySet<string>[]])[]>();
for (const [unit, ...words] of PATTERNS) {
  const sets = words.map((each) => new Set(each.split("|")));
  for (const first of sets[0] ?? []) BY_FIRST.set(first, [...(BY_FIRST.get(first) ?? []), [unit, sets]]);
}

/** The unit that begins at a token, and where it ends; the longest that fits. */
export function unitAt(
  tokens: readonly Token[],
  at: number,
): { readonly unit: Unit; readonly to: number } | null {
  const first = tokens[at];
  if (!first) return null;
  for (const [unit, words] of BY_FIRST.get(first.word) ?? []) {
    const fits = words.every((choices, i) => {
      const token = tokens[at + i];
      return token && choices.has(token.word) && (i === 0 || nth(tokens, at + i - 1).pause === "");
    });
    if (fits) return { unit, to: at + words.length };
  }
  const glued = first.glued ? GLUED[first.word] : undefined;
  if (glued) return { unit: glued, to: at + 1 };
  // "ks" is said for kilometres also with a blank before it.
  return /^(ks?|k's|kays?)$/.test(first.word) ? { unit: "km", to: at + 1 } : null;
}
