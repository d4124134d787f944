/** Units at the edge. Inside, everything is m, s, kg, W, V, A, Ah, Wh, degrees C, Pa; a name carries its unit. */

/** So many a mile, as so many a metre: of what is kept a mile, as stops and climb are. Example: `aMile(METRES_PER_MILE) === 1`. */
export const aMile = (count: number): number => count / METRES_PER_MILE;

export const METRES_PER_MILE = 1609.344;
export const MPS_PER_MPH = METRES_PER_MILE / 3600;
export const KG_PER_LB = 0.45359237;
export const PA_PER_PSI = 6894.757;
export const STANDARD_GRAVITY = 9.80665;

export type System = "imperial" | "metric";

interface Unit {
  /** As printed. */
  readonly symbol: string;
  /** As typed, lower case; the symbol is always understood. */
  readonly spellings: readonly string[];
  /** SI value = typed x factor + offset. */
  readonly factor: number;
  readonly offset?: number;
  /** Decimals shown, where they differ from the dimension's. */
  readonly decimals?: number;
}

interface Dimension {
  /** What a person calls it, for sentences. */
  readonly name: string;
  readonly units: readonly Unit[];
  readonly imperial: string;
  readonly metric: string;
  /** Decimals shown when no error says better. */
  readonly decimals: number;
  readonly example: string;
}

const unit = (symbol: string, factor: number, spellings: readonly string[] = [], offset = 0): Unit => ({
  symbol,
  factor,
  spellings,
  offset,
});

const single = (
  name: string,
  symbol: string,
  decimals: number,
  example: string,
  spellings: readonly string[],
): Dimension => ({
  name,
  units: [unit(symbol, 1, spellings)],
  imperial: symbol,
  metric: symbol,
  decimals,
  example,
});

/** The dimensions a value can have, each with its units; SI is the one with factor 1 and no offset. */
export const DIMENSIONS = {
  distance: {
    name: "a distance",
    units: [
      unit("mi", METRES_PER_MILE, ["mile", "miles"]),
      unit("km", 1000, ["kilometre", "kilometres", "kilometer", "kilometers", "kms"]),
      unit("m", 1, ["metre", "metres", "meter", "meters"]),
    ],
    imperial: "mi",
    metric: "km",
    decimals: 1,
    example: "12.4 mi or 20 km",
  },
  climb: {
    name: "a height",
    units: [unit("m", 1, ["metre", "metres", "meter", "meters"]), unit("ft", 0.3048, ["feet", "foot"])],
    imperial: "ft",
    metric: "m",
    decimals: 0,
    example: "180 m or 590 ft",
  },
  speed: {
    name: "a speed",
    units: [
      unit("mph", MPS_PER_MPH, ["mi/h"]),
      unit("km/h", 1 / 3.6, ["kmh", "kph", "kmph"]),
      unit("m/s", 1, ["mps"]),
    ],
    imperial: "mph",
    metric: "km/h",
    decimals: 1,
    example: "15 mph or 25 km/h",
  },
  mass: {
    name: "a weight",
    units: [
      unit("kg", 1, ["kilo", "kilos", "kgs"]),
      unit("lb", KG_PER_LB, ["lbs", "pound", "pounds"]),
      unit("st", 14 * KG_PER_LB, ["stone", "stones"]),
    ],
    imperial: "lb",
    metric: "kg",
    decimals: 1,
    example: "26 kg or 57 lb",
  },
  pressure: {
    name: "a pressure",
    units: [
      { ...unit("psi", PA_PER_PSI), decimals: 0 },
      unit("bar", 1e5, ["bars"]),
      unit("kPa", 1000),
      unit("Pa", 1),
    ],
    imperial: "psi",
    metric: "bar",
    decimals: 1,
    example: "31 psi or 2.1 bar",
  },
  temperature: {
    name: "a temperature",
    units: [
      unit("C", 1, ["°c", "deg c", "celsius"]),
      unit("F", 5 / 9, ["°f", "deg f", "fahrenheit"], (-32 * 5) / 9),
    ],
    imperial: "F",
    metric: "C",
    decimals: 0,
    example: "-3 C or 27 F",
  },
  length: {
    name: "a length",
    units: [
      unit("mm", 0.001, ["millimetres", "millimeters"]),
      unit("cm", 0.01),
      unit("in", 0.0254, ["inch", "inches", '"']),
      unit("m", 1),
    ],
    imperial: "mm",
    metric: "mm",
    decimals: 0,
    example: "2180 mm or 2.0 in",
  },
  duration: {
    name: "a time span",
    units: [
      unit("min", 60, ["minute", "minutes", "mins"]),
      unit("h", 3600, ["hour", "hours", "hr", "hrs"]),
      unit("s", 1, ["sec", "seconds"]),
    ],
    imperial: "min",
    metric: "min",
    decimals: 0,
    example: "12 min or 1.5 h",
  },
  /** How often one stops, by distance: 1/m. */
  stopRate: {
    name: "how often one stops",
    units: [unit("stops a mile", 1 / METRES_PER_MILE), unit("stops a km", 0.001)],
    imperial: "stops a mile",
    metric: "stops a km",
    decimals: 1,
    example: "1 stops a mile or 0.6 stops a km",
  },
  /** Height climbed, by distance: m/m. */
  climbRate: {
    name: "climb by distance",
    units: [unit("ft a mile", 0.3048 / METRES_PER_MILE), unit("m a km", 0.001)],
    imperial: "ft a mile",
    metric: "m a km",
    decimals: 0,
    example: "33 ft a mile or 6 m a km",
  },
  energyPerDistance: {
    name: "energy per distance",
    units: [unit("Wh/mi", 1 / METRES_PER_MILE), unit("Wh/km", 0.001), unit("Wh/m", 1)],
    imperial: "Wh/mi",
    metric: "Wh/km",
    decimals: 1,
    example: "15 Wh/mi or 9.3 Wh/km",
  },
  distancePerEnergy: {
    name: "distance per energy",
    units: [unit("mi/kWh", METRES_PER_MILE / 1000), unit("km/kWh", 1), unit("m/Wh", 1)],
    imperial: "mi/kWh",
    metric: "km/kWh",
    decimals: 1,
    example: "60 mi/kWh",
  },
  energyPerClimb: single("energy per height", "Wh/m", 2, "0.7 Wh/m", []),
  pricePerDistance: {
    name: "price per distance",
    units: [unit("per mi", 100 / METRES_PER_MILE), unit("per km", 0.1)],
    imperial: "per mi",
    metric: "per km",
    decimals: 2,
    example: "4.20 per mi",
  },
  volts: single("volts", "V", 1, "48.6 V", ["volt", "volts"]),
  current: single("a current", "A", 1, "6.5 A", ["amp", "amps"]),
  charge: single("a charge", "Ah", 1, "14 Ah", ["amp-hours", "amphours"]),
  energy: {
    name: "an energy",
    units: [unit("Wh", 1, ["watt-hours", "watthours"]), unit("kWh", 1000)],
    imperial: "Wh",
    metric: "Wh",
    decimals: 0,
    example: "612 Wh",
  },
  percent: single("a percentage", "%", 0, "61 %", ["percent", "pct", "per cent", "percents"]),
  count: single("a number", "", 0, "3", ["x", "bars", "bar"]),
} as const satisfies Record<string, Dimension>;

