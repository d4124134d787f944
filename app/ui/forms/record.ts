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
  linesText,
  numberText,
  pencilText,
  quantityText,
  readInto,
  shareText,
  spanText,
  tick,
  ticksText,
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
    case "clock":
    case "choice":
      return choice;
    case "words":
    case "lines":
      return words;
    case "list":
      return linesText;
    case "tick":
      return tick;
    case "ticks":
      return ticksText;
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
    case "record":
      throw new Error("A record is read field by field.");
  }
}

type Values = Readonly<Record<string, unknown>>;

/** A reader for each input of a form, by its name: the key of its field, after the key of the record it stands in. */
function readersOf(
  fields: RecordFields,
  system: System,
  own: OwnFields<never> = {},
  within = "",
): Record<string, z.ZodType> {
  const ends = Object.values(fields).flatMap(({ typed }) => (typed.as === "span" ? [typed.to] : []));
  const readers: Record<string, z.ZodType> = {};
  for (const [key, field] of Object.entries(fields))
    if (field.typed.as === "record")
      Object.assign(readers, readersOf(field.typed.of, system, {}, `${within}${key}.`));
    else if (!ends.includes(key)) readers[within + key] = own[key]?.read(system) ?? readerOf(field, system);
  return readers;
}

/** What was read, input by input, as the values of a record. */
function gathered(fields: RecordFields, read: Values, own: OwnFields<never> = {}, within = ""): Values {
  const values: Record<string, unknown> = {};
  for (const [key, { typed }] of Object.entries(fields)) {
    const value = read[within + key];
    if (typed.as === "record") {
      const inner = gathered(typed.of, read, {}, `${within}${key}.`);
      values[key] = Object.values(inner).every((each) => each === undefined) ? null : inner;
    } else if (typed.as === "span" && Array.isArray(value))
      Object.assign(values, { [key]: value[0] as unknown, [typed.to]: value[1] as unknown });
    else if (own[key]?.spreads) Object.assign(values, value);
    else if (within + key in read) values[key] = value;
  }
  return values;
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
  const read = z
    .object({ ...readersOf(fields, system, own), pencil: pencilText })
    .transform((typed: Values) => ({ ...gathered(fields, typed, own), pencil: typed["pencil"] }));
  return readInto(read, kept) as unknown as z.ZodType<z.output<Kept>>;
}

/**
 * Texts read into the values of a record that is checked as part of a larger one.
 *
 * @returns what could be read, and a sentence by field for what could not
 */
export function readTexts(
  fields: RecordFields,
  texts: Values,
  system: System,
): { readonly values: Values; readonly problems: Readonly<Record<string, string>> } {
  const read: Record<string, unknown> = {};
  const problems: Record<string, string> = {};
  for (const [name, reader] of Object.entries(readersOf(fields, system))) {
    const parsed = reader.safeParse(texts[name]);
    if (parsed.success) read[name] = parsed.data;
    else problems[name] = parsed.error.issues[0]!.message;
  }
  return { values: gathered(fields, read), problems };
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
    case "list":
    case "ticks":
      return (value as readonly string[]).join("\n");
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
  const values: Values = record as never;
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, field]) =>
      field.typed.as === "record"
        ? Object.entries(recordTexts(field.typed.of, (values[key] ?? {}) as object, system)).map(
            ([name, text]) => [`${key}.${name}`, text] as const,
          )
        : [
            [
              key,
              own[key]?.written(record as Kept, system) ?? writtenOf(field, values[key], system, values),
            ] as const,
          ],
    ),
  );
}
