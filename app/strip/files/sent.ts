import { z } from "zod";
import { err, ok, parseQuantity, type Result } from "#core/base";
import { chosenColumns, formatNamed, METER_FIELDS, type FormatId, type MeterColumns } from "#core/io";

/** What a person chose of how a file is to be read, as its form has it. */
export interface FileChoices {
  readonly format?: FormatId;
  readonly columns?: MeterColumns;
  readonly drawnIsMinus?: boolean;
}

const columnsSchema = z.array(z.enum(METER_FIELDS).nullable()).max(200);

const asJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** Choices of a form; what is none of them is left to be found out. */
export function choicesOf(form: FormData): FileChoices {
  const format = formatNamed(form.get("format"));
  const columns = columnsSchema.safeParse(asJson(String(form.get("columns") ?? "")));
  const minus = form.get("drawnIsMinus");
  return {
    ...(format && { format: format.id as FormatId }),
    ...(columns.success && { columns: chosenColumns(columns.data) }),
    ...((minus === "yes" || minus === "no") && { drawnIsMinus: minus === "yes" }),
  };
}

/** A clock that was never set may be years off; the years themselves are looked at when the times are. */
const FARTHEST_S = 4e9;

/**
 * What is to be added to a clock, as it is typed.
 *
 * @returns s
 * @example offsetTyped("-1:00:04").value === -3604
 * @example offsetTyped("").value === 0
 */
export function offsetTyped(text: string): Result<number> {
  const plain = text.trim().replace(/^[−–]/, "-");
  if (plain === "") return ok(0);
  const [, sign = "", rest = ""] = /^([+-]?)\s*(.*)$/s.exec(plain) ?? [];
  const read = parseQuantity(rest, "duration", "s");
  if (!read.ok || read.value > FARTHEST_S || /^[+-]/.test(rest))
    return err(
      "bad-offset",
      "offset",
      `“${text.trim()}” is no time: type seconds, such as -12, or hours and minutes, such as -1:00:00.`,
    );
  return ok(sign === "-" ? -read.value : read.value);
}
