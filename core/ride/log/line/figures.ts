import { couldBeThousands, there, nth, durationAt, parseNumber, toSi, twoWays } from "#core/base";
import { spanned } from "#core/fields";
import { endsAt, matchAt, type Reader } from "./reader.ts";
import { BARE_LEADS, OVERALL, TAILS, TOTALS, UNITS, type UnitMeaning } from "./vocabulary.ts";

export const FIGURE = /~?[+\-−]?\d+(?:[.,]\d+)*(?:(?:-|–)\d+(?:[.,]\d+)*)?/y;
/** Units that mean no field by themselves: heights, minutes. */
const OTHER_UNITS = ["feet", "ft", "metres", "metre", "meters", "meter", "min", "m"];
const spelled = [...UNITS.keys(), ...OTHER_UNITS].sort((a, b) => b.length - a.length);
const UNIT = new RegExp(`\\s?(${spelled.join("|")})(?![\\p{L}\\d/])`, "iuy");
/** After a space "a" and "m" are a word, or the first of two, as often as a unit: "61% 2 a hill". */
const isWord = (found: string, behind: string) => /^\s[am]$/.test(found) && /^\s+[\p{L}]/u.test(behind);
/** Between a word that leads a figure and the figure. */
const LINK = /\s*[:=]?\s*(?:(?:is|was|at|of|about|now|says|reads|shows)\s+)?/iy;
const CLIMBED = /\s+(?:climbed|climb|of climb(?:ing)?|ascent|up|gain)(?![\p{L}\d])/iuy;

/** Per cent. */
const STEEPEST = 35;

/** A figure with its unit as it stands in the line. */
interface Written {
  readonly text: string;
  readonly unit: string;
  readonly to: number;
}

function writtenAt(line: string, at: number): Written | null {
  const figure = matchAt(FIGURE, line, at);
  if (!figure) return null;
  const end = at + figure[0].length;
  const found = matchAt(UNIT, line, end);
  const unit = found && !isWord(found[0], line.slice(end + found[0].length)) ? found : null;
  return { text: figure[0], unit: unit?.[1] ?? "", to: end + (unit?.[0].length ?? 0) };
}

/** Words behind a figure that change what it is. */
function tailOf(reader: Reader, { field }: UnitMeaning, to: number) {
  for (const { of, shape, is } of TAILS) {
    const tail = of === field ? matchAt(shape, reader.line, to) : null;
    if (tail && endsAt(reader.line, to + tail[0].length)) return { is, to: to + tail[0].length };
  }
  return { is: null, to };
}

/** "14.1mph avg": the word for the whole ride behind a figure, where it does not lead the next one. */
function overallBehind(reader: Reader, to: number) {
  const word = matchAt(/\s+([a-z]+)/iy, reader.line, to);
  const overall = word && OVERALL.get(nth(word, 1).toLowerCase());
  const end = to + (word?.[0].length ?? 0);
  const next = matchAt(/\s+(?:speed|hr|heart(?: rate)?|pulse)/iy, reader.line, end)?.[0].length ?? 0;
  const link = matchAt(LINK, reader.line, end + next)?.[0].length ?? 0;
  const leads = matchAt(FIGURE, reader.line, end + next + link) !== null;
  return overall && !leads ? { overall, to: end } : { overall: null, to };
}

/** A span of two figures: kept as its middle and its width where the field can hold one. */
function setSpan(
  reader: Reader,
  { field, says }: UnitMeaning,
  [first, second]: readonly [number, number],
  to: number,
  from: number,
) {
  const fields = spanned(field, first, second);
  if (!fields) return reader.left(to, "no span is kept of this: type one figure", from);
  if (second < first) return reader.left(to, "the span runs backward", from);
  const { [field]: value, ...span } = fields;
  if (!reader.fields.has(field))
    for (const [name, wide] of Object.entries(span)) reader.fields.set(name, wide);
  return reader.set(field, value, to, says, from);
}

/**
 * Reads a figure with its unit, and the words behind that say what it is.
 *
 * @param from where the piece begins, for the words that led to it
 * @param lead what the word before it says that it is
 */
