import { text, parseNumber, parseQuantity, unitOf, type DimensionName, type System } from "#core/base";
import { z } from "zod";

/**
 * Zod pieces that read what forms send: text, as typed. Each turns it into the SI value that core's schemas then check,
 * with a sentence for what cannot be read.
 */
const typed = text().optional();

/** A quantity with or without its unit, a bare number in the person's own unless said; empty is undefined. */
export function quantityText(name: DimensionName, system: System, bareUnit = unitOf(name, system)) {
  return typed.transform((text, context) => {
    if (text === undefined || text.trim() === "") return undefined;
    const value = parseQuantity(text, name, bareUnit);
    if (value.ok) return value.value;
    context.addIssue({ code: "custom", message: value.problems[0]!.sentence });
    return z.NEVER;
  });
}

/** Two figures with a stroke between, as they flicker: "6-7 A"; one alone is both ends. Empty is undefined. */
export function spanText(name: DimensionName, system: System) {
  return typed.transform((text, context): readonly [number, number] | undefined => {
    if (text === undefined || text.trim() === "") return undefined;
    const ends = text.trim().split(/\s*(?:[-–—]|\bto\b)\s*/);
    const unit = /[a-z%].*$/i.exec(ends.at(-1) ?? "")?.[0] ?? unitOf(name, system);
    const read = ends.map((end) => parseQuantity(end, name, unit.toLowerCase() === "amps" ? "A" : unit));
    const [low, high = low] = read;
    if (ends.length <= 2 && low?.ok && high?.ok) return [low.value, high.value];
    context.addIssue({
      code: "custom",
      message: `“${text}” cannot be read: type 6.5, or 6-7 as it flickers.`,
    });
    return z.NEVER;
  });
}

/**
 * A weight whose unit is plain: a bare number that would be odd in the person's own unit is asked about instead of taken
 * ("23 lb is light for an e-bike: 23 kg?").
 *
 * @param what is weighed; @param leastKg and @param mostKg of what is usual
 */
export function weightText(what: string, leastKg: number, mostKg: number, system: System) {
  const mass = quantityText("mass", system);
  return typed.transform((text, context) => {
    const parsed = mass.safeParse(text);
    if (!parsed.success) {
      for (const { message } of parsed.error.issues) context.addIssue({ code: "custom", message });
      return z.NEVER;
    }
    const kg = parsed.data;
    if (kg === undefined || (kg >= leastKg && kg <= mostKg) || !/^[\d.,\s]+$/.test(text ?? "")) return kg;
    const [own, other] = system === "imperial" ? ["lb", "kg"] : ["kg", "lb"];
    const bare = text!.trim();
    context.addIssue({
      code: "custom",
      message: `${bare} ${own} is ${kg < leastKg ? "light" : "heavy"} for ${what}. ${bare} ${other}? Type the unit with it: “${bare} ${other}”, or “${bare} ${own}” if it is so.`,
    });
    return z.NEVER;
  });
}

/** A share typed as percent: "25" or "25 %" is 0.25; empty is undefined. */
export const shareText = typed.transform((text, context) => {
  if (text === undefined || text.trim() === "") return undefined;
  const value = parseNumber(text.replace("%", ""));
  if (typeof value === "number") return value / 100;
  context.addIssue({ code: "custom", message: `“${text}” is not a percentage: type for example 3 %.` });
  return z.NEVER;
});

/** One thing a line, for lists. */
export const linesText = typed.transform((text) =>
  (text ?? "")
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean),
);

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

/** Several of a name, as ticks send them: none, one or many; or as one text, one a line. */
export const ticksText = z
  .union([text(), z.array(text())])
  .optional()
  .transform((sent) => (Array.isArray(sent) ? sent : (sent ?? "").split("\n").filter(Boolean)));

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
  .union([text(), z.array(text())])
  .optional()
  .transform((sent) => (sent === undefined ? [] : Array.isArray(sent) ? sent : [sent]));

/** A form's schema followed by the record's: what was typed, read, then checked as the record it becomes. */
export function readInto<Form extends z.ZodType, Kept extends z.ZodType>(
  form: Form,
  record: Kept,
): z.ZodPipe<Form, z.ZodType<z.output<Kept>, z.output<Form>>> {
  return form.pipe(record as unknown as z.ZodType<z.output<Kept>, z.output<Form>>);
}
