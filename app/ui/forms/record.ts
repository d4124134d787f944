import { z } from "zod";
import {
  forField,
  formatInput,
  fromSi,
  stopwatchAt,
  stopwatchText,
  unitOf,
  Z_95,
  type DimensionName,
  type System,
} from "#core/base";
import type { RecordField, RecordFields } from "#core/fields";
import { compassText, compassWritten } from "#app/ui/forms/compass";
import {
  choice,
  numberText,
  pencilText,
  quantityText,
  readInto,
  shareText,
  spanText,
  tick,
  weightText,
  words,
} from "#app/ui/forms/formText";

/** What a form holds, field by field, as it is typed. */
export type Texts = Readonly<Record<string, string>>;

/**
 * A field that is typed in a way of its own. `read` gives the field's value, or where it `spreads` several of the record's
 * fields at once; `written` is what a form shows of a record.
 */
export interface OwnField<Kept> {
  readonly read: (system: System) => z.ZodType;
  readonly written: (record: Kept, system: System) => string;
  readonly spreads?: true;
}
export type OwnFields<Kept> = Readonly<Record<string, OwnField<Kept>>>;

/** A stopwatch's time, "3:24", or a time with its unit. */
const stopwatch = (system: System) =>
  z.preprocess(
    (text) => {
      const seconds = typeof text === "string" ? stopwatchAt(text) : null;
      return seconds === null ? text : `${seconds} s`;
    },
    quantityText("duration", system, "s"),
  );

const orElse = <T extends z.ZodType>(text: T, empty: number | undefined) =>
  empty === undefined ? text : text.transform((value) => value ?? empty);

/** A margin as it is typed is kept as one sd. */
const sdOf = <T extends z.ZodType<number | undefined>>(text: T, margin: true | undefined) =>
  margin ? text.transform((value) => (value === undefined ? undefined : value / Z_95)) : text;

function readerOf({ typed }: RecordField, system: System): z.ZodType {
  switch (typed.as) {
    case "name":
    case "day":
    case "choice":
      return choice;
    case "words":
    case "lines":
      return words;
    case "tick":
      return tick;
    case "percent":
      return sdOf(shareText, typed.margin);
    case "compass":
      return compassText;
    case "stopwatch":
      return stopwatch(system);
    case "number":
      return orElse(numberText, typed.empty);
    case "quantity":
      return sdOf(orElse(quantityText(typed.dimension, system), typed.empty), typed.margin);
    case "span":
      return spanText(typed.dimension, system);
    case "weight":
      return weightText(typed.of, typed.leastKg, typed.mostKg, system);
    case "own":
      throw new Error("A field typed in its own way brings its reader.");
  }
}

/**
 * A record's form made of its fields: texts as typed, read into the record and checked as such.
 *
 * @param kept the record's own schema; @param own readers of the fields that are typed in a way of their own
 */
export function recordForm<Kept extends z.ZodType>(
  fields: RecordFields,
  kept: Kept,
  system: System,
  own: OwnFields<never> = {},
): z.ZodType<z.output<Kept>> {
  const ends = Object.values(fields).flatMap(({ typed }) => (typed.as === "span" ? [typed.to] : []));
  const asked = Object.entries(fields).filter(([key]) => !ends.includes(key));
  const read = z
    .object({
      ...Object.fromEntries(
        asked.map(([key, field]) => [key, own[key]?.read(system) ?? readerOf(field, system)]),
      ),
      pencil: pencilText,
    })
    .transform((typed: Readonly<Record<string, unknown>>) =>
      Object.fromEntries(
        Object.entries(typed).flatMap(([key, value]) => {
          const field = fields[key]?.typed;
          if (field?.as === "span" && Array.isArray(value))
            return [
              [key, value[0] as unknown],
              [field.to, value[1] as unknown],
            ];
          return own[key]?.spreads ? Object.entries(value as object) : [[key, value] as const];
        }),
      ),
    );
  return readInto(read, kept) as unknown as z.ZodType<z.output<Kept>>;
}

const shown = (value: number, name: DimensionName, system: System, digits?: number) =>
  formatInput(value, name, unitOf(name, system), digits);

function writtenOf(
  { typed }: RecordField,
  value: unknown,
  system: System,
  record: Readonly<Record<string, unknown>>,
): string {
  if (value === undefined || value === null) return "";
  switch (typed.as) {
    case "tick":
      return value ? "on" : "";
    case "percent":
      return `${forField(Number((100 * (value as number) * (typed.margin ? Z_95 : 1)).toFixed(2)))} %`;
    case "compass":
      return compassWritten(value as number);
    case "stopwatch":
      return stopwatchText(value as number);
    case "quantity":
      return shown((value as number) * (typed.margin ? Z_95 : 1), typed.dimension, system, typed.digits);
    case "span": {
      const [low, high] = [value as number, (record[typed.to] ?? value) as number].map((end) =>
        forField(
          Number(fromSi(end, typed.dimension, unitOf(typed.dimension, system)).toFixed(typed.digits ?? 2)),
        ),
      );
      return low === high ? low! : `${low}-${high}`;
    }
    case "weight":
      return shown(value as number, "mass", system);
    case "number":
      return forField(value as number);
    default:
      return String(value);
  }
}

/** A record, or what is known of one, as its form's texts. */
export function recordTexts<Kept extends object>(
  fields: RecordFields,
  record: Partial<Kept>,
  system: System,
  own: OwnFields<Kept> = {},
): Texts {
  const values: Readonly<Record<string, unknown>> = record as never;
  return Object.fromEntries(
    Object.entries(fields).map(([key, field]) => [
      key,
      own[key]?.written(record as Kept, system) ?? writtenOf(field, values[key], system, values),
    ]),
  );
}
