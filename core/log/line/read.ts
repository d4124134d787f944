import { parseNumber, toSi } from "#core/quantities";
import { entryBodySchema, SIDES, type EntryBody } from "../entry.ts";
import { GROUND_WORDS, KINDS, LEADS, UNITS, type UnitMeaning } from "./vocabulary.ts";

/** A part of the line that was understood: where it stands, and what it was taken for. */
export interface Chip {
  readonly from: number;
  readonly to: number;
  /** As typed. */
  readonly text: string;
  /** What it says, such as "percent" or "level". */
  readonly says: string;
}

/** A part that was not understood: where it stands, and why. It becomes part of the note. */
export interface Unread {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly why: string;
}

export interface ReadLine {
  /** The entry as it would be kept; null when the figures cannot be, with `problem` saying what to type. */
  readonly body: EntryBody | null;
  readonly problem: string | null;
  /** Clock time typed, "14:32". */
  readonly clock: string | null;
  readonly chips: readonly Chip[];
  readonly unread: readonly Unread[];
}

/** What the line is read with: the bike's levels, least first. */
export interface LineSetting {
  readonly levels: readonly string[];
  readonly throttle: boolean;
}

interface Token {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

const QUOTED = /"([^"]*)"?|“([^”]*)”?/y;
const CLOCK = /([01]?\d|2[0-3]):([0-5]\d)(?=$|[\s,;])/y;
const FIGURE = /~?[+\-−]?\d+(?:[.,]\d+)*(?:(?:-|–)\d+(?:[.,]\d+)*)?/y;
const OF_BARS = /(\d+)\/(\d+)(?=$|[\s,;])/y;
const WORD = /[^\s,;"“”]+/y;
const SPACE = /[\s;]*(?:,(?=\s|$))?[\s;]*/y;
/** Units of one letter stand right behind their figure; longer ones may have a space before them. */
const UNIT =
  /(?:\s?(km\/h|kmh|kph|mph|miles?|mi|km|kwh|wh|ah|volts|amps|watts|bars?|bpm|ft|min|%)|(°?[cf]|m|v|a|w))(?![\p{L}\d/])/iuy;

const matchAt = (pattern: RegExp, text: string, at: number) => {
  pattern.lastIndex = at;
  return pattern.exec(text);
};

/** Reads one line, moving along it. */
class Reader {
  readonly fields: Record<string, unknown> = {};
  readonly chips: Chip[] = [];
  readonly unread: Unread[] = [];
  readonly notes: string[] = [];
  kind: string | null = null;
  clock: string | null = null;
  at = 0;

  constructor(
    readonly line: string,
    readonly setting: LineSetting,
  ) {}

  private token(to: number, from = this.at): Token {
    return { from, to, text: this.line.slice(from, to) };
  }

  private understood(to: number, says: string, from = this.at): void {
    this.chips.push({ ...this.token(to, from), says });
    this.at = to;
  }

  private left(to: number, why: string, from = this.at): void {
    this.unread.push({ ...this.token(to, from), why });
    this.at = to;
  }

  private set(field: string, value: unknown, to: number, says: string, from = this.at): void {
    if (field in this.fields) this.left(to, `there is a figure for this already`, from);
    else {
      this.fields[field] = value;
      this.understood(to, says, from);
    }
  }

  run(): void {
    while (this.at < this.line.length) {
      this.at += matchAt(SPACE, this.line, this.at)![0].length;
      if (this.at < this.line.length) this.next();
    }
  }

  private next(): void {
    const quoted = matchAt(QUOTED, this.line, this.at);
    if (quoted) {
      const note = (quoted[1] ?? quoted[2] ?? "").trim();
      if (note) this.notes.push(note);
      return this.understood(this.at + quoted[0].length, "note");
    }
    const clock = matchAt(CLOCK, this.line, this.at);
    if (clock && this.clock === null) {
      this.clock = `${clock[1]!.padStart(2, "0")}:${clock[2]}`;
      return this.understood(this.at + clock[0].length, "time");
    }
    const ofBars = matchAt(OF_BARS, this.line, this.at);
    if (ofBars) return this.set("bars", Number(ofBars[1]), this.at + ofBars[0].length, "bars");
    const figure = matchAt(FIGURE, this.line, this.at);
    if (figure) return this.figure(figure[0], this.at);
    const word = matchAt(WORD, this.line, this.at);
    if (word) this.word(word[0]);
    else this.left(this.at + 1, "not understood");
  }

  /** A figure with its unit; `lead` is the word before it that says what it is. */
  private figure(text: string, from: number, lead?: UnitMeaning): void {
    const end = this.at + text.length;
    const unit = matchAt(UNIT, this.line, end);
    const to = end + (unit?.[0].length ?? 0);
    const written = unit?.[1] ?? unit?.[2] ?? "";
    const symbol = written.toLowerCase();
    const guess = text.startsWith("~");
    const [low, high] = text.replace("~", "").split(/(?<=\d)(?:-|–)(?=\d)/);
    const meaning = lead ?? UNITS.get(symbol);
    if (!meaning) return this.left(to, symbol ? `“${symbol}” is no unit known here` : "which unit?", from);
    const numbers = [low!, high].flatMap((part) => (part === undefined ? [] : [parseNumber(part)]));
    if (numbers.some((number) => typeof number !== "number"))
      return this.left(to, "it can be read two ways: type it without the comma", from);
    const values = numbers.map((number) =>
      meaning.dimension === "count" ? number : toSi(number as number, meaning.dimension, written),
    );
    if (values.some((value) => value === undefined)) return this.left(to, "which unit?", from);
    const [first, second] = values as number[];
    if (second !== undefined) {
      if (meaning.field !== "amps")
        return this.left(to, "a span is read for amps only: type one figure", from);
      if (second < first!) return this.left(to, "the span runs backward", from);
      if ("amps" in this.fields) return this.left(to, "there is a figure for this already", from);
      this.fields["ampsSpan"] = second - first!;
      return this.set("amps", (first! + second) / 2, to, "amps", from);
    }
    const left = /^\s+left(?=$|[\s,;])/i.exec(this.line.slice(to));
    if (meaning.field === "distanceM" && (guess || left))
      return this.set("rangeGuessM", first, to + (left?.[0].length ?? 0), "display's guess", from);
    if (guess) return this.left(to, "“~” marks the display's guess of miles left", from);
    this.set(meaning.field, first, to, meaning.says, from);
  }

  private word(text: string): void {
    const lower = text.toLowerCase();
    const to = this.at + text.length;
    const lead = LEADS.get(lower);
    if (lead) return this.led(text, lead);
    if (lower.startsWith("#")) {
      const ground = GROUND_WORDS.get(lower.slice(1));
      return ground
        ? this.set("ground", ground, to, ground)
        : this.left(to, `no ground is called so: ${[...GROUND_WORDS.keys()].join(", ")}`);
    }
    if (text.startsWith("@")) return this.section(text, to);
    if (lower === "rest") return this.rest(to);
    if (lower === "load") return this.set("underLoad", true, to, "under load");
    const level = this.levelOf(text);
    if (level !== null) return this.set("level", level, to, "level");
    const kind = KINDS.get(lower);
    if (kind) return this.kindWord(lower, kind, to);
    // Words in a row that say nothing are one piece of the note.
    const last = this.unread.at(-1);
    if (last && last.why === "kept as a note" && /^\s+$/.test(this.line.slice(last.to, this.at))) {
      this.unread.pop();
      return this.left(to, "kept as a note", last.from);
    }
    this.left(to, "kept as a note");
  }

  /** "@upper" begins a section, "@upper:A" one of two runs over it, "@" ends it. */
  private section(text: string, to: number): void {
    const [name = "", side] = text.slice(1).split(":");
    if (side === undefined) return this.set("section", name, to, name ? "section" : "section ends");
    const run = SIDES.find((each) => each === side.toUpperCase());
    if (!run) return this.left(to, "a run is A or B: type @upper:A");
    if (name) this.fields["section"] = name;
    this.set("side", run, to, name ? `section, run ${run}` : `run ${run}`);
  }

  private led(text: string, lead: UnitMeaning): void {
    const from = this.at;
    const gap = /^\s*/.exec(this.line.slice(from + text.length))![0].length;
    const figure = matchAt(FIGURE, this.line, from + text.length + gap);
    if (!figure) return this.left(from + text.length, `“${text}” needs a figure after it`);
    this.at = from + text.length + gap;
    this.figure(figure[0], from, lead);
  }

  /** "rest" alone, or with its minutes. */
  private rest(to: number): void {
    const minutes = /^\s+(\d+(?:[.,]\d+)?)\s?min(?![\p{L}\d])/iu.exec(this.line.slice(to));
    if ("underLoad" in this.fields) return this.left(to, "there is a figure for this already");
    this.fields["underLoad"] = false;
    if (!minutes) return this.understood(to, "at rest");
    this.set("restMin", Number(minutes[1]!.replace(",", ".")), to + minutes[0].length, "at rest");
  }

  private levelOf(text: string): string | null {
    const { levels, throttle } = this.setting;
    const lower = text.toLowerCase();
    if (throttle && (lower === "throttle" || lower === "t")) return "throttle";
    const named = levels.find((level) => level.toLowerCase() === lower);
    if (named !== undefined && !/^\d+$/.test(named)) return named;
    const numbered = /^l(\d{1,2})$/.exec(lower);
    if (!numbered) return null;
    return levels.find((level) => level === numbered[1]) ?? levels[Number(numbered[1]) - 1] ?? null;
  }

  private kindWord(word: string, kind: string, to: number): void {
    if (this.kind !== null && this.kind !== kind) return this.left(to, "one line is one entry");
    if (word === "lost") {
      const bar = /^\s+(?:bar\s+)?(\d{1,2})(?![\d.,%])/i.exec(this.line.slice(to));
      if (!bar) return this.left(to, "which bar? Type lost 4 for the fourth");
      this.kind = kind;
      return this.set("bar", Number(bar[1]), to + bar[0].length, "bar lost");
    }
    this.kind = kind;
    if (word === "full") this.fields["chargerDone"] = true;
    this.understood(to, word === "full" ? "full charge" : word);
  }
}

/** Fields of a stop or a go; all else becomes words of its note. */
const BARE = new Set(["stop", "go"]);
const BARE_FIELDS = ["distanceM", "displayM"];

/**
 * Reads a line of the field's shorthand into an entry: figures by their units in any order, levels by the bike's names,
 * `#ground`, "notes". What it does not understand is shown as it stands and kept in the note, never guessed.
 *
 * @example `12.4mi 61% 38.9V rest L2 #gravel 15mph 6-7A ~28mi left "headwind"` is one check-in with nine readings
 */
export function readLine(line: string, setting: LineSetting): ReadLine {
  const reader = new Reader(line, setting);
  reader.run();
  const { fields, chips, unread, notes, clock } = reader;
  const kind = reader.kind ?? "checkIn";
  const kept = BARE.has(kind)
    ? Object.fromEntries(Object.entries(fields).filter(([name]) => BARE_FIELDS.includes(name)))
    : fields;
  const dropped = BARE.has(kind)
    ? chips
        .filter(({ says }) => !["note", "time", "at", "display at", kind].includes(says))
        .map(({ text }) => text)
    : [];
  const note = [...notes, ...dropped, ...unread.map(({ text }) => text)].join(" ").trim();
  if (chips.length === 0 && note === "")
    return { body: null, problem: "Type what you see, for example: 12.4mi 61% L2.", clock, chips, unread };
  const onlyWords = Object.keys(kept).length === 0 && reader.kind === null;
  const parsed = entryBodySchema.safeParse({
    ...kept,
    kind: onlyWords ? "note" : kind,
    ...(note && { note }),
  });
  return parsed.success
    ? { body: parsed.data, problem: null, clock, chips, unread }
    : { body: null, problem: parsed.error.issues[0]!.message, clock, chips, unread };
}
