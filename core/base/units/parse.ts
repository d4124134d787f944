import { err, ok, type Result } from "../result/index.ts";
import { IN_THOUSANDS } from "./decimal.ts";
import { durationAt } from "./duration.ts";
import { dimension, toSi, type DimensionName } from "./units.ts";

const SHAPE = /^([+\-\u2212\u2013]?)\s*(\d[\d.,'\u00a0\u202f ]*|[.,]\d+)\s*(.*)$/u;
/** A comma before three digits; a point before three noughts: nobody writes 3 as "3.000", and many write 3000 so. */
const AMBIGUOUS = /^[1-9]\d{0,2}(,\d{3}|\.000)$/;
/** Where a figure may mean thousands, by its unit. */
const THOUSANDS = /^[+-]?[1-9]\d?\.\d{3}$/;

/**
 * Reads a number as people write it: decimal comma or point, spaces or apostrophes between thousands, a true minus.
 * A single comma before exactly three digits ("1,234"), or a point before three noughts ("3.000"), could be either and is
 * refused rather than guessed; in a column of a table the point is a point.
 *
 * @param text what was typed, for example "12,5" (12.5), "1.234,5" (1234.5), "-3"
 * @param column it stands in a column of a file, where the point is never between thousands
 * @returns the number, or undefined when it is not one; "ambiguous" when it could be two
 * @example parseNumber("1.234,5") === 1234.5
 * @example parseNumber("1,234") === "ambiguous"
 * @example parseNumber("3.000") === "ambiguous"
 * @example parseNumber("lots") === undefined
 */
export function parseNumber(text: string, column = false): number | "ambiguous" | undefined {
  const packed = text
    .trim()
    .replace(/^[\u2212\u2013]/, "-")
    .replace(/[\s'\u00a0\u202f]/g, "");
  if (!/^[+-]?(\d[\d.,]*|[.,]\d+)$/.test(packed)) return undefined;
  const sign = packed.startsWith("-") ? -1 : 1;
  const digits = packed.replace(/^[+-]/, "");
  const points = digits.split(".").length - 1;
  const commas = digits.split(",").length - 1;
  if (AMBIGUOUS.test(digits) && !(column && points === 1)) return "ambiguous";
  let plain: string;
  if (points && commas) {
    const decimal = digits.lastIndexOf(".") > digits.lastIndexOf(",") ? "." : ",";
    const group = decimal === "." ? "," : ".";
    const [whole = "", fraction = "", ...rest] = digits.split(decimal);
    if (rest.length || fraction.includes(group) || !/^\d{1,3}([.,]\d{3})+$/.test(whole)) return undefined;
    plain = `${whole.replaceAll(group, "")}.${fraction}`;
  } else if (points > 1 || commas > 1) {
    const group = points ? "." : ",";
    if (!/^\d{1,3}([.,]\d{3})+$/.test(digits)) return undefined;
    plain = digits.replaceAll(group, "");
  } else {
    plain = digits.replace(",", ".");
  }
  const value = Number(plain);
  return Number.isFinite(value) ? sign * value : undefined;
}

/**
 * Whether a figure with a point may mean thousands, by its unit: "1.250 m", not "52.123 V".
 */
export const couldBeThousands = (written: string, unit: string): boolean =>
  IN_THOUSANDS.includes(unit) && THOUSANDS.test(written);

/** What is asked of a number that can be read two ways, with both as they would be typed. */
export function twoWays(written: string): string {
  const [whole = "", fraction = ""] = written.split(/[.,]/);
  const decimals = fraction.replace(/0+$/, "") || "0";
  return `“${written}” can be read two ways: type ${whole}.${decimals.length === 3 ? `${decimals}0` : decimals} or ${whole}${fraction}.`;
}

/**
 * Reads a quantity with or without its unit into SI.
 *
 * @param text what was typed: "12 km", "31 psi", "-3 C", "12,4"
 * @param name the dimension expected
 * @param defaultUnit the unit of a bare number, for example "mi"
 * @param path where the text stands, for the problem
 * @param column it stands in a column of a file, where the point is never between thousands
 * @returns the SI value; problems "empty", "not-a-number", "ambiguous", "unknown-unit"
 * @example parseQuantity("12 km", "distance", "mi").value === 12000
 */
export function parseQuantity(
  text: string,
  name: DimensionName,
  defaultUnit: string,
  path = "",
  column = false,
): Result<number> {
  const { name: what, example, units } = dimension(name);
  if (text.trim() === "") return err("empty", path, `Type ${what}, for example ${example}.`);
  if (name === "duration") {
    const span = durationAt(text.trim());
    if (span?.to === text.trim().length) return ok(span.seconds);
  }
  const match = SHAPE.exec(text.trim());
  const written = match ? `${match[1]}${match[2]}`.trim() : "";
  const number = match && parseNumber(written, column);
  if (!match || number === undefined || number === null)
    return err("not-a-number", path, `“${text.trim()}” is not ${what}: type for example ${example}.`);
  const unit = match[3]?.trim() || defaultUnit;
  if (number === "ambiguous" || (!column && couldBeThousands(written, unit)))
    return err("ambiguous", path, twoWays(written));
  const value = toSi(number, name, unit);
  if (value === undefined) {
    const known = units.map(({ symbol }) => symbol).filter(Boolean);
    return err(
      "unknown-unit",
      path,
      `“${unit}” is not a unit of ${what}: type for example ${example}${known.length > 1 ? ` (${known.join(", ")})` : ""}.`,
    );
  }
  return ok(value);
}
