import { z } from "zod";
import { parseNumber } from "#core/base";
import { choice } from "#app/ui/forms/formText";

/** A price: "1899 EUR" or "1899.50". */
export const priceText = choice.transform((text, context) => {
  if (text === undefined) return { priceMinor: undefined, currency: undefined };
  const [, figure, currency] = /^([\d.,\s']+?)\s*([A-Za-z]{3})?$/.exec(text) ?? [];
  const amount = figure === undefined ? undefined : parseNumber(figure);
  if (typeof amount === "number")
    return { priceMinor: Math.round(amount * 100), currency: currency?.toUpperCase() };
  context.addIssue({
    code: "custom",
    message:
      amount === "ambiguous"
        ? `“${text}” can be read two ways: type it without the comma.`
        : `“${text}” is not a price: type for example 1899 EUR.`,
  });
  return z.NEVER;
});
