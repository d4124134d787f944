import { nth } from "#core/base";
import { spokenFormatOf } from "#core/io";
import { readNarration, type Item } from "./read.ts";

/** Fewer words than this are notes, not speech. */
const FEWEST_WORDS = 40;
/** Moments that a quick figure takes: the first and the last ones say most. */
const MOST_MOMENTS = 12;

const figure = ({ value }: Item) => (Array.isArray(value) ? value.join("-") : String(value));
const of = (items: readonly Item[], kind: Item["kind"]) => items.find((item) => item.kind === kind);
const said = (item: Item | undefined, write: (text: string, unit: string) => string) =>
  item ? [write(figure(item), item.unit ?? "")] : [];

/** A place with what was read there, in the words of notes; null for a moment without both. */
function placeNote(items: readonly Item[]): string | null {
  const distance = of(items, "distance");
  if (!distance) return null;
  const at = `${figure(distance)} ${distance.unit ?? "mi"}`;
  if (of(items, "cut_off")) return `died at ${at}`;
  const charge = [
    ...said(of(items, "percent_left"), (percent) => `${percent} %`),
    ...said(of(items, "bars_left"), (bars) => `${bars} bars`),
    ...said(
      items.find(({ kind, of: state }) => kind === "volts" && state !== "load"),
      (volts) => `${volts} V`,
    ),
  ];
  return charge.length ? `${at} ${charge.join(" ")}` : null;
}

/** Readings by the moments they belong to. */
function byMoment(items: readonly Item[]): readonly (readonly Item[])[] {
  const moments = new Map<number, Item[]>();
  for (const item of items)
    if (item.moment !== null) moments.set(item.moment, [...(moments.get(item.moment) ?? []), item]);
  return [...moments.values()];
}

/** A single one of a kind holds for the whole ride; of several none does. */
const onlyOne = (items: readonly Item[], kind: Item["kind"]) => {
  const all = items.filter((item) => item.kind === kind);
  return all.length === 1 ? all[0] : undefined;
};

/**
 * Speech in the words of a quick figure's notes, so that one box takes both: pack, rider and claim, a full start, and the places where
 * something was read.
 *
 * @returns the text itself where it is notes already, or where nothing was found in it
 */
export function quickNotes(text: string): string {
  const isSpeech = spokenFormatOf(text) !== "plain" || text.trim().split(/\s+/).length >= FEWEST_WORDS;
  const read = isSpeech ? readNarration(text) : null;
  if (!read?.ok) return text;
  const { items, setUp } = read.value;
  const places = byMoment(items).flatMap((moment) => placeNote(moment) ?? []);
  if (places.length === 0) return text;
  const [volts, ampHours] = [of(setUp, "pack_v"), of(setUp, "pack_ah")];
  const pack =
    volts && ampHours
      ? [`${figure(volts)} V ${figure(ampHours)} Ah`]
      : said(of(setUp, "pack_wh"), (wattHours) => `${wattHours} Wh`);
  const kept =
    places.length > MOST_MOMENTS ? [...places.slice(0, 2), ...places.slice(2 - MOST_MOMENTS)] : places;
  return [
    ...pack,
    ...said(of(setUp, "claim_range"), (range, unit) => `claimed ${range} ${unit}`),
    ...said(of(setUp, "weight_rider"), (weight, unit) => `${weight} ${unit || "lb"} rider`),
    ...said(onlyOne(items, "temperature"), (degrees, unit) => (unit ? `${degrees} ${unit}` : "")),
    ...said(onlyOne(items, "level"), (level) => (/^\d$/.test(level) ? `L${level}` : "")),
    ...(of(items, "throttle") ? ["throttle"] : []),
    ...(of(items, "full_charge") ? ["full"] : []),
    ...kept.slice(0, -1),
    nth(kept, kept.length - 1),
  ]
    .filter(Boolean)
    .join("; ");
}
