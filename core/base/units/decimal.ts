/** The sign between whole and fraction, as the reader of a page writes it. */
export type Decimal = "." | ",";

let readersDecimal: () => Decimal = () => ".";

/**
 * Tells how the reader of the page that is being drawn writes numbers. Set once where pages are drawn, in the browser and
 * on the server; everywhere else, and so in all that is kept, numbers have a point.
 */
export function decimalBy(reader: () => Decimal): void {
  readersDecimal = reader;
}

/** A plain number as the reader writes it. Example: `inReadersDecimal("25.5") === "25.5"` until told otherwise. */
export const inReadersDecimal = (number: string): string => number.replace(".", readersDecimal());

/** Numbers of a sentence; not what stands in quotes, which is as it was typed, nor versions and addresses. */
const NUMBERS = /“[^”]*”|(?<![\w.])\d+\.\d+(?![\w.]*\.\d)/g;

/** A sentence with its numbers as the reader writes them. */
export const withReadersDecimals = (sentence: string): string =>
  readersDecimal() === "."
    ? sentence
    : sentence.replace(NUMBERS, (found) => (found.startsWith("“") ? found : inReadersDecimal(found)));

/** Units in which thousands are as likely as thousandths. */
export const IN_THOUSANDS: readonly string[] = ["m", "ft", "mm", "Wh", "W", "mAh"];

/** Three digits behind a comma, or behind a point before some units, may be thousands. */
const MAYBE_THOUSANDS = /^-?[1-9]\d{0,2}\.\d{3}$/;

/**
 * A number for a field, so that reading it back gives it again: where its three last digits would be asked about, they get
 * a nought.
 *
 * @param inThousands its unit is one in which thousands are as likely
 * @example forField(12.5) === "12.5"
 */
export function forField(value: number, inThousands = false): string {
  const text = String(value);
  const asked = MAYBE_THOUSANDS.test(text) && (inThousands || readersDecimal() === ",");
  return inReadersDecimal(asked ? `${text}0` : text);
}
