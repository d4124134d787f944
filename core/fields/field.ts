import type { DimensionName, System } from "#core/base";
import type { z } from "zod";

/** Where in a form a field stands, beside what is most asked for. */
export type FieldGroup = "main" | "place" | "motor" | "rider" | "whole ride";

/** How the field's line names a field: by a unit that is its own, by words before the figure, or in a way of its own. */
export interface LineWords {
  /** How a person hears it back: "climbed". */
  readonly says: string;
  /** Units that mean it by themselves, as people write them, with spaces between. */
  readonly units?: string;
  /** What is written behind a count. */
  readonly unit?: string;
  /** Words before the figure, with spaces between. */
  readonly leads?: string;
  /** After such a word a bare number needs no unit. */
  readonly bare?: boolean;
  /** It is the mean or the most of another field over the whole ride: "avg 14.1mph". */
  readonly overall?: readonly [of: string, by: "avg" | "top"];
}

/**
 * One field, declared once: its schema in SI, its label, and the words it is known by. Forms, the line, tables, `calc` and
 * the database's checks are made from it.
 */
export interface Field<S extends z.ZodType = z.ZodType> {
  readonly schema: S;
  readonly label: string;
  readonly kind: "quantity" | "choice" | "words" | "tick";
  /** Of a quantity; null for the others. */
  readonly dimension: DimensionName | null;
  /** SI units of the dimension to one of the stored value: minutes of rest are 60 s each. */
  readonly siPerStored?: number;
  /** What could be typed, where the label does not tell. */
  readonly example?: string | Readonly<Record<System, string>>;
  readonly group: FieldGroup;
  /** The column of a table of check-ins: its name, and the headings it goes by, without units, punctuation or case. */
  readonly column: { readonly name: string; readonly headings: readonly string[] } | null;
  /** The field that holds how far a figure flickered, where a span such as "6-7" can be typed. */
  readonly span?: string;
  readonly line: LineWords | null;
}

/**
 * What could be typed into a field by somebody who reads in a system; empty where its label tells.
 *
 * @example exampleOf({ example: "12.4 mi" }, "imperial") === "12.4 mi"
 */
export const exampleOf = ({ example = "" }: Pick<Field, "example">, system: System): string =>
  typeof example === "string" ? example : example[system];