export function readFigure(
  reader: Reader,
  at: number,
  from = at,
  lead?: UnitMeaning,
  before: "avg" | "top" | null = null,
): boolean {
  const { line } = reader;
  const written = writtenAt(line, at);
  if (!written) return false;
  const { text, unit } = written;
  const symbol = unit.toLowerCase();
  const guess = text.startsWith("~");
  const [low, high] = text.replace("~", "").split(/(?<=\d)(?:-|–)(?=\d)/);
  const climbed = matchAt(CLIMBED, line, written.to);
  const isHeight = /^(m|ft|feet|met(re|er)s)$/.test(symbol);
  const byHeight: UnitMeaning | undefined =
    climbed && isHeight ? { field: "climbM", dimension: "climb", says: "climbed" } : undefined;
  const meaning = lead ?? byHeight ?? UNITS.get(symbol);
  const end = byHeight && !lead ? written.to + there(climbed)[0].length : written.to;
  const refuse = (why: string, to = end) => (reader.left(to, why, from), true);
  if (!meaning) return refuse(symbol ? `“${symbol}” is no unit known here` : "which unit?");
  const numbers = [there(low), high].flatMap((part) => (part === undefined ? [] : [parseNumber(part)]));
  if (numbers.some((number) => typeof number !== "number") || couldBeThousands(text, unit))
    return refuse(`it can be read two ways: ${nth(twoWays(text).split(": "), 1).replace(/\.$/, "")}`);
  const isBare = symbol === "" && BARE_LEADS.has(meaning.field);
  const own = UNITS.get(symbol);
  // "18% grade", "range 31%": a unit of something else than the word before it says.
  if (lead && own && own.dimension !== meaning.dimension)
    return refuse("the word before it is of another kind");
  const values = numbers.map((number) =>
    meaning.dimension === "count" || isBare ? number : toSi(number as number, meaning.dimension, unit),
  );
  if (values.some((value) => value === undefined)) return refuse("which unit?");
  const [first, second] = values as number[];
  const behind = before === null ? overallBehind(reader, end) : { overall: before, to: end };
  if (behind.overall) {
    const total = TOTALS.get(`${meaning.field} ${behind.overall}`);
    if (!total) return refuse("no such figure of a whole ride is kept", behind.to);
    if (second !== undefined) return refuse("no span is kept of this: type one figure", behind.to);
    return (reader.set(total.field, first, behind.to, total.says, from), true);
  }
  if (second !== undefined) return (setSpan(reader, meaning, [there(first), second], end, from), true);
  const tail = tailOf(reader, meaning, end);
  // No road a bike is tested on is steeper: the figure is the charge, at a hill.
  if (tail.is === "steep" && there(first) > STEEPEST)
    return (reader.set(meaning.field, first, end, meaning.says, from), true);
  if (tail.is === "steep") return refuse("a slope, or the charge? Type “20 % left” for the charge", tail.to);
  if (tail.is === "none") return refuse("no charge: kept as a note", tail.to);
  if (tail.is === "used")
    return (reader.set(meaning.field, 100 - there(first), tail.to, "percent used", from), true);
  const isGuess = tail.is === "guess" || meaning.field === "rangeGuessM";
  if (guess && !["distanceM", "rangeGuessM"].includes(meaning.field))
    return refuse("“~” marks the display's guess of the way left");
  if (isGuess || guess) return (reader.set("rangeGuessM", first, tail.to, "display's guess", from), true);
  reader.set(meaning.field, first, tail.to, meaning.says, from);
  return true;
}

/** A word that leads a figure, with the figure: "trip 12.6 mi", "battery 62", "avg 14.1mph". */
export function readLed(reader: Reader, word: string, lead: UnitMeaning | undefined): boolean {
  const from = reader.at;
  const after = from + word.length;
  const link = matchAt(LINK, reader.line, after);
  return readFigure(reader, after + (link?.[0].length ?? 0), from, lead);
}

/** "avg 14.1mph", "top speed 24mph", "avg hr 128": over the whole ride. */
export function readOverall(reader: Reader, word: string, overall: "avg" | "top"): boolean {
  const from = reader.at;
  const named = matchAt(/\s+(speed|hr|heart(?: rate)?|pulse)/iy, reader.line, from + word.length);
  const after = from + word.length + (named?.[0].length ?? 0);
  const link = matchAt(LINK, reader.line, after);
  const heart = named !== null && !/speed/i.test(nth(named, 1));
  const lead: UnitMeaning | undefined = heart
    ? { field: "bpm", dimension: "count", says: "heart" }
    : undefined;
  return readFigure(reader, after + (link?.[0].length ?? 0), from, lead, overall);
}

const RIDING = /(?:riding|ride|moving)(?: time)?/iy;

/** "moving 2:47", "riding time 2 h 47 min", "2h47 moving": the time ridden. */
export function readRidingTime(reader: Reader): boolean {
  const { line, at: from } = reader;
  const led = matchAt(RIDING, line, from);
  if (led) {
    const link = matchAt(LINK, line, from + led[0].length);
    const span = durationAt(line, from + led[0].length + (link?.[0].length ?? 0));
    if (!span || !endsAt(line, span.to)) return false;
    reader.set("movingS", span.seconds, span.to, "riding time", from);
    return true;
  }
  const span = durationAt(line, from);
  const behind = span && matchAt(/\s+(?:riding|moving)(?: time)?/iy, line, span.to);
  if (!span || !behind || !endsAt(line, span.to + behind[0].length)) return false;
  reader.set("movingS", span.seconds, span.to + behind[0].length, "riding time", from);
  return true;
}
