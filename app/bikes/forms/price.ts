import { z } from "zod";
import { parseNumber, twoWays } from "#core/base";
import { choice } from "#app/ui/forms/formText";

/** A price: "1899 EUR" or "1899.50". */
export const priceText = choice.transform((text, context) => {
  if (text === undefined) return { priceMinor: undefined, currency: undefined };
  const [, figure, currency] = /^([\d.,\s']+?)\s*([A-Za-z]{3})?$/.exec(text) ?? [];
  // A price has no thousandths: "1.850" is asked about as "1,850" is.
  const amount =
    figure === undefined ? undefined : parseNumber(figure.replace(/^(\d{1,3})\.(\d{3})$/, "$1,$2"));
  if (typeof amount === "number")
    return { priceMinor: Math.round(amount * 100), currency: currency?.toUpperCase() };
  context.addIssue({
    code: "custom",
    message:
      amount === "ambiguous" ? twoWays(figure ?? "") : `“${text}” is not a price: type for example 1899 EUR.`,
  });
  return z.NEVER;
});
