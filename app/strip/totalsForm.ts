import { z } from "zod";
import { quantityText } from "#app/ui/formText";
import { entryBodySchema, type EntryBody, type TotalField } from "#core/ride/log";
import { durationText, formatInput, unitOf, type DimensionName, type System } from "#core/base";

interface TotalKind {
  readonly field: TotalField;
  readonly label: string;
  readonly dimension: DimensionName;
  readonly placeholder: Readonly<Record<System, string>>;
}

const both = (text: string) => ({ imperial: text, metric: text });

/** What a recorder says of a whole ride, as its fields are shown. */
export const TOTAL_KINDS: readonly TotalKind[] = [
  { field: "movingS", label: "Riding time", dimension: "duration", placeholder: both("2 h 47 min or 2:47") },
  {
    field: "avgSpeedMps",
    label: "Average speed",
    dimension: "speed",
    placeholder: { imperial: "14.1 mph", metric: "22.7 km/h" },
  },
  {
    field: "topSpeedMps",
    label: "Top speed",
    dimension: "speed",
    placeholder: { imperial: "24 mph", metric: "39 km/h" },
  },
  {
    field: "climbM",
    label: "Climb",
    dimension: "climb",
    placeholder: { imperial: "2100 ft", metric: "640 m" },
  },
  { field: "avgBpm", label: "Heart rate, mean", dimension: "count", placeholder: both("128") },
];

/** Reads the totals of a ride: quantities with units, then the entry's own schema; the entry, or null when all are empty. */
export const totalsForm = (system: System) =>
  z
    .object(
      Object.fromEntries(
        TOTAL_KINDS.map(({ field, dimension }) => [field, quantityText(dimension, system)]),
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
