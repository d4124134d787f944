import type { DimensionName } from "#core/base";
import { z } from "zod";

/** How a field of a record is typed by a person, and so how what they typed is read. */
export type Typed =
  /** A line of text: that must be there, or may stay empty. */
  | { readonly as: "name" | "words" | "lines" | "day" | "clock" | "tick" | "compass" | "stopwatch" }
  /** Several things, one a line. */
  | { readonly as: "list" }
  /** Several of the values of its schema; what they are called where that is not what is kept. */
  | { readonly as: "ticks"; readonly says?: Readonly<Record<string, string>> }
  /** A record of its own within this one, by its fields; null where all of them are empty. */
  | { readonly as: "record"; readonly of: RecordFields }
  /** A share; as a margin, half of the span that holds the truth 95 times in 100, kept as one sd. */
  | { readonly as: "percent"; readonly margin?: true }
  /** A number without a unit; what is left empty is undefined, or a number of its own. */
  | { readonly as: "number"; readonly whole?: true; readonly empty?: number }
  /** A quantity with its unit, or a bare number in the reader's own. */
  | {
      readonly as: "quantity";
      readonly dimension: DimensionName;
      readonly empty?: number;
      /** Most decimals it is written back with. */
      readonly digits?: number;
      /** Half of the span that holds the truth 95 times in 100; kept as one sd. */
      readonly margin?: true;
    }
  /** Two figures with a stroke between, or one for both; the second is kept under another key. */
  | {
      readonly as: "span";
      readonly dimension: DimensionName;
      readonly to: string;
      readonly digits?: number;
    }
  /** A weight; a bare number that would be odd in the reader's unit is asked about. */
  | { readonly as: "weight"; readonly of: string; readonly leastKg: number; readonly mostKg: number }
  /** One of the values of its schema; what they are called where that is not what is kept, and what none is called. */
  | {
      readonly as: "choice";
      readonly says?: Readonly<Record<string, string>>;
      readonly none?: string;
    }
  /** In a way of its own, which its form brings. */
  | { readonly as: "own"; readonly lines?: number };

/**
 * One field of a record, declared once: its schema in SI, with what is taken where nothing was typed, and how a form asks for
 * it. Schemas, forms, the choices a column may hold and the check of `calc`'s page are made from it.
 */
export interface RecordField<S extends z.ZodType = z.ZodType> {
  readonly schema: S;
  readonly label: string;
  readonly hint?: string;
  readonly typed: Typed;
  /** Heading of the part of the form where it stands; empty for the first. */
  readonly under?: string;
  /** It takes a whole line of the form. */
  readonly wide?: true;
}

export type RecordFields = Readonly<Record<string, RecordField>>;
type ShapeOf<Fields extends RecordFields> = { -readonly [Key in keyof Fields]: Fields[Key]["schema"] };

/** Keeps the type of each field's schema. */
export const recordField = <S extends z.ZodType>(field: RecordField<S>): RecordField<S> => field;

/** The schemas of a record's fields, by key: the shape of the record's own schema. */
export const shapeOf = <Fields extends RecordFields>(fields: Fields): ShapeOf<Fields> =>
  Object.fromEntries(Object.entries(fields).map(([key, { schema }]) => [key, schema])) as ShapeOf<Fields>;

/**
 * The values a choice, or each of several, may have, in their order.
 *
 * @returns empty for a field that is no choice
 * @example choicesOf of `z.enum(["hub", "mid"]).default("hub")` is ["hub", "mid"]
 */
export function choicesOf({ schema }: Pick<RecordField, "schema">): readonly string[] {
  let inner: unknown = schema;
  while (
    inner instanceof z.ZodDefault ||
    inner instanceof z.ZodOptional ||
    inner instanceof z.ZodNullable ||
    inner instanceof z.ZodArray ||
    inner instanceof z.ZodPipe
  )
    inner = inner instanceof z.ZodPipe ? inner.out : inner.unwrap();
  return inner instanceof z.ZodEnum ? inner.options.map(String) : [];
}
