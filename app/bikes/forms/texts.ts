import { z } from "zod";
import { formatInput, parseNumber, unitOf, type DimensionName, type System } from "#core/base";
import { choice } from "#app/ui/formText";

/** What a form holds, field by field, as it is typed. */
export type Texts = Readonly<Record<string, string>>;

export const shown = (value: number | undefined, name: DimensionName, system: System) =>
  value === undefined ? "" : formatInput(value, name, unitOf(name, system));
export const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
export const on = (value: boolean) => (value ? "on" : "");

/** A price: "1899 EUR" or "1899.50". */
export const priceText = choice.transform((text, context) => {
  if (text === undefined) return { priceMinor: undefined, currency: undefined };
  const match = /^([\d.,\s']+?)\s*([A-Za-z]{3})?$/.exec(text);
  const amount = match ? parseNumber(match[1]!) : undefined;
  if (typeof amount === "number")
    return { priceMinor: Math.round(amount * 100), currency: match![2]?.toUpperCase() };
  context.addIssue({
    code: "custom",
    message:
      amount === "ambiguous"
        ? `“${text}” can be read two ways: type it without the comma.`
        : `“${text}” is not a price: type for example 1899 EUR.`,
  });
  return z.NEVER;
});
