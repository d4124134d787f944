import { nth, toSi, type DimensionName } from "#core/base";
import { spanned, type Ground, type SightingField } from "#core/fields";
import type { Entry, EntryBody } from "#core/ride/log";
import type { Item } from "./read.ts";

/** The bike of a ride, as far as what is said of it needs it. */
export interface RiddenBike {
  /** Its levels by name, the least first, and its gauge's bars, 0 for none. */
  readonly levels: readonly string[];
  readonly bars: number;
}

/** What becomes of the things that are said at one moment: a line of the log, before it has an id. */
export interface SaidEntry {
  readonly body: EntryBody;
  readonly source: NonNullable<Entry["source"]>;
}

const GROUND_OF: Readonly<Record<string, Ground>> = {
  asphalt: "asphalt",
  concrete: "asphalt",
  cobbles: "brick",
  gravel: "fine gravel",
  dirt: "loose gravel",
  trail: "loose gravel",
  sand: "mud",
  grass: "grass",
  mud: "mud",
  snow: "snow",
};
const WIND: Readonly<Record<string, string>> = {
  head: "wind against",
  tail: "wind from behind",
  side: "wind from the side",
};

/** A level's name on the bike for what it was called, a name or its number; null where the bike has none like it. */
export function levelOn({ levels }: RiddenBike, value: Item["value"]): string | null {
  const said = String(value).toLowerCase();
  const byName = levels.find((level) => level.toLowerCase() === said || level.toLowerCase() === `l${said}`);
  const number = Number(said);
  return byName ?? (Number.isInteger(number) && number >= 1 ? (levels[number - 1] ?? null) : null);
}

const middle = (value: Item["value"]): number =>
  typeof value === "number" ? value : typeof value === "string" ? NaN : (value[0] + value[1]) / 2;
/** A figure or a span of a field, as it is kept. */
const kept = (field: SightingField, value: Item["value"], si = (end: number) => end): Fields =>
  (typeof value === "object" ? spanned(field, si(value[0]), si(value[1])) : null) ?? {
    [field]: si(middle(value)),
  };
const shown = ({ value, unit }: Item) =>
  `${typeof value === "object" ? value.join(" to ") : String(value)}${unit ? ` ${unit}` : ""}`;

type Fields = Record<string, unknown>;

/** A temperature whose scale was not said: what people bear decides. */
const FAHRENHEIT_FROM = 42;

/** Fields of a sighting that an item says; a note where the log has no field for it. */
function fieldsOf(item: Item, bike: RiddenBike): Fields | string {
  const { kind, value, unit, of } = item;
  const si = (dimension: DimensionName, symbol: string) => toSi(middle(value), dimension, symbol);
  switch (kind) {
    case "distance":
      return { [of === "display" ? "displayM" : "distanceM"]: si("distance", unit ?? "mi") };
    case "percent_left":
      return kept("percent", value);
    case "bars_left":
      return kept("bars", value);
    case "volts":
      return { packVolts: middle(value), ...(of === "load" && { underLoad: true }) };
    case "amps":
      return kept("amps", value);
    case "watts":
      return { watts: middle(value) };
    case "speed":
      return kept("speedMps", value, (end) => toSi(end, "speed", unit ?? "mph") ?? NaN);
    case "avg_speed":
      return { avgSpeedMps: si("speed", unit ?? "mph") };
    case "top_speed":
      return { topSpeedMps: si("speed", unit ?? "mph") };
    case "climb_gain":
      return { climbM: si("climb", unit ?? "m") };
    case "elapsed_time":
      return { movingS: middle(value) };
    case "heart_rate":
      return { [of === "mean" ? "avgBpm" : "bpm"]: middle(value) };
    case "range_guess":
      return of === "rider"
        ? `the rider's guess: ${shown(item)}`
        : { rangeGuessM: si("distance", unit ?? "mi") };
    case "temperature": {
      const scale = unit ?? (middle(value) >= FAHRENHEIT_FROM ? "F" : "C");
      return { airTempC: si("temperature", scale) };
    }
    case "level": {
      const level = levelOn(bike, value);
      return level === null ? `level ${shown(item)}` : { level };
    }
    case "ground": {
      const ground = GROUND_OF[String(value)];
      return ground ? { ground } : `ground: ${shown(item)}`;
    }
    case "wind":
      return WIND[String(value)] ?? `wind ${shown(item)}`;
    case "percent_used":
      return `used ${shown(item)}`;
    case "throttle":
      return "throttle only";
    case "pedalling_no_power":
      return "pedalled without the motor";
    case "turn_round":
      return "turned round";
    default:
      return "";
  }
}

