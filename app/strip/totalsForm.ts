import { z } from "zod";
import { quantityText } from "#app/ui/forms/formText";
import { exampleOf, SIGHTING, type Field } from "#core/fields";
import { entryBodySchema, TOTAL_FIELDS, type EntryBody, type TotalField } from "#core/ride/log";
import { durationText, formatInput, unitOf, type DimensionName, type System } from "#core/base";

interface TotalKind {
  readonly field: TotalField;
  readonly label: string;
  readonly dimension: DimensionName;
  readonly example: string;
}

/** What a recorder says of a whole ride, as its fields are shown. */
export const totalKinds = (system: System): readonly TotalKind[] =>
  TOTAL_FIELDS.map((field) => {
    const declared: Field = SIGHTING[field];
    return {
      field,
      label: declared.label[0]!.toUpperCase() + declared.label.slice(1),
      dimension: declared.dimension!,
      example: exampleOf(declared, system),
    };
  });

/** Reads the totals of a ride: quantities with units, then the entry's own schema; the entry, or null when all are empty. */
export const totalsForm = (system: System) =>
  z
    .object(
      Object.fromEntries(
        totalKinds(system).map(({ field, dimension }) => [field, quantityText(dimension, system)]),
      ) as Record<TotalField, ReturnType<typeof quantityText>>,
    )
    .transform((typed, context): EntryBody => {
      const parsed = entryBodySchema.safeParse({ kind: "totals", ...typed });
      if (parsed.success) return parsed.data;
      for (const issue of parsed.error.issues)
        context.addIssue({ code: "custom", path: [...issue.path], message: issue.message });
      return z.NEVER;
    });

/** A total written back as the text of its field. */
export function totalText({ field, dimension }: TotalKind, value: number | null, system: System): string {
  if (value === null) return "";
  if (field === "movingS") return durationText(value);
  return formatInput(value, dimension, unitOf(dimension, system), 1);
}
