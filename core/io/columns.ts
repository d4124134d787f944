import type { DimensionName } from "#core/base";

/** What a column of check-ins can hold. */
export const COLUMN_FIELDS = [
  "distance",
  "display",
  "time",
  "percent",
  "bars",
  "volts",
  "load",
  "rest",
  "amps",
  "speed",
  "counterWh",
  "counterAh",
  "wall",
  "guess",
  "air",
  "wind",
  "climb",
  "bpm",
  "riding",
  "avgSpeed",
  "topSpeed",
  "section",
  "side",
  "level",
  "ground",
  "event",
  "note",
] as const;
export type ColumnField = (typeof COLUMN_FIELDS)[number];

interface ColumnKind {
  readonly label: string;
  readonly dimension: DimensionName | null;
  /** Spellings of the heading, without units, punctuation or case. */
  readonly spellings: readonly string[];
}

/** The columns by field: label for people, dimension for units, and the headings they go by. */
export const COLUMNS: Readonly<Record<ColumnField, ColumnKind>> = {
  distance: {
    label: "distance, recorder",
    dimension: "distance",
    spellings: ["distance", "dist", "gps", "recorder", "track", "miles", "mile", "mi", "km", "mark", "at"],
  },
  display: {
    label: "distance, display",
    dimension: "distance",
    spellings: ["display", "trip", "odo", "odometer", "trip meter", "display distance", "bike distance"],
  },
  time: { label: "time", dimension: null, spellings: ["time", "clock", "when", "hour", "at time"] },
  percent: {
    label: "percent",
    dimension: "percent",
    spellings: [
      "percent",
      "pct",
      "battery",
      "batt",
      "soc",
      "charge",
      "state of charge",
      "battery percent",
      "",
    ],
  },
  bars: {
    label: "bars",
    dimension: "count",
    spellings: ["bars", "bar", "battery bars", "bars left", "lights"],
  },
  volts: {
    label: "volts",
    dimension: "volts",
    spellings: ["volts", "volt", "v", "voltage", "rest volts", "pack volts", "v rest", "volts rest"],
  },
  load: { label: "under load", dimension: null, spellings: ["load", "under load", "loaded"] },
  rest: {
    label: "minutes of rest",
    dimension: "duration",
    spellings: ["rest", "rest minutes", "rest min", "rested", "minutes rest", "min rest"],
  },
  amps: { label: "amps", dimension: "current", spellings: ["amps", "amp", "a", "current"] },
  speed: { label: "speed", dimension: "speed", spellings: ["speed", "mph", "pace"] },
  counterWh: {
    label: "energy counter",
    dimension: "energy",
    spellings: [
      "wh",
      "counter",
      "wh counter",
      "energy",
      "energy counter",
      "counter wh",
      "wh used",
      "used wh",
    ],
  },
  counterAh: {
    label: "charge counter",
    dimension: "charge",
    spellings: ["ah", "ah counter", "charge counter", "counter ah", "ah used", "used ah"],
  },
  wall: {
    label: "energy at the wall",
    dimension: "energy",
    spellings: ["wall", "wall wh", "wall energy", "wall meter", "charged wh"],
  },
  guess: {
    label: "display's miles left",
    dimension: "distance",
    spellings: ["guess", "range", "miles left", "left", "range left", "range guess", "remaining"],
  },
  air: {
    label: "air temperature",
    dimension: "temperature",
    spellings: ["air", "temp", "temperature", "air temp", "air temperature"],
  },
  wind: { label: "wind", dimension: "speed", spellings: ["wind", "wind speed"] },
  climb: {
    label: "climb so far",
    dimension: "climb",
    spellings: ["climb", "climbed", "ascent", "gain", "elevation gain", "total climb", "climb so far"],
  },
  bpm: { label: "heart rate", dimension: "count", spellings: ["bpm", "hr", "heart", "heart rate", "pulse"] },
  riding: {
    label: "riding time",
    dimension: "duration",
    spellings: ["riding", "riding time", "moving", "moving time", "ride time"],
  },
  avgSpeed: {
    label: "average speed",
    dimension: "speed",
    spellings: ["avg", "avg speed", "average", "average speed", "mean speed"],
  },
  topSpeed: { label: "top speed", dimension: "speed", spellings: ["top speed", "max speed", "max", "top"] },
  section: { label: "section", dimension: null, spellings: ["section", "stretch"] },
  side: { label: "A or B", dimension: null, spellings: ["side", "run", "a or b"] },
  level: { label: "level", dimension: null, spellings: ["level", "assist", "mode", "pas", "assist level"] },
  ground: { label: "ground", dimension: null, spellings: ["ground", "surface", "terrain"] },
  event: { label: "event", dimension: null, spellings: ["event", "what", "kind", "type"] },
  note: {
    label: "note",
    dimension: null,
    spellings: ["note", "notes", "remark", "remarks", "comment", "comments"],
  },
};

export interface Heading {
  readonly field: ColumnField | null;
  /** Unit named in the heading: "Distance (km)", "trip_mi". */
  readonly unit: string | null;
}

const UNIT_WORDS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    mi: "mi",
    mile: "mi",
    miles: "mi",
    km: "km",
    kms: "km",
    m: "m",
    mph: "mph",
    kmh: "km/h",
    kph: "km/h",
    "km/h": "km/h",
    c: "C",
    f: "F",
    ft: "ft",
    v: "V",
    a: "A",
    min: "min",
    minutes: "min",
    h: "h",
    "%": "%",
  }),
);

/** Reads a column heading as people write it. Example: `readHeading("Dist (km)")` is `{ field: "distance", unit: "km" }`. */
export function readHeading(heading: string): Heading {
  const lower = heading.trim().toLowerCase().replaceAll("_", " ");
  const bracket = /[([]\s*([^)\]]+?)\s*[)\]]/.exec(lower);
  const outside = lower.replace(/[([][^)\]]*[)\]]/g, " ");
  const words = outside.split(/[\s,.:;-]+/).filter(Boolean);
  const bracketUnit = bracket && UNIT_WORDS.get(bracket[1]!);
  const lastUnit = words.length > 0 ? UNIT_WORDS.get(words.at(-1)!) : undefined;
  const find = (name: string) =>
    COLUMN_FIELDS.find((field) => name !== "" && COLUMNS[field].spellings.includes(name)) ?? null;
  const name = words.join(" ").replaceAll("%", "").trim();
  const whole = find(name);
  const short = find(words.slice(0, -1).join(" "));
  const percent = lower.includes("%");
  const field = whole ?? (lastUnit ? short : null) ?? (percent ? "percent" : null);
  const unit = bracketUnit ?? lastUnit ?? null;
  return { field, unit: field === null ? null : unit };
}
