import { z } from "zod";
import { entryBodySchema, type EntryBody, type LiveEntry } from "#core/ride/log";
import { durationText, forField, formatInput, unitOf, type DimensionName, type System } from "#core/base";
import {
  endsOf,
  EVENTS,
  readTyped,
  SIGHTING,
  SIGHTING_FIELDS,
  type Field,
  type SightingField,
} from "#core/fields";
import { choice, quantityText, tick, words } from "#app/ui/forms/formText";

/** What a check-in can be, in the order of a ride. Ends carry their reason. */
export const WHAT = EVENTS.flatMap(({ name, label }) => (label === null ? [] : [{ value: name, label }]));

/** Fields of a sighting that can be typed: a span is typed in the field it belongs to. */
export const TYPED = SIGHTING_FIELDS.filter((name) => (SIGHTING[name] as Field).line !== null);

/** What is typed of an entry beside what was seen, by its dimension; null for what is no quantity. */
const BESIDE = {
  what: null,
  time: null,
  bar: "count",
  chargerDone: null,
  wallWh: "energy",
  charger: null,
  toFull: null,
} as const satisfies Readonly<Record<string, DimensionName | null>>;

export type EntryField = SightingField | keyof typeof BESIDE;
export const ENTRY_FIELDS: readonly EntryField[] = [
  ...TYPED,
  ...(Object.keys(BESIDE) as readonly (keyof typeof BESIDE)[]),
];

export interface TypedEntry {
  /** "10:41", or empty. */
  readonly time: string;
  readonly body: EntryBody;
}

/** How the text of a field of a sighting is read, to the stored value. */
function sightingText(name: SightingField, system: System): z.ZodType {
  const { kind, dimension }: Field = SIGHTING[name];
  if (kind === "tick") return tick.transform((ticked) => ticked && { [name]: true });
  if (dimension === null) return choice.transform((word) => word !== undefined && { [name]: word });
  return z
    .string()
    .optional()
    .transform((text, context) => {
      if (text === undefined || text.trim() === "") return undefined;
      const read = readTyped(name, text, unitOf(dimension, system));
      if (read.ok) return read.value;
      context.addIssue({ code: "custom", message: read.problems[0]!.sentence });
      return z.NEVER;
    });
}

/** An entry without a place needs a time, unless it is of no place. */
const PLACELESS: ReadonlySet<string> = new Set(["start", "note", "refill"]);

/** Reads the check-in form: quantities with units, then the entry's own schema, each sentence at its field. */
export const entryForm = (system: System) =>
  z
    .object({
      ...Object.fromEntries(TYPED.map((name) => [name, sightingText(name, system)])),
      what: choice.transform((what) => what ?? "checkIn"),
      time: words,
      bar: quantityText("count", system),
      chargerDone: tick,
      wallWh: quantityText("energy", system),
      charger: choice,
      toFull: tick,
    })
    .transform(({ what, time, chargerDone, toFull, bar, wallWh, charger, ...seen }, context): TypedEntry => {
      const [kind, reason] = what.split(":");
      const parsed = entryBodySchema.safeParse({
        kind,
        ...(reason && { reason }),
        ...(bar !== undefined && kind === "barLost" && { bar }),
        ...(chargerDone && kind === "start" && { chargerDone }),
        ...(toFull && kind === "refill" && { toFull }),
        ...(wallWh !== undefined && { wallWh }),
        ...(charger !== undefined && { charger }),
        ...(Object.assign({}, ...Object.values(seen)) as object),
      });
      if (!parsed.success) {
        for (const issue of parsed.error.issues)
          context.addIssue({
            code: "custom",
            path: [...issue.path],
            message:
              issue.path[0] === "bar" ? "Type which bar went, counted from the last: 4." : issue.message,
          });
        return z.NEVER;
      }
      const placed =
        "distanceM" in parsed.data &&
        (parsed.data.distanceM !== undefined || parsed.data.displayM !== undefined);
      if (!placed && time === "" && !PLACELESS.has(kind!)) {
        context.addIssue({
          code: "custom",
          path: ["distanceM"],
          message: "Type the distance, such as 12.4 mi, or the time it was read.",
        });
        return z.NEVER;
      }
      return { time, body: parsed.data };
    });

/** The dimension of a typed quantity, and what of it one stored unit is. */
function quantityOf(field: EntryField): { readonly dimension: DimensionName | null; readonly si: number } {
  if (field in BESIDE) return { dimension: BESIDE[field as keyof typeof BESIDE], si: 1 };
  const { dimension, siPerStored = 1 }: Field = SIGHTING[field as SightingField];
  return { dimension, si: siPerStored };
}

/** A stored value as it would be typed. */
function textOf(field: EntryField, value: number, system: System): string {
  const { dimension, si } = quantityOf(field);
  if (dimension === null) return forField(value);
  if (dimension === "duration") return si === 60 ? `${value} min` : durationText(value);
  return formatInput(value, dimension, unitOf(dimension, system));
}

/** An entry written back as the texts of its form, for a correction. */
export function entryTexts(
  entry: LiveEntry,
  time: string,
  system: System,
): Partial<Record<EntryField, string>> {
  const { body } = entry;
  const values = body as Readonly<Record<string, unknown>>;
  const texts: Partial<Record<EntryField, string>> = {
    what: body.kind === "end" ? `end:${body.reason}` : body.kind,
    time,
  };
  for (const field of ENTRY_FIELDS) {
    const value = values[field];
    const [low, high] =
      typeof value === "number" && field in SIGHTING
        ? endsOf(field as SightingField, values)
        : [value as number, value as number];
    if (typeof value === "number")
      texts[field] =
        low === high
          ? textOf(field, value, system)
          : `${textOf(field, low, system).replace(/\s*[^\d.,\s].*$/u, "")}-${textOf(field, high, system)}`;
    else if (typeof value === "string") texts[field] = value;
    else if (value === true) texts[field] = "on";
  }
  return texts;
}
