import { unitOf, type System } from "#core/base";
import {
  readTyped,
  SIDES,
  SIGHTING,
  SIGHTING_FIELDS,
  sightingSchema,
  type Field,
  type SightingField,
} from "#core/fields";
import type { Bike } from "#core/records";

/** Where a shorter word does for a large field. */
const FIRST_WORDS: Readonly<Partial<Record<SightingField, string>>> = { distanceM: "Distance" };

/** The few figures that are always asked for, where the bike has them. */
export const MAIN: Readonly<Partial<Record<SightingField, (bike: Bike) => boolean>>> = {
  distanceM: () => true,
  percent: ({ percentStep }) => percentStep > 0,
  bars: ({ bars }) => bars > 0,
  packVolts: ({ meterStepV }) => meterStepV > 0,
};

/** Every quantity of a sighting, as it is declared, with what of it one stored unit is. */
export const FIGURES = SIGHTING_FIELDS.flatMap((name) => {
  const { kind, dimension, label, line, siPerStored = 1 }: Field = SIGHTING[name];
  return kind === "quantity" && dimension && line
    ? [{ name, dimension, siPerStored, label: FIRST_WORDS[name] ?? label[0]!.toUpperCase() + label.slice(1) }]
    : [];
});
export const isMain = (name: SightingField) => name in MAIN;

/** Words typed beside the figures. */
export const WORDS = ["section", "meter"] as const;

/** What the figures of a form say, or what is wrong with each. */
export function readFigures(
  form: FormData,
  system: System,
): { readonly body: Readonly<Record<string, unknown>>; readonly problems: Readonly<Record<string, string>> } {
  const problems: Record<string, string> = {};
  const body: Record<string, unknown> = {};
  for (const { name, dimension } of FIGURES) {
    const text = String(form.get(name) ?? "").trim();
    if (text === "") continue;
    const read = readTyped(name, text, unitOf(dimension, system));
    if (!read.ok) {
      problems[name] = read.problems[0]!.sentence;
      continue;
    }
    const kept = sightingSchema.safeParse(read.value);
    if (kept.success) Object.assign(body, kept.data);
    else problems[name] = kept.error.issues[0]!.message;
  }
  for (const name of WORDS) {
    const text = String(form.get(name) ?? "").trim();
    if (text) body[name] = text.slice(0, 40);
  }
  const side = SIDES.find((each) => each === form.get("side"));
  if (side) body["side"] = side;
  if (body["packVolts"] !== undefined) body["underLoad"] = form.get("load") === "on";
  return { body, problems };
}
