import { nth, lastOf } from "#core/base";
import type { DimensionName } from "#core/base";
import { SIGHTING, SIGHTING_FIELDS, type Field, type SightingField } from "#core/fields";

interface ColumnKind {
  readonly label: string;
  readonly dimension: DimensionName | null;
  /** Spellings of the heading, without units, punctuation or case. */
  readonly spellings: readonly string[];
  /** The field of a sighting that it fills; null for what an entry says beside what was seen. */
  readonly field: SightingField | null;
}

/** What an entry says beside what was seen. */
const BESIDE: Readonly<Record<string, ColumnKind>> = {
  time: {
    label: "time",
    dimension: null,
    spellings: ["time", "clock", "when", "hour", "at time"],
    field: null,
  },
  wall: {
    label: "energy at the wall",
    dimension: "energy",
    spellings: ["wall", "wall wh", "wall energy", "wall meter", "charged wh"],
    field: null,
  },
  charger: {
    label: "which charger",
    dimension: null,
    spellings: ["charger", "which charger"],
    field: null,
  },
  event: { label: "event", dimension: null, spellings: ["event", "what", "kind", "type"], field: null },
};

/** A column of check-ins, by its name. */
export type ColumnField = string;

/** The columns by name: label for people, dimension for units, and the headings they go by. */
export const COLUMNS: Readonly<Record<ColumnField, ColumnKind>> = {
  ...Object.fromEntries(
    SIGHTING_FIELDS.flatMap((field) => {
      const { column, label, dimension }: Field = SIGHTING[field];
      return column ? [[column.name, { label, dimension, spellings: column.headings, field }] as const] : [];
    }),
  ),
  ...BESIDE,
};

/** What a column of check-ins can hold. */
export const COLUMN_FIELDS: readonly ColumnField[] = Object.keys(COLUMNS);

/**
 * The column that fills a field of an entry; the event's where none does by itself.
 *
 * @example columnOf("percent") === "percent"
 */
export const columnOf = (field: string): ColumnField =>
  COLUMN_FIELDS.find((name) => nth(COLUMNS, name).field === field) ??
  ({ wallWh: "wall", charger: "charger" } as Readonly<Record<string, ColumnField>>)[field] ??
  "event";

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
  const bracketUnit = bracket && UNIT_WORDS.get(nth(bracket, 1));
  const lastUnit = words.length > 0 ? UNIT_WORDS.get(lastOf(words)) : undefined;
  const find = (name: string) =>
    COLUMN_FIELDS.find((field) => name !== "" && nth(COLUMNS, field).spellings.includes(name)) ?? null;
  const name = words.join(" ").replaceAll("%", "").trim();
  const whole = find(name);
  const short = find(words.slice(0, -1).join(" "));
  const percent = lower.includes("%");
  const field = whole ?? (lastUnit ? short : null) ?? (percent ? "percent" : null);
  const unit = bracketUnit ?? lastUnit ?? null;
  return { field, unit: field === null ? null : unit };
}
