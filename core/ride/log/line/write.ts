import { there, formatInput, fromSi, unitOf, type System } from "#core/base";
import {
  endsOf,
  EVENTS,
  SIGHTING,
  SIGHTING_FIELDS,
  type EntryEvent,
  type Field,
  type Sighting,
  type SightingField,
} from "#core/fields";
import type { EntryBody } from "../entry.ts";
import type { LineSetting } from "./reader.ts";

/** Digits kept of each quantity: read back, the entry is the same to these. */
const DIGITS = 4;

/** The words of what an entry is; null for kinds the line has no words for. */
function eventWords(body: EntryBody): string | null {
  if (body.kind === "barLost") return `lost ${body.bar}`;
  if (body.kind === "checkIn" || body.kind === "note" || body.kind === "totals") return "";
  const says = body as Readonly<Record<string, unknown>>;
  const fits = ({ kind, words, fields = {} }: EntryEvent) =>
    kind === body.kind && words !== null && Object.keys(fields).every((name) => says[name] === fields[name]);
  const [found] = EVENTS.filter(fits).sort(
    (a, b) => Object.keys(b.fields ?? {}).length - Object.keys(a.fields ?? {}).length,
  );
  return found?.written ?? null;
}

/** Hours, minutes and seconds, as the line reads a riding time. */
function clockOf(seconds: number): string {
  const whole = Math.round(seconds);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${Math.floor(whole / 3600)}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
}

const quoted = (text: string) => `"${text.replaceAll('"', "'")}"`;

/** An instrument by its name, in quotes where it has spaces. */
const named = (kind: string, name: string) => `${kind}:${/[\s,;]/.test(name) ? quoted(name) : name}`;

/** A level as the line reads it: by its place, or by its number. */
function levelWords(level: string, { levels }: LineSetting): string {
  if (level === "throttle") return level;
  const place = levels.indexOf(level);
  if (/^\d+$/.test(level)) return `L${level}`;
  return place < 0 ? `"level ${level}"` : `L${place + 1}`;
}

/** Writes an entry's fields as the line reads them, one by one. */
class Writer {
  readonly parts: string[] = [];

  constructor(
    private readonly seen: Sighting,
    private readonly setting: LineSetting,
    private readonly system: System,
    private readonly digits: number,
  ) {}

  private plain(value: number): string {
    return String(Number(value.toFixed(this.digits)));
  }

  /** A quantity with its unit, after the word that says which it is where its unit does not. */
  private quantity(name: keyof Sighting, value: number): string {
    const { dimension, line, span }: Field = SIGHTING[name];
    const lead = line?.overall?.[1] ?? (line?.units ? "" : line?.leads?.split(" ")[0]) ?? "";
    const wide = span === undefined ? undefined : (this.seen[span as keyof Sighting] as number | undefined);
    const figure =
      wide !== undefined
        ? this.span(name)
        : dimension === "count"
          ? `${this.plain(value)}${line?.unit ?? ""}`
          : formatInput(value, there(dimension), unitOf(there(dimension), this.system), this.digits).replace(
              " ",
              "",
            );
    return lead ? `${lead} ${figure}` : figure;
  }

  /** Both ends of a span, with the unit behind the second. */
  private span(name: SightingField): string {
    const { dimension, line }: Field = SIGHTING[name];
    const unit = dimension === "count" ? (line?.unit ?? "") : unitOf(there(dimension), this.system);
    const [low, high] = endsOf(name, this.seen).map((end) =>
      this.plain(dimension === "count" ? end : fromSi(end, there(dimension), unit)),
    );
    return `${low}-${high}${unit}`;
  }

  /** Fields that the line writes in a way of their own. */
  private readonly own: { readonly [K in keyof Sighting]?: () => string | null } = {
    underLoad: () => (this.seen.underLoad ? "load" : this.seen.restMin === undefined ? "rest" : null),
    restMin: () => (this.seen.underLoad ? null : `rest ${this.plain(there(this.seen.restMin))}min`),
    rangeGuessM: () =>
      `~${formatInput(there(this.seen.rangeGuessM), "distance", unitOf("distance", this.system), this.digits).replace(" ", "")} left`,
    level: () => levelWords(there(this.seen.level), this.setting),
    section: () =>
      `@${there(this.seen.section).replaceAll(" ", "-")}${this.seen.side ? `:${this.seen.side}` : ""}`,
    side: () => (this.seen.section === undefined ? `@:${this.seen.side}` : null),
    ground: () => `#${there(this.seen.ground).replace(" ", "-")}`,
    movingS: () => `moving ${clockOf(there(this.seen.movingS))}`,
    meter: () => named("meter", there(this.seen.meter)),
    note: () => quoted(there(this.seen.note)),
    percentSpan: () => null,
    barsSpan: () => null,
    speedSpanMps: () => null,
    ampsSpan: () => null,
  };

  /** All that was seen, in the order of its declaration. */
  writeAll(): void {
    for (const name of SIGHTING_FIELDS) {
      const value = this.seen[name];
      if (value === undefined) continue;
      const own = this.own[name];
      const written = own ? own() : typeof value === "number" ? this.quantity(name, value) : null;
      if (written) this.parts.push(written);
    }
  }
}

/**
 * Writes an entry as the shorthand line that reads back as it. Null for kinds the line has no words for.
 *
 * @param digits kept of each quantity; fewer are for the eye only
 */
export function writeLine(
  body: EntryBody,
  setting: LineSetting,
  system: System,
  digits = DIGITS,
): string | null {
  const words = eventWords(body);
  if (words === null) return null;
  const writer = new Writer(body as Sighting, setting, system, digits);
  if (words) writer.parts.push(words);
  if (body.kind === "refill") {
    const { wallWh, charger } = body;
    if (wallWh !== undefined) writer.parts.push(formatInput(wallWh, "energy", "Wh", digits).replace(" ", ""));
    if (charger !== undefined) writer.parts.push(named("charger", charger));
  }
  writer.writeAll();
  return writer.parts.join(" ");
}
