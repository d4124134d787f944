import type { ErrorSource } from "./sources.ts";
import type { Problem } from "#core/base";
import { problemIf } from "./kind.ts";
import { markSchema } from "./mark.ts";
import type { Row, RowError, ReadingUnknown } from "./row.ts";

/** What readings between two marks have in common: their marks, and energy rows with a device's shared gain. */

export const spanShape = { fromMark: markSchema, toMark: markSchema };

/** A span must run forward. */
export function checkSpan(reading: {
  readonly fromMark: number;
  readonly toMark: number;
}): readonly Problem[] {
  return problemIf(
    reading.toMark <= reading.fromMark,
    "span-order",
    "toMark",
    "The second mark must come after the first.",
  );
}

/** A device's gain as a standard-normal unknown that all its readings share. */
export function gainOf(device: string, source: ErrorSource): ReadingUnknown {
  return { key: `gain ${device}`, of: "device", mean: 0, sd: 1, source };
}

/** A row that says how much energy left the pack between two marks; without `from`, since full. */
export function energyRow(energy: NonNullable<Row["energy"]>, errors: readonly RowError[]): Row {
  return { fractions: [], unknowns: [], value: 0, errors, energy };
}
