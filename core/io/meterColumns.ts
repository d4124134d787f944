import { err, nth, ok, type Result } from "#core/base";

/** What a meter's column can hold. */
export const METER_FIELDS = ["time", "date", "volts", "amps", "watts", "speed"] as const;
export type MeterField = (typeof METER_FIELDS)[number];

/** Where each stands among a file's columns; -1 for one that is not there. */
export type MeterColumns = Readonly<Record<MeterField, number>>;

/** What people are told of them. */
export const METER_LABELS: Readonly<Record<MeterField, string>> = {
  time: "time",
  date: "day",
  volts: "volts",
  amps: "amps",
  watts: "watts",
  speed: "speed",
};

const HEADINGS: Readonly<Record<MeterField, readonly string[]>> = {
  time: [
    "time",
    "t",
    "timestamp",
    "seconds",
    "s",
    "time s",
    "clock",
    "datetime",
    "date time",
    "date and time",
    "elapsed",
    "elapsed time",
    "time stamp",
    "ms",
  ],
  date: ["date", "day"],
  volts: [
    "volts",
    "v",
    "voltage",
    "pack volts",
    "volt",
    "u",
    "battery voltage",
    "batt v",
    "bus voltage",
    "pack voltage",
  ],
  amps: [
    "amps",
    "a",
    "current",
    "pack amps",
    "amp",
    "i",
    "battery current",
    "batt a",
    "pack current",
    "discharge current",
  ],
  watts: [
    "watts",
    "w",
    "power",
    "watt",
    "p",
    "battery power",
    "motor power",
    "pack power",
    "electrical power",
  ],
  speed: [
    "speed",
    "speed mps",
    "speed mph",
    "speed kmh",
    "speed km h",
    "speed m s",
    "mph",
    "km h",
    "kmh",
    "kph",
    "velocity",
  ],
};

/** A heading without its unit in brackets, its punctuation and its case. */
const plainHeading = (text: string) =>
  text
    .toLowerCase()
    .replace(/[([][^)\]]*[)\]]/g, " ")
    .replace(/[^a-z]+/g, " ")
    .trim();

/** What stands in a heading's brackets: "volts (mV)" is "mV"; empty without. */
const bracketOf = (heading: string): string => /[([]\s*([^)\]]+?)\s*[)\]]/.exec(heading)?.[1] ?? "";

/** Units that a heading may end in, without a bracket: "voltage_mv". */
const TAILS: Partial<Readonly<Record<MeterField, RegExp>>> = {
  time: / (s|sec|ms)$/,
  volts: / (v|mv)$/,
  amps: / (a|ma)$/,
  watts: / (w|kw)$/,
};

/** Where a meter's columns stand, by their headings: the name as it is, or with its unit at the end. */
export function columnsOfMeter(headings: readonly string[]): MeterColumns {
  const plain = headings.map(plainHeading);
  const find = (field: MeterField) => {
    const names = HEADINGS[field];
    const exact = plain.findIndex((name) => names.includes(name));
    const tail = TAILS[field];
    return exact >= 0 || !tail ? exact : plain.findIndex((name) => names.includes(name.replace(tail, "")));
  };
  return {
    time: find("time"),
    date: find("date"),
    volts: find("volts"),
    amps: find("amps"),
    watts: find("watts"),
    speed: find("speed"),
  };
}

/** Columns that a table has: one that was chosen of a wider table is not there. */
export const columnsWithin = (at: MeterColumns, count: number): MeterColumns =>
  Object.fromEntries(METER_FIELDS.map((field) => [field, at[field] < count ? at[field] : -1])) as Record<
    MeterField,
    number
  >;

/** Whether the columns are those of a meter: a time, and volts with amps or watts. */
export const isMeter = ({ time, date, volts, amps, watts }: MeterColumns): boolean =>
  Math.max(time, date) >= 0 && volts >= 0 && Math.max(amps, watts) >= 0;

/** Columns as a person chose them, in place of those that the headings tell; null for one that is none of them. */
export function chosenColumns(choice: readonly (MeterField | null)[]): MeterColumns {
  const at = (field: MeterField) => choice.indexOf(field);
  return {
    time: at("time"),
    date: at("date"),
    volts: at("volts"),
    amps: at("amps"),
    watts: at("watts"),
    speed: at("speed"),
  };
}

type Measured = "time" | "volts" | "amps" | "watts";

/** Units of a meter's columns beside those that a person types: factors to s, V, A and W. */
const FINE_UNITS: Readonly<Record<Measured, Readonly<Record<string, number>>>> = {
  time: { s: 1, sec: 1, seconds: 1, ms: 0.001, min: 60, h: 3600, utc: 1, gmt: 1, z: 1, local: 1 },
  volts: { v: 1, mv: 0.001, volts: 1 },
  amps: { a: 1, ma: 0.001, amps: 1 },
  watts: { w: 1, kw: 1000, mw: 0.001, watts: 1 },
};

/** Factor of a column by the unit in its heading, 1 without one; null for a unit that is not read. */
function factorOf(field: Measured, heading: string): number | null {
  const bracket = bracketOf(heading).toLowerCase();
  const tail = TAILS[field]?.exec(plainHeading(heading))?.[1] ?? "";
  const alone = field === "time" && plainHeading(heading) === "ms" ? "ms" : "";
  const unit = bracket || tail || alone;
  return unit === "" ? 1 : (FINE_UNITS[field][unit] ?? null);
}

/** Factors of the columns by the units in their headings; a problem names the first unit that is not read. */
export function factorsOfMeter(
  headings: readonly string[],
  at: MeterColumns,
): Result<Readonly<Record<Measured, number>>> {
  const factors = { time: 1, volts: 1, amps: 1, watts: 1 };
  for (const field of Object.keys(factors) as readonly Measured[]) {
    if (at[field] < 0) continue;
    const heading = nth(headings, at[field]);
    const factor = factorOf(field, heading);
    if (factor === null)
      return err(
        "unknown-unit",
        "file, row 1",
        `“${heading}” names a unit that is not read: give ${field} in ${Object.keys(FINE_UNITS[field]).slice(0, 4).join(", ")}.`,
      );
    factors[field] = factor;
  }
  return ok(factors);
}

/** The unit of a speed's column by its heading; m/s where it says none. */
export function unitOfSpeed(heading: string): string {
  const plain = `${plainHeading(heading)} ${bracketOf(heading).toLowerCase()}`;
  return plain.includes("mph") ? "mph" : /km|kph/.test(plain) ? "km/h" : "m/s";
}
