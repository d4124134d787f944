import { forField, stopwatchText } from "#core/base";
import type { Item } from "#core/narration";

const NAMES: Readonly<Record<Item["kind"], string>> = {
  distance: "",
  percent_left: "left",
  percent_used: "used",
  bars_left: "bars",
  bar_lost: "a bar lost",
  volts: "",
  amps: "",
  watts: "",
  speed: "",
  avg_speed: "average",
  top_speed: "top",
  level: "level",
  throttle: "throttle only",
  pedalling_no_power: "without the motor",
  ground: "",
  climb_gain: "climbed",
  elapsed_time: "in motion",
  heart_rate: "",
  range_guess: "to go, guessed",
  temperature: "",
  wind: "wind",
  full_charge: "full",
  cut_off: "cut off",
  low_power: "low power",
  battery_blinking: "gauge blinks",
  stop: "stop",
  turn_round: "turned round",
  weight_rider: "rider",
  weight_bike: "bike",
  pressure: "tyres",
  pack_v: "pack",
  pack_ah: "pack",
  pack_wh: "pack",
  claim_range: "claimed",
  price: "price",
  charge_time: "charging",
};
/** Kinds whose name says it all. */
const EVENTS = new Set<Item["kind"]>([
  "bar_lost",
  "throttle",
  "pedalling_no_power",
  "full_charge",
  "cut_off",
  "low_power",
  "battery_blinking",
  "stop",
  "turn_round",
]);
const WIND: Readonly<Record<string, string>> = {
  head: "against",
  tail: "from behind",
  side: "from the side",
};
const OF: Readonly<Record<string, string>> = {
  charged: "after a charge",
  rest: "at rest",
  load: "under load",
  display: "by the display",
  recorder: "by the recorder",
  rider: "by the rider",
  mean: "on average",
  highest: "at most",
  part: "of a part",
  yours: "the other rider's",
  mine: "mine",
};

/** Whether an item has a figure or a word that can be changed. */
export const isChangeable = ({ kind }: Item): boolean => !EVENTS.has(kind);

/** A value as it is typed. */
export const valueText = (value: Item["value"]): string =>
  typeof value === "number"
    ? forField(value)
    : typeof value === "string"
      ? value
      : value.map((each) => forField(each)).join(" to ");

/** An item in a few words: "62 % left", "≈ 15 mph". */
export function itemText(item: Item, value: Item["value"] = item.value): string {
  const { kind, unit, approx, side, of } = item;
  if (EVENTS.has(kind)) return NAMES[kind];
  const isTime = kind === "elapsed_time" || kind === "charge_time";
  const figure =
    isTime && typeof value === "number"
      ? stopwatchText(value)
      : kind === "wind"
        ? (WIND[String(value)] ?? String(value))
        : valueText(value);
  const hedge = side === "below" ? "under " : side === "above" ? "over " : approx ? "≈ " : "";
  const name = NAMES[kind];
  const before = /^(level|wind|average|top|rider|bike|tyres|pack|claimed|price|charging)$/.test(name);
  const degrees = kind === "temperature" && unit === null ? "degrees" : (unit ?? "");
  const words = [before ? name : "", `${hedge}${figure}`, isTime ? "" : degrees, before ? "" : name];
  return `${words.filter(Boolean).join(" ")}${of && OF[of] ? `, ${OF[of]}` : ""}`;
}

/** What somebody typed in the place of a value: a figure, a span, or a word. Null where it is nothing. */
export function typedValue(text: string, before: Item["value"]): Item["value"] | null {
  const trimmed = text.trim();
  if (typeof before === "string") return trimmed || null;
  const parts = trimmed.split(/\s*(?:to|–|-(?=\d))\s*/).map((part) => Number(part.replace(",", ".")));
  const [low, high] = parts;
  if (low === undefined || trimmed === "" || parts.some((part) => !Number.isFinite(part))) return null;
  return high === undefined ? low : [low, high];
}
