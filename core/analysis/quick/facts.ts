import { parseNumber, toSi } from "#core/base";

/** What notes say of the bike, its pack and who rode it, before anything of the ride. */
export interface SetUpFacts {
  readonly labelWh: number | null;
  readonly nominalVolts: number | null;
  readonly ampHours: number | null;
  readonly riderKg: number | null;
  readonly bikeKg: number | null;
  /** A claimed range, m. */
  readonly claimM: readonly [low: number, high: number] | null;
  readonly airTempC: number | null;
}

/** What a person hears of each fact that was found, and the notes without them. */
export interface FoundFacts {
  readonly facts: SetUpFacts;
  readonly says: readonly string[];
  readonly rest: string;
}

const NUMBER = String.raw`(?<![\d.,])(\d+(?:[.,]\d+)?)`;
const SPAN = String.raw`${NUMBER}(?:\s*(?:-|–|to)\s*${NUMBER})?`;
const WEIGHT = String.raw`${NUMBER}\s*(lbs?|pounds?|kgs?|kilos?)`;
const DISTANCE_UNIT = String.raw`(miles?|mi|kilomet(?:er|re)s?|km)`;

const number = (text: string | undefined): number => {
  const value = text === undefined ? NaN : parseNumber(text);
  return typeof value === "number" ? value : NaN;
};
const kilograms = (value: string | undefined, unit: string | undefined): number =>
  toSi(number(value), "mass", unit?.startsWith("k") ? "kg" : "lb") ?? NaN;
const metres = (value: number, unit: string | undefined): number =>
  toSi(value, "distance", unit?.startsWith("k") ? "km" : "mi") ?? NaN;

type Change = Partial<SetUpFacts>;

interface Form {
  readonly pattern: RegExp;
  readonly read: (found: RegExpExecArray) => Change;
  readonly says: string;
}

const form = (
  source: string,
  says: string,
  read: (groups: readonly (string | undefined)[]) => Change,
): Form => ({
  pattern: new RegExp(source, "i"),
  says,
  read: (found) => read(found.slice(1)),
});

/** How people say each, the surest form first. A figure that no form takes is left to the line. */
const FORMS: readonly Form[] = [
  form(
    String.raw`${NUMBER}\s*(?:v|volts?)(?![a-z])[\s,x×*]*${NUMBER}\s*(?:ah|amp[- ]?hours?)\b`,
    "pack",
    ([v, ah]) => ({
      nominalVolts: number(v),
      ampHours: number(ah),
    }),
  ),
  form(
    String.raw`(?<!(?:used|took|counter|meter)\s*:?\s*)${NUMBER}\s*(?:wh|watt[- ]?hours?)\b(?!\s*(?:/|per|a\s+mile|by\b|(?:used|out)(?!\s*\d)))\s*(?:pack|battery)?`,
    "pack",
    ([wh]) => ({ labelWh: number(wh) }),
  ),
  form(
    String.raw`(?:claim(?:s|ed)?|advertis\w*|promis\w*|says?|rated)(?:\s+(?:range|of|at|for|up|to|is|it))*\s*:?\s*${SPAN}\s*${DISTANCE_UNIT}\b`,
    "claim",
    ([low, high, unit]) => {
      const from = metres(number(low), unit);
      return { claimM: [from, high === undefined ? from : metres(number(high), unit)] };
    },
  ),
  form(String.raw`${WEIGHT}\s*(?:rider|person|me\b|man\b|woman\b)`, "rider", ([kg, unit]) => ({
    riderKg: kilograms(kg, unit),
  })),
  form(String.raw`(?:rider|i\s+weigh|weigh(?:ing|s)?)\s*(?:is|at|:)?\s*${WEIGHT}`, "rider", ([kg, unit]) => ({
    riderKg: kilograms(kg, unit),
  })),
  form(String.raw`(?:bike|it weighs)\s*(?:is|at|weighs|:)?\s*${WEIGHT}`, "bike", ([kg, unit]) => ({
    bikeKg: kilograms(kg, unit),
  })),
  form(String.raw`${WEIGHT}\s*(?:e-?)?bike`, "bike", ([kg, unit]) => ({ bikeKg: kilograms(kg, unit) })),
  form(String.raw`${WEIGHT}\b`, "rider", ([kg, unit]) => ({ riderKg: kilograms(kg, unit) })),
  form(
    String.raw`(-?\d+(?:[.,]\d+)?)\s*(?:°|degrees?|deg)?\s*(c|f|celsius|fahrenheit)\b`,
    "air",
    ([value, unit]) => ({
      airTempC: toSi(number(value), "temperature", unit?.toLowerCase().startsWith("c") ? "C" : "F") ?? NaN,
    }),
  ),
];

const NOTHING: SetUpFacts = {
  labelWh: null,
  nominalVolts: null,
  ampHours: null,
  riderKg: null,
  bikeKg: null,
  claimM: null,
  airTempC: null,
};

const isSound = (change: Change): boolean =>
  Object.values(change)
    .flat()
    .every((value) => value === null || Number.isFinite(value));

/**
 * Takes what notes say of pack, weights, claim and air out of them. Each is taken once, where it is said first.
 *
 * @example findFacts("52 V 17 Ah, full").facts.ampHours === 17
 * @example findFacts("612 Wh, 27 mi").rest === ", 27 mi"
 */
export function findFacts(notes: string): FoundFacts {
  let [rest, facts]: [string, SetUpFacts] = [notes, NOTHING];
  const says: string[] = [];
  for (const { pattern, read, says: name } of FORMS) {
    const found = pattern.exec(rest);
    if (!found) continue;
    const change = read(found);
    const isKnown = Object.keys(change).some((key) => facts[key as keyof SetUpFacts] !== null);
    if (isKnown || !isSound(change)) continue;
    facts = { ...facts, ...change };
    says.push(`${name}: ${found[0].trim()}`);
    rest = rest.slice(0, found.index) + rest.slice(found.index + found[0].length);
  }
  return { facts, says, rest };
}