export type DimensionName = keyof typeof DIMENSIONS;

/** A dimension by name, typed loosely for the functions of this room. */
export function dimension(name: DimensionName): Dimension {
  return DIMENSIONS[name];
}

/**
 * The unit a system shows a dimension in. Example: `unitOf("distance", "metric") === "km"`.
 *
 * @example unitOf("speed", "metric") === "km/h"
 */
export function unitOf(name: DimensionName, system: System): string {
  return dimension(name)[system];
}

function find(name: DimensionName, text: string): Unit | undefined {
  const exact = dimension(name).units.find((candidate) => candidate.symbol === text);
  const lower = text.toLowerCase();
  return (
    exact ??
    dimension(name).units.find(
      (candidate) => candidate.symbol.toLowerCase() === lower || candidate.spellings.includes(lower),
    )
  );
}

/** Decimals a unit is shown with when no error says better. */
export function decimalsOf(name: DimensionName, symbol: string): number {
  return find(name, symbol)?.decimals ?? dimension(name).decimals;
}

/**
 * The symbol of a unit as people write it; undefined when it is none of the dimension's.
 *
 * @example unitNamed("distance", "Miles") === "mi"
 * @example unitNamed("distance", "kWh") === undefined
 */
export const unitNamed = (name: DimensionName, text: string): string | undefined => find(name, text)?.symbol;

/**
 * Every way a unit is written, in small letters; the word itself where it is none of the dimension's.
 *
 * @example spellingsOf("speed", "mph").includes("mi/h") === true
 */
export function spellingsOf(name: DimensionName, text: string): readonly string[] {
  const found = find(name, text);
  return found
    ? [...new Set([found.symbol, ...found.spellings, text].map((word) => word.toLowerCase()).filter(Boolean))]
    : [text];
}

/** SI value of a number in a unit, or undefined when the unit is not one of the dimension's. `toSi(10, "distance", "km") === 10000`. */
export function toSi(value: number, name: DimensionName, symbol: string): number | undefined {
  const found = find(name, symbol);
  return found && value * found.factor + (found.offset ?? 0);
}

/**
 * The number a unit shows for an SI value; throws on a unit the dimension lacks, which is a bug. `fromSi(10000, "distance", "km") === 10`.
 *
 * @example fromSi(8046.72, "distance", "mi") === 5
 */
export function fromSi(value: number, name: DimensionName, symbol: string): number {
  const found = find(name, symbol);
  if (!found) throw new Error(`no unit ${symbol} for ${name}`);
  return (value - (found.offset ?? 0)) / found.factor;
}
