import { there, nth, typedClock } from "#core/base";
import { EVENTS, GROUND_WORDS, SIDES, SIGHTING, type SightingField } from "#core/fields";
import { entryBodySchema, TOTAL_FIELDS, type EntryBody } from "../entry.ts";
import { FIGURE, readFigure, readLed, readOverall, readRidingTime } from "./figures.ts";
import { endsAt, matchAt, Reader, type Chip, type LineSetting, type Unread } from "./reader.ts";
import { FILLERS, LEADS, OVERALL } from "./vocabulary.ts";

export interface ReadLine {
  /** The entry as it would be kept; null when the figures cannot be, with `problem` saying what to type. */
  readonly body: EntryBody | null;
  readonly problem: string | null;
  /** Clock time typed, "14:32". */
  readonly clock: string | null;
  readonly chips: readonly Chip[];
  readonly unread: readonly Unread[];
}

const QUOTED = /"([^"]*)"?|“([^”]*)”?/y;
const CLOCK = /([01]?\d|2[0-3]):([0-5]\d)(?:\s?([ap]m))?(?=$|[\s,;])/iy;
const HALF_DAY = /(1[0-2]|[1-9])\s?([ap]m)(?=$|[\s,;])/iy;
const OF_BARS = /(\d+)(?:\/| of | out of )(\d+)(?:\s?bars?)?(?=$|[\s,;])/iy;
const WORD = /[^\s,;"“”]+/y;
const SPACE = /[\s;]*(?:,(?=\s|$))?[\s;]*/y;
const LOST = /(?:lost\s+(?:bar\s+)?(\d{1,2})|bar\s+(\d{1,2})\s+(?:lost|gone|went))(?![\d.,%])/iy;
const NUMBERED = /(?:level|assist|pas|mode)\s+(?:on\s+|at\s+)?([\p{L}\d+-]+)(?=$|[\s,;])/iuy;
/** Events by their words. */
const PHRASES = EVENTS.flatMap((event) =>
  event.words === null ? [] : [{ event, shape: new RegExp(event.words, "iy") }],
);
const PER_CENT = /per\s?cent/gi;
/** Levels that are everyday words: among other words they are no level. */
const EVERYDAY =
  /^(?:high|low|medium|mid|middle|off|on|normal|fast|slow|standard|power|trail|up|min|max|walk)$/i;

function next(reader: Reader): void {
  const { line, at } = reader;
  const quoted = matchAt(QUOTED, line, at);
  if (quoted) {
    const note = (quoted[1] ?? quoted[2] ?? "").trim();
    if (note) reader.notes.push(note);
    return reader.understood(at + quoted[0].length, "note");
  }
  if (readRidingTime(reader) || readClock(reader) || readName(reader)) return;
  const ofBars = matchAt(OF_BARS, line, at);
  if (ofBars) return reader.set("bars", Number(ofBars[1]), at + ofBars[0].length, "bars");
  if (matchAt(FIGURE, line, at)) return void readFigure(reader, at);
  const text = matchAt(WORD, line, at)?.[0];
  if (text) word(reader, text);
  else reader.left(at + 1, "not understood");
}

const NAMED = /(meter|charger)[:=]\s*(?:"([^"]+)"|“([^”]+)”|([^\s,;"“”]+))/iy;

/** `meter:clip`, `charger:"the slow one"`: which instrument it is. */
function readName(reader: Reader): boolean {
  const found = matchAt(NAMED, reader.line, reader.at);
  if (!found) return false;
  const field = nth(found, 1).toLowerCase();
  reader.set(field, there(found[2] ?? found[3] ?? found[4]).trim(), reader.at + found[0].length, field);
  return true;
}

/** "14:32", "2:05 pm", "9am". */
function readClock(reader: Reader): boolean {
  const { line, at } = reader;
  if (reader.clock !== null) return false;
  const found = matchAt(CLOCK, line, at);
  const half = found ? null : matchAt(HALF_DAY, line, at);
  if (!found && !half) return false;
  const clock = typedClock((found ?? there(half))[0]);
  if (clock === null) return false;
  reader.clock = clock;
  reader.understood(at + (found ?? there(half))[0].length, "time");
  return true;
}

function word(reader: Reader, text: string): void {
  const { line, at } = reader;
  const lower = text.toLowerCase();
  const to = at + text.length;
  if (lower.startsWith("#")) {
    const ground = GROUND_WORDS.get(lower.slice(1));
    return ground
      ? reader.set("ground", ground, to, ground)
      : reader.left(to, `no ground is called so: ${[...GROUND_WORDS.keys()].join(", ")}`);
  }
  if (text.startsWith("@")) return section(reader, text, to);
  if (phrase(reader)) return;
  const name = text.replace(/[:=]$/, "");
  const lead = LEADS.get(name.toLowerCase());
  const overall = OVERALL.get(name.toLowerCase());
  if (overall && readOverall(reader, name, overall)) return;
  if (lead && readLed(reader, name, lead)) return;
  if (FILLERS.has(lower) && readLed(reader, text, undefined)) return;
  if (lower === "rest") return rest(reader, to);
  if (lower === "load") return reader.set("underLoad", true, to, "under load");
  const numbered = matchAt(NUMBERED, line, at);
  const named = numbered && levelOf(reader.setting, nth(numbered, 1));
  if (named) return reader.set("level", named, at + numbered[0].length, "level");
  const level = levelOf(reader.setting, text, true);
  if (level !== null)
    return EVERYDAY.test(level) ? reader.claimLevel(level, to) : reader.set("level", level, to, "level");
  if (lower === "trip" || lower === "display") return reader.left(to, `“${text}” needs a figure after it`);
  reader.prose(to);
}

