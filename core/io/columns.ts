import { nth, unitNamed } from "#core/base";
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

/** A bracket as short as this, or with a stroke, is meant as a unit, known or not. */
const UNIT_LENGTH = 4;

/** The unit a heading names, of its field's own; one that is meant as a unit and is none of them stays as it stands. */
function unitIn(
  dimension: DimensionName | null,
  bracket: string | undefined,
  last: string | undefined,
): string | null {
  if (dimension === null) return null;
  const known = (text: string | undefined) => (text !== undefined && unitNamed(dimension, text)) || null;
  const meant =
    bracket !== undefined && (bracket.length <= UNIT_LENGTH || bracket.includes("/")) ? bracket : null;
  return known(bracket) ?? meant ?? known(last);
}

/** No heading of a column is longer; what goes on says no more of it. */
const LONGEST_HEADING = 200;

/**
 * Reads a column heading as people write it. A unit that is none of its column's is kept, so that it is asked about.
 *
 * @example readHeading("Dist (km)").unit === "km"
 * @example readHeading("Speed, m/s").unit === "m/s"
 * @example readHeading("trip meter").unit === null
 * @example readHeading("Distance (kWh)").unit === "kWh"
 */
export function readHeading(heading: string): Heading {
  const plain = heading.trim().slice(0, LONGEST_HEADING).replaceAll("_", " ");
  const lower = plain.toLowerCase();
  const bracket = /[([]\s*([^)\]]+?)\s*[)\]]/.exec(plain)?.[1];
  const outside = lower.replace(/[([][^)\]]*[)\]]/g, " ");
  const words = outside.split(/[\s,.:;-]+/).filter(Boolean);
  const find = (name: string) =>
    COLUMN_FIELDS.find((field) => name !== "" && nth(COLUMNS, field).spellings.includes(name)) ?? null;
  const name = words.join(" ").replaceAll("%", "").trim();
  const [short, last] = [find(words.slice(0, -1).join(" ")), words.at(-1)];
  const isUnit = short !== null && last !== undefined && isUnitOf(short, last);
  const field = find(name) ?? (isUnit ? short : null) ?? (lower.includes("%") ? "percent" : null);
  if (field === null) return { field, unit: null };
  // A trip meter is an instrument, no length.
  const unitWord = field === "display" && last === "meter" ? undefined : last;
  return { field, unit: unitIn(nth(COLUMNS, field).dimension, bracket, unitWord) };
}

const isUnitOf = (field: ColumnField, word: string): boolean => {
  const { dimension } = nth(COLUMNS, field);
  return dimension !== null && unitNamed(dimension, word) !== undefined;
};
