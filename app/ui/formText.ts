import { z } from "zod";
import { parseNumber, parseQuantity, unitOf, type DimensionName, type System } from "#core/quantities";

/**
 * Zod pieces that read what forms send: text, as typed. Each turns it into the SI value that core's schemas then check,
 * with a sentence for what cannot be read.
 */
const typed = z.string().optional();

/** A quantity with or without its unit; empty is undefined. */
export function quantityText(name: DimensionName, system: System) {
  return typed.transform((text, context) => {
    if (text === undefined || text.trim() === "") return undefined;
    const value = parseQuantity(text, name, unitOf(name, system));
    if (value.ok) return value.value;
    context.addIssue({ code: "custom", message: value.problems[0]!.sentence });
    return z.NEVER;
  });
}

/** A plain number; empty is undefined. */
export const numberText = typed.transform((text, context) => {
  if (text === undefined || text.trim() === "") return undefined;
  const value = parseNumber(text);
  if (typeof value === "number") return value;
  context.addIssue({ code: "custom", message: `“${text}” is not a number: type for example 3 or 0.5.` });
  return z.NEVER;
});

/** A check box: present means yes. */
export const tick = typed.transform((text) => text === "on" || text === "true");

/** Text that may be left empty. */
export const words = typed.transform((text) => text ?? "");

/** A name or choice; empty is undefined, so that the schema behind can say what is missing. */
export const choice = typed.transform((text) => (text?.trim() ? text.trim() : undefined));

/** Several words with commas between them. */
export const listText = typed.transform((text) =>
  (text ?? "")
    .split(",")
    .map((word) => word.trim())
    .filter(Boolean),
);

/** The names of the fields still in pencil: sent once, several times or not at all. */
export const pencilText = z
  .union([z.string(), z.array(z.string())])
  .optional()
  .transform((sent) => (sent === undefined ? [] : Array.isArray(sent) ? sent : [sent]));

/** A form's schema followed by the record's: what was typed, read, then checked as the record it becomes. */
export function readInto<Form extends z.ZodType, Kept extends z.ZodType>(
  form: Form,
  record: Kept,
): z.ZodPipe<Form, z.ZodType<z.output<Kept>, z.output<Form>>> {
  return form.pipe(record as unknown as z.ZodType<z.output<Kept>, z.output<Form>>);
}