/** A word or two that say what the entry is. */
function phrase(reader: Reader): boolean {
  const { line, at } = reader;
  const lost = matchAt(LOST, line, at);
  if (lost && endsAt(line, at + lost[0].length)) {
    if (reader.kind !== null) reader.left(at + lost[0].length, "one line is one entry");
    else {
      reader.kind = "barLost";
      reader.set("bar", Number(lost[1] ?? lost[2]), at + lost[0].length, "bar lost");
    }
    return true;
  }
  if (/^lost$/i.test(matchAt(WORD, line, at)?.[0] ?? "")) {
    reader.left(at + 4, "which bar? Type lost 4 for the fourth");
    return true;
  }
  for (const { event, shape } of PHRASES) {
    const found = matchAt(shape, line, at);
    if (!found || !endsAt(line, at + found[0].length)) continue;
    reader.claim(event, at + found[0].length);
    return true;
  }
  return false;
}

/** "@upper" begins a section, "@upper:A" one of two runs over it, "@" ends it. */
function section(reader: Reader, text: string, to: number): void {
  const [name = "", side] = text.slice(1).split(":");
  if (side === undefined) return reader.set("section", name, to, name ? "section" : "section ends");
  const run = SIDES.find((each) => each === side.toUpperCase());
  if (!run) return reader.left(to, "a run is A or B: type @upper:A");
  if (name) reader.fields.set("section", name);
  reader.set("side", run, to, name ? `section, run ${run}` : `run ${run}`);
}

/** "rest" alone, or with its minutes. */
function rest(reader: Reader, to: number): void {
  const minutes = /^\s+(\d+(?:[.,]\d+)?)\s?min(?![\p{L}\d])/iu.exec(reader.line.slice(to));
  if (reader.fields.has("underLoad")) return reader.left(to, "there is a figure for this already");
  reader.fields.set("underLoad", false);
  if (!minutes) return reader.understood(to, "at rest", reader.at, "underLoad");
  reader.set("restMin", Number(nth(minutes, 1).replace(",", ".")), to + minutes[0].length, "at rest");
}

/** A level by its name, its number, or "L2"; by itself a number is none. */
function levelOf({ levels, throttle }: LineSetting, text: string, byItself = false): string | null {
  const lower = text.toLowerCase();
  if (throttle && (lower === "throttle" || lower === "t")) return "throttle";
  const named = levels.find((level) => level.toLowerCase() === lower);
  if (named !== undefined && !(byItself && /^\d+$/.test(named))) return named;
  const numbered = (byItself ? /^l(\d{1,2})$/ : /^l?(\d{1,2})$/).exec(lower);
  if (!numbered) return null;
  return levels.find((level) => level === numbered[1]) ?? levels[Number(numbered[1]) - 1] ?? null;
}

/** What a line is that holds nothing of a place: a note, or what is said of the whole ride. */
function kindOf(reader: Reader): string {
  const fields = [...reader.fields.keys()];
  if (reader.kind !== null) return reader.kind;
  if (fields.length === 0) return "note";
  const ofRide: readonly string[] = TOTAL_FIELDS;
  return fields.every((field) => ofRide.includes(field)) && fields.some((field) => field !== "climbM")
    ? "totals"
    : "checkIn";
}

/**
 * Reads a line of the field's shorthand into an entry: figures by their units in any order, levels by the bike's names,
 * `#ground`, "notes". What it does not understand is shown as it stands and kept in the note, never guessed.
 *
 * @example `12.4mi 61% 38.9V rest L2 #gravel 15mph 6-7A ~28mi left "headwind"` is one check-in with nine readings
 */
export function readLine(line: string, setting: LineSetting): ReadLine {
  // Two words for one unit, brought to one of the same length so that places stay.
  const reader = new Reader(
    line.replace(PER_CENT, (words) => "percent".padEnd(words.length)),
    setting,
  );
  while (reader.at < line.length) {
    reader.at += there(matchAt(SPACE, reader.line, reader.at))[0].length;
    if (reader.at < line.length) next(reader);
  }
  reader.settle();
  const { fields, unread, notes, clock } = reader;
  const chips = reader.chips.map((chip) => ({ ...chip, text: line.slice(chip.from, chip.to) }));
  const note = [...notes, ...unread.map(({ text }) => text)].join(" ").trim();
  if (chips.length === 0 && note === "")
    return { body: null, problem: "Type what you see, for example: 12.4mi 61% L2.", clock, chips, unread };
  if (fields.size === 0 && note === "" && reader.kind === null && clock !== null)
    return {
      body: null,
      problem: `${clock} is a time: type what was read then beside it, for example ${clock} 12.4mi 61%.`,
      clock,
      chips,
      unread,
    };
  const kind = kindOf(reader);
  const said = kind === "refill" ? chargeOf(fields) : fields;
  const parsed = entryBodySchema.safeParse({ ...Object.fromEntries(said), kind, ...(note && { note }) });
  const strange = parsed.success ? [...said.keys()].find((name) => !(name in parsed.data)) : undefined;
  const problem = !parsed.success
    ? nth(parsed.error.issues, 0).message
    : strange
      ? `${labelOf(strange)} is not part of such an entry: type it as one of its own.`
      : null;
  return { body: problem === null ? there(parsed.data) : null, problem, clock, chips, unread };
}

/** Of a charge, watt-hours are what the wall gave. */
const chargeOf = (fields: ReadonlyMap<string, unknown>) =>
  new Map([...fields].map(([name, value]) => [name === "counterWh" ? "wallWh" : name, value] as const));

/** A field's label at the head of a sentence. */
function labelOf(name: string): string {
  const label = name in SIGHTING ? SIGHTING[name as SightingField].label : name;
  return nth(label, 0).toUpperCase() + label.slice(1);
}