/** Entries that an event is; null for what is a field or a note. */
function eventOf(item: Item, bar: number | null): Fields | null {
  switch (item.kind) {
    case "full_charge":
      return { kind: "start", chargerDone: true };
    case "bar_lost":
      return bar === null ? null : { kind: "barLost", bar };
    case "low_power":
      return { kind: "lowPower" };
    case "battery_blinking":
      return { kind: "lastBar" };
    case "cut_off":
      return { kind: "end", reason: "cutOff" };
    case "stop":
      return { kind: "stop" };
    default:
      return null;
  }
}

interface Draft {
  fields: Fields;
  notes: string[];
  events: Fields[];
  words: string[];
  readonly filmS: number | null;
}

const LONGEST_NOTE = 2000;
const LONGEST_WORDS = 400;

/** A draft as lines: its first event carries the fields, further ones its place. */
function linesOf({ fields, notes, events, words, filmS }: Draft): readonly SaidEntry[] {
  const note = notes.join("; ").slice(0, LONGEST_NOTE);
  const source = { kind: "narration" as const, filmS, words: words.join(" … ").slice(0, LONGEST_WORDS) };
  const place = "distanceM" in fields ? { distanceM: fields["distanceM"] } : {};
  const all = { ...fields, ...(note && { note }) };
  if (events.length === 0 && Object.keys(fields).length === 0)
    return note ? [{ body: { kind: "note", note } as EntryBody, source }] : [];
  const [first = { kind: "checkIn" }, ...rest] = events;
  return [
    { body: { ...first, ...all } as EntryBody, source },
    ...rest.map((event) => ({ body: { ...event, ...place } as EntryBody, source })),
  ];
}

/**
 * Lines of the log that accepted items make, in the order of the film: one for what belongs together, another where a kind comes
 * again.
 *
 * @param items of one narration, as accepted or changed
 */
export function saidEntries(items: readonly Item[], bike: RiddenBike): readonly SaidEntry[] {
  const drafts: Draft[] = [];
  let moment: number | null | undefined;
  let bars = bike.bars;
  for (const item of items) {
    if (item.kind === "bars_left") bars = Math.round(middle(item.value));
    const bar = item.kind === "bar_lost" && bike.bars > 0 ? Math.max(1, bars) : null;
    if (item.kind === "bar_lost") bars = Math.max(0, bars - 1);
    const event = eventOf(item, bar);
    const fields = event ? null : fieldsOf(item, bike);
    // "I plugged it in, and it went to 79": the charge, then what was read after it.
    const isCharged = item.kind === "percent_left" && item.of === "charged";
    if (isCharged)
      drafts.push({
        ...{ fields: {}, notes: [], words: [item.words], filmS: item.atS },
        events: [{ kind: "refill", toFull: middle(item.value) >= 100 }],
      });
    const last = drafts.at(-1);
    const again =
      last !== undefined &&
      typeof fields === "object" &&
      fields !== null &&
      Object.keys(fields).some((key) => key in last.fields);
    if (!last || item.moment !== moment || again || isCharged)
      drafts.push({ fields: {}, notes: [], events: [], words: [], filmS: item.atS });
    moment = item.moment;
    const draft = nth(drafts, drafts.length - 1);
    draft.words.push(item.words);
    if (event) draft.events.push(event);
    else if (typeof fields === "string") draft.notes.push(fields || item.words);
    else Object.assign(draft.fields, fields);
    if (item.kind === "bar_lost" && bar === null) draft.notes.push("a bar lost");
  }
  return drafts.flatMap(linesOf);
}
