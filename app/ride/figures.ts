import { parseQuantity, unitOf, type System } from "#core/base";
import { SIDES, SIGHTING, SIGHTING_FIELDS, type Field, type SightingField } from "#core/fields";
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
  for (const { name, dimension, siPerStored } of FIGURES) {
    const text = String(form.get(name) ?? "").trim();
    if (text === "") continue;
    const value = parseQuantity(text, dimension, unitOf(dimension, system));
    const kept = value.ok ? SIGHTING[name].schema.safeParse(value.value / siPerStored) : null;
    if (!value.ok) problems[name] = value.problems[0]!.sentence;
    else if (kept?.success) body[name] = kept.data;
    else problems[name] = kept!.error!.issues[0]!.message;
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
